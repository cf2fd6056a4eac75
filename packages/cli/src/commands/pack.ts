import path from 'node:path';
import { codeOf } from '@nesting/core/change';
import { PACKAGE_KINDS, type PackageKind } from '@nesting/core/package';
import { type Selection, WHOLE_PROJECT } from '@nesting/core/planners';
import { type CheckInput, ProjectRules } from '@nesting/core/project';
import { shown } from '@nesting/core/text';
import { cannotGoWords, staysWords } from '@nesting/core/words';
import { type PackTask, type PlannedPack, TASKS, volumeState } from '@nesting/disk';
import { EXIT, type Exit, Unusable } from '../fail';
import type { Options } from '../input';
import { print, progressLine, say } from '../output';
import { inputOf, projectIdOf, requireFolder, rootsOf, useHashThreads, wholePath } from '../project-folder';

/** A package of a project, with its checksums beside it. */
export async function pack(options: Options): Promise<Exit> {
  const [dir] = options.positionals;
  const kind = kindOf(options.as ?? 'zip');
  if (dir === undefined) throw new Unusable("give a project's folder");
  requireFolder(dir);
  useHashThreads();
  const input = { ...inputOf(options, undefined, dir), now: Date.now() };
  const { parent, name } = targetOf(options.to, kind, dir);
  const planning = {
    where: { base: dir, folder: '' },
    ...{ mounts: [], rules: input, selection: selectionOf(options, input), kind, roots: rootsOf(dir) },
    ...{ must: [], mostLines: 0 },
  };
  const plan = await TASKS.planPack.run(planning);
  sayLeft(plan);
  if (plan.files === 0) throw new Unusable('nothing goes into the package; nothing was written');
  if (options.dryRun) {
    await print(`${plan.files} files, ${plan.bytes} bytes: ${shown(path.join(parent, name))}\n`);
    return EXIT.ok;
  }
  const task: PackTask = {
    ...planning,
    ...{ target: { base: parent, folder: '' }, into: '', name, isSideBySide: false },
    ...{ project: projectIdOf(dir), about: aboutOf(input, dir), accepted: [], settings: {} },
    ...{ mayLeaveOut: false, shown: null },
  };
  return written(task, path.join(parent, name));
}

async function written(task: PackTask, whole: string): Promise<Exit> {
  const context = {
    cancel: new AbortController().signal,
    tell: async ({ stage, files }: { readonly stage: string; readonly files: number }) =>
      progressLine(stage === 'packing' ? `${files} files packed` : `${files} files proved`),
  };
  try {
    const outcome = await TASKS.packProject.run(task, context);
    progressLine('');
    if (outcome.state === 'waits') {
      for (const { path: at, code } of outcome.notPacked) say(`not packed: ${at} (${code})`);
      say('the package waits; run the command again when these can be read');
      return EXIT.findings;
    }
    const { packed } = outcome;
    TASKS.forgetLog.run({ where: task.target, into: task.into, name: task.name });
    await print(`${packed.files} files, ${packed.bytes} bytes: ${shown(whole)}\n`);
    return EXIT.ok;
  } catch (error) {
    const code = codeOf(error);
    if (code === 'EEXIST') throw new Unusable(`${whole} exists already; nothing was written`);
    throw new Unusable(`${whole} could not be written (${code}); run the command again to go on`);
  }
}

function kindOf(word: string): PackageKind {
  const kind = PACKAGE_KINDS.find((one) => one === word);
  if (kind === undefined) throw new Unusable(`--as ${word}: one of ${PACKAGE_KINDS.join(', ')}`);
  return kind;
}

/** An existing folder takes it in under the project's own name; anything else is its name. */
function targetOf(
  to: string | undefined,
  kind: PackageKind,
  dir: string,
): { readonly parent: string; readonly name: string } {
  if (to === undefined) throw new Unusable('say where, with --to FILE or --to DIR');
  const isFolder = volumeState(to).state !== 'missing';
  const [parent, given] = isFolder ? [to, path.basename(wholePath(dir))] : [path.dirname(to), path.basename(to)];
  if (volumeState(parent).state === 'missing') throw new Unusable(`${parent}: no such folder`);
  const [inside, project] = [wholePath(parent), wholePath(dir)];
  // A package in what it is made of would hold itself.
  if (inside === project || inside.startsWith(`${project}${path.sep}`))
    throw new Unusable(`${parent} lies in ${dir} itself`);
  return { parent, name: kind === 'bag' || /\.zip$/i.test(given) ? given : `${given}.zip` };
}

function selectionOf({ without, within, current, inHouse }: Options, input: CheckInput): Selection {
  const families = (without ?? '').split(',').flatMap((word) => (word.trim() === '' ? [] : [word.trim()]));
  const known = new ProjectRules(input).registers.families.map(({ name }) => name);
  const unknown = families.find((family) => !known.includes(family));
  if (unknown !== undefined) throw new Unusable(`--without ${unknown}: no such family; there are ${known.join(', ')}`);
  return {
    ...WHOLE_PROJECT,
    within: (within ?? '').replace(/\/+$/, ''),
    comes: current ? 'current' : 'everything',
    leave: families.map((family) => ({ family })),
    isForOutsiders: !inHouse,
  };
}

function sayLeft({ staying, needed, outside, cannot, cannotAll }: PlannedPack): void {
  for (const { path: at, code } of cannot) say(`cannot go: ${at}: ${cannotGoWords(code)}`);
  if (cannotAll > cannot.length) say(`cannot go: ${cannotAll - cannot.length} more`);
  for (const { stays, files, bytes } of staying) say(`stays: ${files} files, ${bytes} bytes: ${staysWords(stays)}`);
  for (const { document, target } of needed) say(`needed: ${document} refers to ${target}, which does not go`);
  for (const { document, target } of outside) say(`outside: ${document} refers to ${target}`);
}

const aboutOf = ({ values, registers }: CheckInput, dir: string): PackTask['about'] => ({
  number: String(values.number ?? ''),
  title: String(values.title ?? ''),
  client: registers.clients.find(({ code }) => code === values.client)?.name ?? String(values.client ?? ''),
  folder: path.basename(wholePath(dir)),
  ...{ recipient: '', note: '', at: new Date().toISOString(), by: process.env.USER ?? '' },
});
