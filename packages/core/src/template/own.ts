/**
 * What one project has otherwise than its template: rules of its own, in place of the template's; no other project
 * knows of them.
 */

import { deepEqual } from '../deep-equal';
import { present } from '../element';
import type { Convention, FolderNode, Template } from './node';

/** What a folder's rules may be otherwise for one project. */
export type OwnFolder = Pick<FolderNode, 'accepts' | 'conventions' | 'free' | 'stable' | 'purpose'>;

export interface OwnRules {
  /** By the convention's id in the template; one the template does not have is added. */
  readonly conventions?: Readonly<Record<string, Convention>> | undefined;
  /** By the folder's id. */
  readonly folders?: Readonly<Record<string, OwnFolder>> | undefined;
}

export function withOwnRules(template: Template, own: OwnRules): Template {
  const { conventions = {}, folders = {} } = own;
  if (Object.keys(conventions).length + Object.keys(folders).length === 0) return template;
  const there = new Set(template.conventions.map((c) => c.id));
  const walk = (node: FolderNode): FolderNode => {
    const mine = folders[node.id];
    const inner = node.folders?.map(walk);
    const same = inner === undefined || inner.every((f, i) => f === node.folders?.[i]);
    return mine === undefined && same ? node : { ...node, ...mine, ...(inner && { folders: inner }) };
  };
  return {
    ...template,
    conventions: [
      ...template.conventions.map((c) =>
        Object.hasOwn(conventions, c.id) ? { ...present(conventions[c.id]), id: c.id } : c,
      ),
      ...Object.entries(conventions).flatMap(([id, c]) => (there.has(id) ? [] : [{ ...c, id }])),
    ],
    root: walk(template.root),
    ...(template.blocks && { blocks: template.blocks.map((b) => ({ ...b, folders: b.folders.map(walk) })) }),
  };
}

/** Which conventions and folders are a project's own: shown as such wherever they matter. */
export const ownConventions = (own: OwnRules): readonly string[] => Object.keys(own.conventions ?? {});

/** A rule that is the template's again is no longer the project's own. */
export function tidyOwn(template: Template, own: OwnRules): OwnRules {
  const conventions = Object.fromEntries(
    Object.entries(own.conventions ?? {}).filter(
      ([id, c]) =>
        !deepEqual(
          { ...c, id },
          template.conventions.find((t) => t.id === id),
        ),
    ),
  );
  const folders = Object.fromEntries(Object.entries(own.folders ?? {}).filter(([, f]) => Object.keys(f).length > 0));
  return {
    ...(Object.keys(conventions).length > 0 && { conventions }),
    ...(Object.keys(folders).length > 0 && { folders }),
  };
}
