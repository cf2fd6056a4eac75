/**
 * What one edition of a template has that another has not: by identities, so that a renamed folder is renamed and not
 * another one.
 */

import { deepEqual } from '../deep-equal';
import type { FolderNode, Template } from './node';

export type Difference =
  | {
      readonly kind: 'added' | 'removed';
      readonly of: 'folder' | 'starter' | 'field' | 'convention' | 'block';
      readonly id: string;
      readonly where: string;
    }
  | {
      readonly kind: 'renamed';
      readonly of: 'folder' | 'starter' | 'convention';
      readonly id: string;
      readonly where: string;
      readonly from: string;
      readonly to: string;
    }
  | {
      readonly kind: 'moved';
      readonly of: 'folder';
      readonly id: string;
      readonly where: string;
      readonly from: string;
    }
  | {
      readonly kind: 'changed';
      readonly of: 'folder' | 'field' | 'convention' | 'template';
      readonly id: string;
      readonly where: string;
      readonly what: readonly string[];
    };

interface Seat {
  readonly node: FolderNode;
  readonly parent: string | null;
  readonly path: string;
}

export function diffTemplates(before: Template, after: Template): Difference[] {
  const out: Difference[] = [];
  const a = seats(before);
  const b = seats(after);
  for (const [id, { node, parent, path }] of b) {
    const was = a.get(id);
    if (was === undefined) {
      out.push({ kind: 'added', of: 'folder', id, where: path });
      continue;
    }
    if (was.parent !== parent) out.push({ kind: 'moved', of: 'folder', id, where: path, from: was.path });
    if (was.node.name !== node.name)
      out.push({ kind: 'renamed', of: 'folder', id, where: path, from: was.node.name ?? '', to: node.name ?? '' });
    const what = changedKeys(was.node, node, ['id', 'name', 'folders', 'starters']);
    if (what.length > 0) out.push({ kind: 'changed', of: 'folder', id, where: path, what });
    out.push(...starters(was.node, node, path));
  }
  for (const [id, { path }] of a) if (!b.has(id)) out.push({ kind: 'removed', of: 'folder', id, where: path });
  out.push(
    ...listed(
      'field',
      before.fields.map((f) => [f.key, f] as const),
      after.fields.map((f) => [f.key, f] as const),
    ),
  );
  out.push(
    ...listed(
      'convention',
      before.conventions.map((c) => [c.id, c] as const),
      after.conventions.map((c) => [c.id, c] as const),
    ),
  );
  out.push(
    ...listed(
      'block',
      (before.blocks ?? []).map((x) => [x.id, x] as const),
      (after.blocks ?? []).map((x) => [x.id, x] as const),
    ),
  );
  const whole = changedKeys(before, after, [
    'id',
    'format',
    'formatVersion',
    'edition',
    'fields',
    'conventions',
    'blocks',
    'root',
  ]);
  if (whole.length > 0) out.push({ kind: 'changed', of: 'template', id: after.id, where: after.name, what: whole });
  return out;
}

function seats(template: Template): Map<string, Seat> {
  const all = new Map<string, Seat>();
  const walk = (node: FolderNode, parent: string | null, above: string, scope: string): void => {
    const path = above === '' ? (node.name ?? node.id) : `${above}/${node.name ?? node.id}`;
    all.set(scope + node.id, { node, parent, path });
    for (const child of node.folders ?? []) walk(child, scope + node.id, path, scope);
  };
  walk(template.root, null, '', '');
  for (const block of template.blocks ?? [])
    for (const folder of block.folders) walk(folder, `block:${block.id}`, block.name ?? block.id, `${block.id}/`);
  return all;
}

function starters(before: FolderNode, after: FolderNode, where: string): Difference[] {
  const a = new Map((before.starters ?? []).map((s) => [s.id, s]));
  const b = new Map((after.starters ?? []).map((s) => [s.id, s]));
  return [
    ...[...b].flatMap(([id, s]): Difference[] => {
      const was = a.get(id);
      if (was === undefined) return [{ kind: 'added', of: 'starter', id, where: `${where}/${s.name}` }];
      return was.name === s.name ? [] : [{ kind: 'renamed', of: 'starter', id, where, from: was.name, to: s.name }];
    }),
    ...[...a].flatMap(([id, s]): Difference[] =>
      b.has(id) ? [] : [{ kind: 'removed', of: 'starter', id, where: `${where}/${s.name}` }],
    ),
  ];
}

function listed(
  of: 'field' | 'convention' | 'block',
  before: readonly (readonly [string, object])[],
  after: readonly (readonly [string, object])[],
): Difference[] {
  const a = new Map(before);
  const b = new Map(after);
  return [
    ...[...b].flatMap(([id, now]): Difference[] => {
      const was = a.get(id);
      if (was === undefined) return [{ kind: 'added', of, id, where: id }];
      const what = of === 'block' ? [] : changedKeys(was, now, ['id']);
      return of === 'block' || what.length === 0 ? [] : [{ kind: 'changed', of, id, where: id, what }];
    }),
    ...[...a.keys()].flatMap((id): Difference[] => (b.has(id) ? [] : [{ kind: 'removed', of, id, where: id }])),
  ];
}

function changedKeys(before: object, after: object, apart: readonly string[]): string[] {
  const [a, b] = [new Map(Object.entries(before)), new Map(Object.entries(after))];
  return [...new Set([...a.keys(), ...b.keys()])]
    .filter((key) => !apart.includes(key) && !deepEqual(a.get(key), b.get(key)))
    .sort();
}
