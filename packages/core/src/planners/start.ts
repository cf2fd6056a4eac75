/** A project's plan → the changes that make it, its marker and its rules in `.nesting` included. */

import { type Change, isNew, type NewContent, type Step } from '../change/change';
import type { OrderFault } from '../change/fault';
import { orderChanges } from '../change/order';
import { home, VOLUME } from '../change/place';
import { join, parentOf } from '../listing/entry';
import type { Registers, Values } from '../name/pattern/field';
import { OWN_FOLDER } from '../project/own-folder';
import { signpostFiles } from '../project/signpost-files';
import { signpostsOf } from '../project/signposts';
import { failure, type Result, success } from '../result';
import type { Expansion, PlannedLine } from '../template/expansion';
import type { Template } from '../template/node';
import { starterFiles } from '../template/starter-files';

/** What stands in `.nesting/project.json`: enough to recognise a project whose folder was moved. */
export interface Marker {
  readonly format: 'nesting/marker';
  readonly formatVersion: 1;
  /** The project's id. */
  readonly project: string;
  readonly template: { readonly id: string; readonly name: string; readonly edition: number };
  readonly values: Values;
  /** What was chosen on the setup sheet, by each setting's label, where that is not as usual. */
  readonly settings?: Readonly<Record<string, string>> | undefined;
  /** ISO 8601. */
  readonly started: string;
}

export const MARKER_PATH = `${OWN_FOLDER}/project.json`;
export const MARKER_TEMPLATE_PATH = `${OWN_FOLDER}/template.nest.json`;
export const MARKER_REGISTERS_PATH = `${OWN_FOLDER}/registers.json`;

export interface StartPlan {
  readonly template: Template;
  readonly expansion: Expansion;
  readonly project: string;
  readonly started: string;
  readonly settings?: Marker['settings'];
}

export function startChanges(plan: StartPlan): Change[] {
  const { expansion } = plan;
  const made = expansion.lines.filter((line) => line.made && line.path !== '').flatMap(madeLines);
  const folder: Change = { ...ofOwn(OWN_FOLDER), entry: 'folder', content: null };
  const files = ownFiles(plan).map(({ path, text }) => ownFileChange(path, text, null));
  return [...made, folder, ...files];
}

/** A line of a plan, made new: of a document that is a folder also all that is in it. */
export function madeLines({ key, kind, path, starter }: PlannedLine): readonly Change[] {
  const group = starter?.files === undefined ? null : key;
  const plain = { subject: { kind: 'line', line: key }, group, before: null } as const;
  if (starter === null) return [{ ...plain, id: key, entry: kind, after: home(path), content: null }];
  return starterEntries(starter, path).map(({ at, ...made }) => ({
    ...{ ...plain, ...made, after: home(at) },
    id: at === path ? key : `${key} ${at}`,
  }));
}

/** What a document of a line is on a disk. */
export const entryOf = ({ kind, starter }: PlannedLine): 'folder' | 'file' =>
  starter?.files === undefined ? kind : 'folder';

interface StarterEntry {
  readonly at: string;
  readonly entry: 'folder' | 'file';
  readonly content: NewContent | null;
}

/** What is made for a starter at a path: a file, or a folder with what is in it. */
export function starterEntries(starter: NonNullable<PlannedLine['starter']>, at: string): readonly StarterEntry[] {
  const isFilled = starter.fill === true;
  if (starter.files === undefined)
    return [{ at, entry: 'file', content: { kind: 'starter', key: starter.from, isFilled } }];
  const folders = new Set([at]);
  const files = starterFiles(starter).map(({ path, from }): StarterEntry => {
    for (let over = parentOf(path); over !== ''; over = parentOf(over)) folders.add(join(at, over));
    return { at: join(at, path), entry: 'file', content: { kind: 'starter', key: from, isFilled: false } };
  });
  return [...[...folders].map((folder): StarterEntry => ({ at: folder, entry: 'folder', content: null })), ...files];
}

