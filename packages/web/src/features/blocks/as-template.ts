/**
 * A block stands in templates of several kinds: to be written and drawn by itself it is given what those that hold it
 * ask for.
 */
import type { BlockBody, BlockRow, TemplateRow } from '@nesting/contract';
import type { Template } from '@nesting/core/template';

export const bodyOfBlock = (row: BlockRow): BlockBody => row.draft?.body ?? { name: row.name, folders: row.folders };

export function templateOfBlock(id: string, body: BlockBody, holders: readonly TemplateRow[]): Template {
  const first = <T>(all: readonly T[], key: (thing: T) => string): T[] =>
    [...new Map([...all].reverse().map((thing) => [key(thing), thing])).values()].reverse();
  return {
    format: 'nesting/template',
    formatVersion: 1,
    id,
    name: body.name,
    edition: 1,
    fields: first(
      holders.flatMap((t) => t.template.fields),
      (f) => f.key,
    ),
    conventions: first(
      holders.flatMap((t) => t.template.conventions),
      (c) => c.id,
    ),
    root: { id: `block:${id}`, name: body.name, folders: body.folders },
  };
}
