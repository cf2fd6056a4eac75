import { randomUUID } from 'node:crypto';
import path from 'node:path';
import { HOME, rootIdOf } from '@nesting/core/change';
import { isBrought } from '@nesting/core/planners';
import { changesCsv } from '@nesting/core/report';
import { type Expansion, expandTemplate, type Template } from '@nesting/core/template';
import { shown } from '@nesting/core/text';
import { byHandWords, hindranceWords, wordsFor } from '@nesting/core/words';
import { applyOnDisk, inRoot, type PlannedCarry, startOnDisk, TASKS, volumeState } from '@nesting/disk';
import { EXIT, type Exit, Unusable } from '../fail';
import { type Options, templateOf, valuesOf, wayOf } from '../input';
import { print, say } from '../output';
import { inputOf, requireFolder, sayPlan, wholePath } from '../project-folder';
import { type Making, makingOf } from '../starters';
import { refused } from './expand';

const FORMS = ['text', 'json', 'csv'];

/** What the batch knows the old project by. */
const SOURCE = rootIdOf('source');

/** A new project, and what comes along into it. */
interface Carrying {
  readonly dir: string;
  readonly parent: string;
  readonly expansion: Expansion;
  readonly template: Template;
  /** Where its starter files lie; `null` where they are brought from the old project. */
  readonly starters: string | null;
  readonly plan: PlannedCarry;
}

/** A new project from an old one, which is only read. */
export async function carry(options: Options): Promise<Exit> {
  const as = options.as ?? 'text';
  if (!FORMS.includes(as)) throw new Unusable(`--as ${as}: one of ${FORMS.join(', ')}`);
  const carrying = await planned(options);
  const { plan, expansion, parent } = carrying;
  sayLeft(plan);
  if (!options.dryRun) {
    const done = await carriedOut(carrying);
    if (done !== null) {
      say(done);
      return EXIT.findings;
    }
  }
  await print(printed(plan, path.join(parent, expansion.rootName), as));
  return plan.hindered > 0 ? EXIT.findings : EXIT.ok;
}

async function planned(options: Options): Promise<Carrying> {
  const [dir] = options.positionals;
  const { to: parent } = options;
  if (dir === undefined) throw new Unusable("give a project's folder");
  if (parent === undefined) throw new Unusable('say where, with --to PARENT');
  requireFolder(dir);
  if (volumeState(parent).state === 'missing') throw new Unusable(`${parent}: no such folder`);
  // The old project is only read: a new one in it would be written there.
  if (isIn(wholePath(parent), wholePath(dir))) throw new Unusable(`${parent} lies in ${dir} itself`);
  const source = { ...inputOf({ ...options, values: undefined, set: [] }, undefined, dir), now: Date.now() };
  const given = options.template === undefined ? null : templateOf(options.template);
  const template = given?.template ?? source.template;
  const values = { ...source.values, ...valuesOf(options) };
  const target = {
    template,
    values,
    registers: source.registers,
    prefix: path.resolve(parent).length + 1,
    now: source.now,
  };
  const expansion = expandTemplate(template, values, source.registers, { prefix: `${parent}/` });
  sayPlan(expansion, template);
  if (refused(expansion)) throw new Unusable('the new project cannot be made so; nothing was written');
  const roots = { source: [path.resolve(dir)], target: [path.resolve(parent, expansion.rootName)] };
  const plan = await TASKS.planCarry.run({
    where: { base: dir, folder: '' },
    ...{ mounts: [], root: SOURCE, source, target, into: null, made: [], roots },
    ...{ way: wayOf(options), picked: {}, revision: null, startersCome: given === null },
    ...{ mostLines: Number.MAX_SAFE_INTEGER, withChanges: true },
  });
  return { dir, parent, expansion, template, starters: given?.folder ?? null, plan };
}

const isIn = (at: string, folder: string): boolean => at === folder || at.startsWith(`${folder}${path.sep}`);

/** What stays, what is torn apart, what a person must put right. */
function sayLeft({ items, byHand, needed, referring, outside }: PlannedCarry): void {
  for (const { from, to, comes, fault, clash } of items)
    if (!comes) continue;
    else if (fault !== null) say(`stays: ${from}: ${wordsFor(fault.code, fault.params)}`);
    else if (clash) say(`stays: ${from}: ${to} is wanted by another, or taken`);
  for (const one of byHand) say(`by hand: ${one.document} names ${one.target}: ${byHandWords(one)}`);
  for (const { document, target } of needed) say(`needed: ${document} refers to ${target}, which does not come along`);
  for (const { document, target } of referring)
    say(`refers: ${document}, which does not come along, refers to ${target}`);
  for (const { document, target } of outside) say(`outside: ${document} refers to ${target}`);
}

/** Started, and then filled by a batch that can be undone. Why not, or `null`. */
async function carriedOut(carrying: Carrying): Promise<string | null> {
  const { parent, expansion, plan, dir } = carrying;
  const root = path.join(parent, expansion.rootName);
  const project = randomUUID();
  const { changes, bytesOf } = making(carrying, project);
  const started = await inRoot({ base: parent, folder: '' }, (volume) =>
    startOnDisk({ parent: volume, folder: expansion.rootName, project, changes, bytesOf }),
  );
  if (!started.ok)
    return started.code === 'EEXIST' ? `${root} exists already; nothing was written` : `${root}: ${started.code}`;
  const id = randomUUID();
  const outcome = await inRoot({ base: root, folder: '' }, (home) =>
    inRoot({ base: dir, folder: '' }, (source) =>
      applyOnDisk({
        roots: new Map([
          [HOME, home],
          [SOURCE, source],
        ]),
        id,
        what: 'carry',
        by: process.env.USER ?? '',
        at: new Date().toISOString(),
        changes: plan.changes,
        bytesOf: () => new Uint8Array(),
      }),
    ),
  );
  if (outcome.state === 'done') return null;
  return outcome.state === 'paused'
    ? `${hindranceWords(outcome.code, outcome.at.path)} nesting undo ${root} ${id} takes back what was copied`
    : `${dir} changed meanwhile; ${root} was started, and nothing was copied`;
}

function making({ template, expansion, starters }: Carrying, project: string): Making {
  const started = new Date().toISOString();
  if (starters !== null) return makingOf(template, starters, expansion, project, started);
  const lines = expansion.lines.filter((line) => line.starter === null);
  return makingOf(template, '', { ...expansion, lines }, project, started);
}

function printed({ items, changes, documents, byHand, outside }: PlannedCarry, root: string, as: string): string {
  const files = items.filter(isBrought).reduce((sum, { frames }) => sum + frames, 0);
  const coming = changes.flatMap(({ content, after }) =>
    content?.kind === 'copy' && after !== null ? [{ from: content.from.path, to: after.path }] : [],
  );
  if (as === 'csv') return changesCsv(changes);
  if (as === 'json') {
    const references = documents.flatMap((d) => d.changes.map(({ from, to }) => ({ in: d.path, from, to })));
    const said = { root, changes: coming, references, byHand, outside };
    return `${JSON.stringify(said)}\n`;
  }
  const lines = coming.map(({ from, to }) => `${shown(from === to ? from : `${from} → ${to}`)}\n`);
  return `${lines.join('')}${files} files, ${documents.length} documents written anew: ${root}\n`;
}