const ofOwn = (path: string) =>
  ({ id: path, subject: { kind: 'own' }, group: null, before: null, after: home(path) }) as const;

/** A file in the project's own folder, made, or written anew where one is `before`. */
const ownFileChange = (path: string, text: string, before: string | null): Change => ({
  ...ofOwn(path),
  entry: 'file',
  before: before === null ? null : home(before),
  content: { kind: 'text', text },
});

/** What follows in the project's own folder, by the texts that stand there now; what is so already is left. */
export const ownFileChanges = (plan: StartPlan, textAt: (path: string) => string | null): readonly Change[] =>
  ownFiles(plan).flatMap(({ path, text }) => {
    const there = textAt(path);
    return there === text ? [] : [ownFileChange(path, text, there === null ? null : path)];
  });

/** A project's folder takes another name in its volume. */
export const projectFolderChange = (from: string, to: string): Change => ({
  id: 'project',
  subject: { kind: 'project' },
  group: null,
  entry: 'folder',
  before: { root: VOLUME, path: from },
  after: { root: VOLUME, path: to },
  content: null,
});

/** What is made, in the order in which it can be: by its path from the project's folder. */
export type Made = { readonly id: string; readonly path: string } & (
  | { readonly entry: 'folder' }
  | { readonly entry: 'file'; readonly content: NewContent }
);

const madeBy = (step: Step): Made[] => {
  if (step.do === 'make') return [{ id: step.id, path: step.at.path, entry: 'folder' }];
  if (step.do !== 'place' || !isNew(step.content)) return [];
  return [{ id: step.id, path: step.at.path, entry: 'file', content: step.content }];
};

/** Changes that only make what is new, in order. A plan with a fault makes nothing at all. */
export function inMakingOrder(changes: readonly Change[]): Result<readonly Made[], OrderFault> {
  const { steps, faults } = orderChanges(changes);
  return faults.length > 0 ? failure(faults) : success(steps.flatMap(madeBy));
}

/** What stands in a project's own folder: its marker, its rules as they are for it, and its signposts for programs. */
export function ownFiles(plan: StartPlan): readonly { readonly path: string; readonly text: string }[] {
  const json = (data: unknown) => `${JSON.stringify(data, null, 2)}\n`;
  return [
    { path: MARKER_PATH, text: json(markerOf(plan)) },
    { path: MARKER_TEMPLATE_PATH, text: json(plan.template) },
    { path: MARKER_REGISTERS_PATH, text: json(plan.expansion.registers satisfies Registers) },
    ...signpostFiles(MARKER_PATH, signpostsOf(plan.expansion)).map(({ name, text }) => ({
      path: `${OWN_FOLDER}/${name}`,
      text,
    })),
  ];
}

/**
 * What is made on other volumes, by volume: redirected folders with all that is in them, and the folders that lead to
 * them.
 */
export function redirectedChanges(expansion: Expansion): ReadonlyMap<string, readonly Change[]> {
  const byKey = new Map(expansion.lines.map((l) => [l.key, l]));
  const out = new Map<string, Map<string, Change>>();
  for (const line of expansion.lines) {
    if (line.elsewhere?.made !== true) continue;
    const changes = out.get(line.elsewhere.volume) ?? new Map<string, Change>();
    out.set(line.elsewhere.volume, changes);
    for (
      let at: PlannedLine | undefined = line;
      at !== undefined && at.path !== '' && !changes.has(at.key);
      at = byKey.get(at.parent ?? '')
    ) {
      for (const change of madeLines(at)) changes.set(change.id, change);
    }
  }
  return new Map([...out].map(([volume, changes]) => [volume, [...changes.values()]]));
}

function markerOf({ template, expansion, project, started, settings = {} }: StartPlan): Marker {
  return {
    format: 'nesting/marker',
    formatVersion: 1,
    project,
    template: { id: template.id, name: template.name, edition: template.edition ?? 1 },
    values: expansion.values.values,
    ...(Object.keys(settings).length > 0 && { settings }),
    started,
  };
}
