/** The disk laid over the plan: planned and there, absent, unplanned. From the last check's folders and findings. */

import type { FolderCount, FolderSign } from '@nesting/contract';
import { valueAt } from '@nesting/core';
import { nameOf, parentOf } from '@nesting/core/listing';
import { type Expansion, type PlannedLine, WEIGHTS, type Weight } from '@nesting/core/template';
import { many, size } from '../../app/words';
import type { TreeNode } from '../../tray/flatten';
import type { TrayState } from '../../ui/signs';

export interface Overlay {
  readonly nodes: readonly TreeNode[];
  readonly stateOf: (line: PlannedLine) => TrayState;
  readonly unplanned: readonly { readonly path: string; readonly parent: string; readonly files: number }[];
  readonly folders: ReadonlyMap<string, FolderCount>;
  readonly signsAt: (path: string) => number;
}

export function overlayOf(
  expansion: Expansion,
  rows: readonly FolderCount[],
  findings: readonly FolderSign[],
): Overlay {
  const folders = new Map(rows.map((r) => [r.path, r]));
  const worst = worstBelow(findings);
  const signs = new Map<string, number>();
  for (const f of findings) {
    const folder = folders.has(f.path) ? f.path : parentOf(f.path);
    signs.set(folder, (signs.get(folder) ?? 0) + f.count);
  }
  const stateOf = (line: PlannedLine): TrayState =>
    folders.has(line.path) ? 'there' : line.presence === 'always' && line.made ? 'absent' : 'planned';
  const extra = rows
    .filter((r) => r.state !== 'planned' || !expansion.lines.some((l) => l.path === r.path))
    .filter((r) => r.path !== '');
  const children = groupByParent(extra.map((r) => r.path));
  const nodes: TreeNode[] = [];
  const addUnplanned = (path: string, depth: number): void => {
    const row = valueAt(folders, path);
    // The folder for older versions and what lies in free ones are known to the rules.
    const known = row.state === 'planned' || row.state === 'free';
    nodes.push({
      key: `disk:${path}`,
      depth,
      kind: 'folder',
      pieces: [{ text: nameOf(path), field: null }],
      mark: null,
      state: known ? 'there' : 'unplanned',
      note: noteOf(row),
      weight: worst.get(path),
      open: false,
    });
    for (const child of children.get(path) ?? []) addUnplanned(child, depth + 1);
  };
  const lines = expansion.lines.filter((l) => l.kind === 'folder');
  const below = new Map<string, PlannedLine[]>();
  for (const line of lines) if (line.parent !== null) below.set(line.parent, [...(below.get(line.parent) ?? []), line]);
  const firsts = new Set<string>();
  const add = (line: PlannedLine): void => {
    const state = stateOf(line);
    const row = folders.get(line.path);
    const per = line.folder?.onePer;
    const group = per === undefined ? undefined : `${line.parent} ${line.node}`;
    const first = group !== undefined && !firsts.has(group);
    if (group !== undefined) firsts.add(group);
    const weight = worst.get(line.path);
    nodes.push({
      key: line.key,
      depth: line.depth,
      kind: 'folder',
      pieces: line.pieces.map((p) => ({ text: p.text, field: p.field })),
      mark: line.mark,
      state,
      weight,
      // What has something wrong in it is not folded away among others alike.
      group: weight === undefined ? group : undefined,
      badge: state === 'absent' ? 'not there' : undefined,
      note: row ? noteOf(row) : undefined,
      open: line.depth < 1 || (line.depth < 4 && (weight !== undefined || first)),
    });
    for (const child of below.get(line.key) ?? []) add(child);
    for (const path of children.get(line.path) ?? []) addUnplanned(path, line.depth + 1);
  };
  if (lines[0]) add(lines[0]);
  return {
    nodes,
    stateOf,
    folders,
    unplanned: extra
      .filter((r) => r.state === 'unplanned')
      .map((r) => ({ path: r.path, parent: parentOf(r.path), files: r.files })),
    signsAt: (path) => signs.get(path) ?? 0,
  };
}

const noteOf = (row: FolderCount): string => (row.files === 0 ? '' : `${many(row.files, 'file')}, ${size(row.bytes)}`);

function groupByParent(paths: readonly string[]): Map<string, string[]> {
  const out = new Map<string, string[]>();
  for (const path of paths) out.set(parentOf(path), [...(out.get(parentOf(path)) ?? []), path]);
  return out;
}

/** The heaviest finding at or below each folder. */
function worstBelow(findings: readonly FolderSign[]): Map<string, Weight> {
  const out = new Map<string, Weight>();
  for (const f of findings) {
    for (let at = f.path; ; at = parentOf(at)) {
      const known = out.get(at);
      if (known === undefined || WEIGHTS.indexOf(f.weight) < WEIGHTS.indexOf(known)) out.set(at, f.weight);
      if (at === '') break;
    }
  }
  return out;
}
