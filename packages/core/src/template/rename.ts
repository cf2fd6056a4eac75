/** A field by another name, everywhere it is meant: in patterns, lists, conditions and starter files' names. */
import type { Field } from '../name/pattern/field';
import type { FolderNode, OnlyWhen, Template } from './node';

/** Slots of the field in a pattern; doubled braces stand for themselves and are passed over. */
const inPattern = (pattern: string, from: string, to: string): string =>
  pattern.replace(/\{\{|\{([A-Za-z][A-Za-z0-9_-]*)(?=[.:}])/g, (whole, key: string | undefined) =>
    key === from ? `{${to}` : whole,
  );

/**
 * Texts inside starter files are not looked into: they are filled when a project starts, and a slot nobody knows stays
 * visible there.
 */
export function renameField(template: Template, from: string, to: string): Template {
  const when = (condition: OnlyWhen | undefined) =>
    condition?.field === from ? { ...condition, field: to } : condition;
  const walk = (node: FolderNode): FolderNode => ({
    ...node,
    ...(node.name !== undefined && { name: inPattern(node.name, from, to) }),
    ...(node.onePer && { onePer: { ...node.onePer, list: node.onePer.list === from ? to : node.onePer.list } }),
    ...(node.onlyWhen && { onlyWhen: when(node.onlyWhen) }),
    ...(node.deliveries && {
      deliveries: node.deliveries.map((d) => ({
        ...d,
        ...(d.onePer && { onePer: { ...d.onePer, list: d.onePer.list === from ? to : d.onePer.list } }),
        ...(d.due && { due: { ...d.due, field: d.due.field === from ? to : d.due.field } }),
      })),
    }),
    ...(node.starters && {
      starters: node.starters.map((s) => ({
        ...s,
        name: inPattern(s.name, from, to),
        ...(s.onlyWhen && { onlyWhen: when(s.onlyWhen) }),
      })),
    }),
    ...(node.folders && { folders: node.folders.map(walk) }),
  });
  const field = (f: Field): Field => ({
    ...f,
    ...(f.key === from && { key: to }),
    ...(f.type === 'list' && f.within === from && { within: to }),
  });
  return {
    ...template,
    fields: template.fields.map(field),
    conventions: template.conventions.map((c) =>
      c.fields?.some((f) => f.key === from) ? c : { ...c, pattern: inPattern(c.pattern, from, to) },
    ),
    root: walk(template.root),
    ...(template.blocks && { blocks: template.blocks.map((b) => ({ ...b, folders: b.folders.map(walk) })) }),
  };
}
