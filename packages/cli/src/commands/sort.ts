import { randomUUID } from 'node:crypto';
import path from 'node:path';
import { markerSchema } from '@nesting/contract';
import { type Change, HOME, type NewContent } from '@nesting/core/change';
import { checksumLists, type IntakeItem, isTaken, PLAIN_PAIRING, withEntries } from '@nesting/core/planners';
import { type CheckInput, ProjectRules } from '@nesting/core/project';
import { changesCsv } from '@nesting/core/report';
import { shown } from '@nesting/core/text';
import { hindranceWords, INTAKE_STATE_WORDS, placeReasonWords, wordsFor } from '@nesting/core/words';
import { applyOnDisk, inRoot, type PlannedIntake, readMarker, TASKS } from '@nesting/disk';
import { HEAP, SECOND, withBroughtRoots } from '../brought-roots';
import { EXIT, type Exit, Unusable } from '../fail';
import { type Options, setOf } from '../input';
import { print, progressLine, say } from '../output';
import { inputOf, isMarked, requireFolder, sayPlan, wholePath } from '../project-folder';

const FORMS = ['text', 'json', 'csv'];

interface Sorting {
  readonly from: string;
  readonly into: string;
  readonly second: string | undefined;
  readonly input: CheckInput;
  readonly plan: PlannedIntake;
}

/** Brings loose files to their places: what is sure or likely. What is planned is printed; it is done, but for a dry run. */
export async function sort(options: Options): Promise<Exit> {
  const as = options.as ?? 'text';
  if (!FORMS.includes(as)) throw new Unusable(`--as ${as}: one of ${FORMS.join(', ')}`);
  const sorting = await planned(options);
  const { plan, into } = sorting;
  const [fault] = plan.orderFaults;
  if (fault !== undefined) throw new Unusable(`${fault.at.path}: ${wordsFor(fault.code, {})}`);
  for (const item of plan.items) if (!isTaken(item)) sayLeft(item);
  if (!options.dryRun && plan.changes.length > 0) {
    if (!isMarked(into))
      throw new Unusable(`${into}: no project of Nesting’s, so what is done there could not be undone`);
    const why = await carriedOut(sorting);
    if (why !== null) {
      say(why);
      return EXIT.findings;
    }
  }
  await print(printed(sorting, as));
  return plan.items.some(({ state }) => state === 'orphan' || state === 'look') || plan.hindered > 0
    ? EXIT.findings
    : EXIT.ok;
}

async function planned(options: Options): Promise<Sorting> {
  const { from, into, second } = options;
  if (from === undefined) throw new Unusable('say where the files are, with --from DIR');
  if (into === undefined) throw new Unusable('say which project they are for, with --into DIR');
  requireFolder(from);
  requireFolder(into);
  const [heap, project] = [wholePath(from), wholePath(into)];
  if (isIn(heap, project) || isIn(project, heap)) throw new Unusable(`${from} and ${into} lie in each other`);
  requireSecond(options, [heap, project]);
  const input = { ...inputOf({ ...options, set: [] }, options.template, into), now: Date.now() };
  sayPlan(new ProjectRules(input).expansion, input.template);
  const where = { base: from, folder: '' };
  const read = await TASKS.readLoose.run(
    { where, known: [], into: { base: into, folder: '' }, mounts: [] },
    { cancel: { aborted: false }, tell: async ({ files }) => progressLine(`looking into ${files} files`) },
  );
  progressLine('');
  for (const { path: unseen, code } of read.unseen) say(`not seen: ${unseen} (${code})`);
  if (read.isCut) say('more files than are looked at: the others are left');
  const plan = await TASKS.planIntake.run({
    ...{ where: { base: into, folder: '' }, input, files: read.files, same: read.same, root: HEAP },
    sourceName: path.basename(heap),
    placed: { '': { values: setOf(options) } },
    ...{ documents: [], roots: [] },
    double:
      second === undefined
        ? null
        : { where: { base: second, folder: '' }, root: SECOND, folder: path.basename(project) },
    ...{ pairing: PLAIN_PAIRING, isMove: options.move, mostLines: Number.MAX_SAFE_INTEGER, withChanges: true },
  });
  const [taken] = plan.doubleTaken;
  if (taken !== undefined) throw new Unusable(`${second} has ${taken} already`);
  return { from, into, second, input, plan };
}

/** A second copy lies in neither of the two. Below the folder that holds the project it would be the project itself. */
function requireSecond({ second, move }: Options, others: readonly string[]): void {
  if (second === undefined) return;
  if (move) throw new Unusable('--second copies, and --move does not');
  requireFolder(second);
  const own = wholePath(second);
  if (others.some((other) => isIn(own, other) || own === path.dirname(other)))
    throw new Unusable(`${second} is no second place`);
}

const isIn = (at: string, folder: string): boolean => at === folder || at.startsWith(`${folder}${path.sep}`);

