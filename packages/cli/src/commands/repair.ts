import { randomUUID } from 'node:crypto';
import { type Content, isNew, orderChanges } from '@nesting/core/change';
import { RULE_CODES } from '@nesting/core/check';
import { type RepairLine, writingStarters } from '@nesting/core/planners';
import { changesCsv, changesPowerShell, changesSh, changesText } from '@nesting/core/report';
import { base64 } from '@nesting/core/text';
import { byHandWords, hindranceWords, REPAIR_STATE_WORDS, wordsFor } from '@nesting/core/words';
import { applyOnDisk, BatchOpen, inRoot, onlyHome, TASKS } from '@nesting/disk';
import { EXIT, type Exit, Unusable } from '../fail';
import type { Options } from '../input';
import { print, say } from '../output';
import { checkFolder, isMarked, projectFolder, rootsOf } from '../project-folder';

const FORMS = ['text', 'json', 'csv', 'sh', 'powershell'];

type Plan = Awaited<ReturnType<typeof planned>>;

/** Puts right what a check finds: what is sure, or likely too. What is planned is printed; it is done, but for a dry run. */
export async function repair(options: Options): Promise<Exit> {
  const as = options.as ?? 'text';
  if (!FORMS.includes(as)) throw new Unusable(`--as ${as}: one of ${FORMS.join(', ')}`);
  const plan = await planned(options);
  const [fault] = plan.orderFaults;
  if (fault !== undefined) throw new Unusable(`${fault.at.path}: ${wordsFor(fault.code, {})}`);
  for (const line of plan.lines) if (line.state !== 'ready') sayLeft(line);
  for (const reference of byHandIn(plan))
    say(`by hand: ${reference.document} names ${reference.target}: ${byHandWords(reference)}`);
  const isScript = as === 'sh' || as === 'powershell';
  if (options.dryRun || isScript) {
    await print(printed(plan, as));
    return plan.lines.length > 0 ? EXIT.findings : EXIT.ok;
  }
  if (!isMarked(plan.root))
    throw new Unusable(
      `${plan.root}: no project of Nesting’s, so what is done there could not be undone; --as sh gives a script`,
    );
  if (plan.changes.length === 0) {
    say('nothing was changed');
    return plan.lines.length > 0 ? EXIT.findings : EXIT.ok;
  }
  return apply(plan, as);
}

async function planned(options: Options) {
  const project = projectFolder(options);
  const { root, input } = project;
  const only = onlyOf(options);
  const findings = (await checkFolder(project, false)).findings.filter((f) => only === null || only.has(f.rule));
  const ask = (answers: Readonly<Record<string, { key: null }>>) =>
    TASKS.planRepair.run({
      where: { base: root, folder: '' },
      mounts: [],
      rules: input,
      findings,
      answers,
      from: confidenceOf(options),
      roots: rootsOf(root),
      documents: null,
      listings: [],
      neighbours: [],
      mostLines: Number.POSITIVE_INFINITY,
      withChanges: true,
      mostSearched: Number.POSITIVE_INFINITY,
    });
  const plan = await ask({});
  // What starter files hold lies beside the template, which is not here.
  const starters = writingStarters(plan.changes);
  if (starters.size === 0) return { ...plan, root };
  say('starter files are made by the studio’s server: they are left');
  return { ...(await ask(Object.fromEntries([...starters].map((id) => [id, { key: null }])))), root };
}

function onlyOf({ only }: Options): ReadonlySet<string> | null {
  if (only === undefined) return null;
  const rules = only.split(',').map((rule) => rule.trim());
  const unknown = rules.find((rule) => !RULE_CODES.some((code) => code === rule));
  if (unknown !== undefined) throw new Unusable(`--only ${unknown}: no rule is called that`);
  return new Set(rules);
}

function confidenceOf({ confidence = 'sure' }: Options): 'sure' | 'likely' {
  if (confidence === 'sure' || confidence === 'likely') return confidence;
  throw new Unusable(`--confidence ${confidence}: sure or likely`);
}

const sayLeft = ({ path, rule, state, clash }: RepairLine): void => {
  const why = clash === null ? REPAIR_STATE_WORDS[state].toLowerCase() : `${clash.at} is taken`;
  say(`stays: ${path} (${rule}): ${why}`);
};

const textBytes = (content: Content): string =>
  base64(isNew(content) && content.kind === 'text' ? Buffer.from(content.text) : new Uint8Array());

const byHandIn = ({ byHand, mentioned }: Plan) => [...byHand, ...(mentioned?.references ?? [])];

function printed(plan: Plan, as: string): string {
  const { lines, changes, documents } = plan;
  switch (as) {
    case 'json':
      return `${JSON.stringify({ lines: lines.map(shownLine), documents, byHand: byHandIn(plan) })}\n`;
    case 'csv':
      return changesCsv(changes);
    case 'sh':
      return changesSh(orderChanges(changes).steps, textBytes);
    case 'powershell':
      return `\ufeff${changesPowerShell(orderChanges(changes).steps, textBytes)}`;
    default:
      return changesText(changes);
  }
}

const shownLine = ({ id, rule, path, state, chosen, after, options }: RepairLine) => {
  const taken = options.find((o) => o.key === chosen);
  return { id, rule, path, state, way: taken?.way ?? null, confidence: taken?.confidence ?? null, to: after };
};

async function apply(plan: Plan, as: string): Promise<Exit> {
  const id = randomUUID();
  const outcome = await inRoot({ base: plan.root, folder: '' }, (root) =>
    applyOnDisk({
      roots: onlyHome(root),
      id,
      what: 'repair',
      by: process.env.USER ?? '',
      at: new Date().toISOString(),
      undoes: null,
      changes: plan.changes,
      bytesOf: (content) => Buffer.from(content.kind === 'text' ? content.text : ''),
    }),
  ).catch((error: unknown) => {
    if (error instanceof BatchOpen) throw new Unusable(`${plan.root}: another change is under way`);
    throw error;
  });
  if (outcome.state !== 'done') {
    const words =
      outcome.state === 'paused'
        ? `${hindranceWords(outcome.code, outcome.at.path)} nesting undo ${plan.root} ${id} takes it back`
        : 'the disk changed meanwhile; nothing was changed';
    say(words);
    return EXIT.findings;
  }
  const right = plan.lines.filter((l) => l.state === 'ready').length;
  await print(
    as === 'json'
      ? `${JSON.stringify({ batch: id, right, changes: plan.changes.length, stay: plan.lines.length - right })}\n`
      : `${as === 'csv' ? '' : changesText(plan.changes)}put ${right} of ${plan.lines.length} findings right, as batch ${id}\n`,
  );
  return plan.lines.length > right ? EXIT.findings : EXIT.ok;
}
