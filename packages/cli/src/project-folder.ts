/** A project's folder as commands work on it: its rules from its marker or as they are given, and a check of it. */
import { existsSync, realpathSync, statSync } from 'node:fs';
import path from 'node:path';
import { markerSchema, parseRegisters, parseTemplate } from '@nesting/contract';
import { NO_REGISTERS, type Registers, type Values } from '@nesting/core/name';
import { type CheckInput, ProjectRules } from '@nesting/core/project';
import type { Expansion, Template } from '@nesting/core/template';
import { wordsFor } from '@nesting/core/words';
import { checkOnDisk, type DiskOutcome, hashThreadsBy, inRoot, readMarker } from '@nesting/disk';
import { Unusable } from './fail';
import { type Options, registersOf, templateOf, valuesOf } from './input';
import { progressLine, say } from './output';

/** The folder and what it is checked by. */
export interface ProjectFolder {
  readonly root: string;
  readonly input: CheckInput;
}

/** From `[TEMPLATE] DIR`. */
export function projectFolder(options: Options): ProjectFolder {
  const [first, second] = options.positionals;
  const root = second ?? first;
  if (root === undefined) throw new Unusable("give a project's folder");
  requireFolder(root);
  const input = { ...inputOf(options, second === undefined ? undefined : first, root), now: Date.now() };
  sayPlan(new ProjectRules(input).expansion, input.template);
  return { root, input };
}

/** @throws Unusable where there is none */
export function requireFolder(dir: string): void {
  if (!existsSync(dir) || !statSync(dir).isDirectory()) throw new Unusable(`${dir}: no such folder`);
}

/** Wherever links on the way lead. */
export const wholePath = (dir: string): string => realpathSync(dir);

/** Whether it is a project of Nesting’s, with a place for journals. */
export const isMarked = (root: string): boolean => inRoot({ base: root, folder: '' }, readMarker) !== null;

/** The id of a project of Nesting’s; empty where its marker cannot be read. */
export function projectIdOf(root: string): string {
  const texts = inRoot({ base: root, folder: '' }, readMarker);
  const parsed = texts === null ? null : markerSchema.safeParse(safeJson(texts.marker));
  return parsed?.success ? parsed.data.project : '';
}

/** Whole paths of a folder as they may stand in documents. */
export const rootsOf = (root: string): readonly string[] => [path.resolve(root)];

/** The program of processes and threads that work on disks, as it is built beside this one; `null` where it is not. */
function diskProgram(): URL | null {
  const script = new URL('./disk-child.js', import.meta.url);
  return existsSync(script) ? script : null;
}

/** Whole files are hashed beside what else is done. */
export const useHashThreads = (): void => hashThreadsBy(diskProgram());

export async function checkFolder({ root, input }: ProjectFolder, isNamesOnly: boolean): Promise<DiskOutcome> {
  const outcome = await checkOnDisk({
    where: { base: root, folder: '' },
    input,
    script: diskProgram(),
    progress: (p) =>
      progressLine(`${p.stage === 'reading' ? 'looking into ' : ''}${p.files} files in ${p.folders} folders`),
    ...(!isNamesOnly && { contents: { roots: rootsOf(root), known: [] } }),
  });
  progressLine('');
  if (outcome.unseen.some((u) => u.path === ''))
    throw new Unusable(`${root}: cannot be read (${outcome.unseen[0]?.code})`);
  for (const u of outcome.unseen) say(`not seen: ${u.path} (${u.code})`);
  return outcome;
}

/** A plan that cannot be worked out would make everything on the disk look unplanned: that is no check. */
export function sayPlan(expansion: Expansion, { conventions }: Pick<Template, 'conventions'>): void {
  const refused = expansion.diagnostics.filter((d) => d.weight === 'refused' && d.code !== 'path-over-budget');
  if (expansion.rootName === '')
    throw new Unusable(
      `the plan cannot be worked out: ${refused.map((d) => wordsFor(d.code, d.params))[0] ?? 'the root has no name'} (give --values and --registers)`,
    );
  // What cannot be read judges nothing: without it everything would seem to be in order.
  const broken = refused.find((d) => conventions.some(({ id }) => id === d.node));
  if (broken !== undefined)
    throw new Unusable(`the convention ${broken.node} cannot be read: ${wordsFor(broken.code, broken.params)}`);
  for (const d of refused.slice(0, 20))
    say(`note: ${d.line ?? d.node ?? d.field ?? ''}: ${wordsFor(d.code, d.params)}`);
}

/** Template and values from the project's marker, unless they are given. */
export function inputOf(options: Options, template: string | undefined, root: string | null): CheckInput {
  const marker = root === null ? null : inRoot({ base: root, folder: '' }, readMarker);
  let values: Values = {};
  let settings: CheckInput['settings'];
  let registers: Registers = NO_REGISTERS;
  if (marker !== null) {
    const parsed = markerSchema.safeParse(safeJson(marker.marker));
    if (!parsed.success && (template === undefined || options.values === undefined))
      throw new Unusable(`${root}: its marker cannot be read; give the template and --values`);
    if (parsed.success) ({ values, settings } = parsed.data);
    const own = marker.registers === null ? null : parseRegisters(marker.registers);
    if (own?.ok) registers = own.value;
  }
  if (template !== undefined)
    return {
      template: templateOf(template).template,
      values: valuesOf(options, values),
      settings,
      registers: registersOf(options, registers),
    };
  if (marker?.template == null)
    throw new Unusable(
      root === null
        ? 'give a template with --listing'
        : `${root}: no marker of a project in it; give a template and --values`,
    );
  const parsed = parseTemplate(marker.template, "the project's template");
  if (!parsed.ok) throw new Unusable(parsed.faults[0] ?? 'its template cannot be read');
  const read = { values: valuesOf(options, values), registers: registersOf(options, registers) };
  return { template: parsed.value, settings, ...read };
}

function safeJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