function sayLeft({ from, to, state, fault, clash, folders, missing }: IntakeItem): void {
  const stays = (why: string) => say(`stays: ${from}: ${why}`);
  if (fault !== null) stays(wordsFor(fault.code, fault.params));
  else if (clash) stays(`${to} is wanted by another, or taken`);
  else if (state === 'look') {
    const lacks = missing.length > 0 ? `; its name lacks ${missing.join(', ')}` : '';
    stays(`it may belong in ${folders.slice(0, 3).join(' or ')}${lacks}`);
  } else if (state !== 'comes') stays(INTAKE_STATE_WORDS[state].toLowerCase());
}

/** Why not, or `null`. */
async function carriedOut(sorting: Sorting): Promise<string | null> {
  const { into, plan } = sorting;
  const id = randomUUID();
  const { changes, bytesOf } = await growing(sorting);
  const outcome = await withBroughtRoots(into, sorting, (roots) =>
    applyOnDisk({
      ...{ roots, id, what: 'intake', by: process.env.USER ?? '', at: new Date().toISOString(), bytesOf },
      changes: [...changes, ...plan.changes],
    }),
  );
  if (outcome.state === 'done') {
    say(`batch ${id}`);
    return layLists(sorting, id);
  }
  return outcome.state === 'paused'
    ? `${hindranceWords(outcome.code, outcome.at.path)} nesting undo ${into} ${id} takes back what was brought`
    : `${sorting.from} or ${into} changed meanwhile; nothing was brought`;
}

/** Where the template asks for checksums beside what came: a batch of its own. Why not, or `null`. */
async function layLists({ into, input, plan }: Sorting, batch: string): Promise<string | null> {
  const where = { base: into, folder: '' };
  const values = withEntries(new ProjectRules(input), input.values, plan.entries);
  const journal = await TASKS.journalPage.run({ where, others: [], id: batch, withUndo: false });
  const at = new Date().toISOString();
  const { changes, proved } = journal ?? { changes: [], proved: {} };
  const lists = checksumLists(new ProjectRules({ ...input, values }), { changes, proved, at });
  if (lists.length === 0) return null;
  const id = randomUUID();
  const outcome = await inRoot(where, (home) =>
    applyOnDisk({
      roots: new Map([[HOME, home]]),
      ...{ id, what: 'checksums', by: process.env.USER ?? '', at, bytesOf: textOf, changes: lists },
    }),
  );
  if (outcome.state !== 'done') return `${into}: the lists of checksums could not be written`;
  say(`batch ${id}: checksums`);
  return null;
}

const textOf = (content: NewContent) => Buffer.from(content.kind === 'text' ? content.text : '');

interface Growing {
  readonly changes: readonly Change[];
  readonly bytesOf: (content: NewContent) => Uint8Array;
}

/** Days that the project has to have first: their folders, and its marker. */
async function growing({ into, input, plan }: Sorting): Promise<Growing> {
  const bytesOf = textOf;
  const marker = inRoot({ base: into, folder: '' }, readMarker);
  if (plan.entries.length === 0 || marker === null) return { changes: [], bytesOf };
  const { project, started, settings } = markerSchema.parse(JSON.parse(marker.marker));
  const values = withEntries(new ProjectRules(input), input.values, plan.entries);
  const grown = TASKS.planReshape.run({
    where: { base: into, folder: '' },
    ...{ before: input, after: { ...input, values }, renamed: {}, extra: [], keep: [] },
    prefix: `${path.dirname(path.resolve(into))}/`,
    project: { id: project, startedAt: started, settings },
    ...{ mostLines: 0, withChanges: true },
  });
  return { changes: [...grown.changes, ...grown.own], bytesOf };
}

function printed({ into, plan }: Sorting, as: string): string {
  if (as === 'csv') return changesCsv(plan.changes);
  if (as === 'json') {
    const of = (state: IntakeItem['state']) => plan.items.filter((item) => item.state === state);
    const routes = plan.items.filter(isTaken).map(({ from, to, confidence, reasons }) => ({
      ...{ from, to, confidence, reason: reasons.map(placeReasonWords).join(', ') },
    }));
    const duplicates = [...of('there'), ...of('twice')].map(({ from, same }) => ({
      from,
      same: same?.path ?? null,
      where: same?.where ?? null,
    }));
    const looks = of('look').map(({ from, to, folders, missing }) => ({ from, to, folders, missing }));
    return `${JSON.stringify({ routes, orphans: of('orphan').map(({ from }) => from), looks, pairs: plan.pairs, shift: plan.shift, duplicates })}\n`;
  }
  const lines = plan.items.filter(isTaken).map(({ from, to, reasons }) => {
    const why = reasons.map(placeReasonWords).join(', ');
    return `${shown(`${from} → ${to}${why === '' ? '' : `  (${why})`}`)}\n`;
  });
  const pairs = plan.pairs.map(({ picture, sound }) => `pair: ${shown(`${picture} + ${sound}`)}\n`);
  return `${lines.join('')}${pairs.join('')}${plan.files} files: ${into}\n`;
}
