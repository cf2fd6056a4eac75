import { shapeText } from '../name/pattern/shape';
import type { FolderNode, Template } from './node';
import { blocksOf, siblingsOf } from './visit';

/** A template as it may be written by hand: ids may be absent. */
type Loose<T> = T extends readonly (infer U)[]
  ? readonly Loose<U>[]
  : T extends object
    ? { readonly [K in keyof T as K extends 'id' ? never : K]: Loose<T[K]> } & { readonly id?: string | undefined }
    : T;
export type LooseTemplate = Loose<Template>;

export function normaliseTemplate(loose: LooseTemplate): Template {
  const used = new Set<string>();
  collectIds(loose.root, used);
  for (const block of loose.blocks ?? []) for (const folder of block.folders) collectIds(folder, used);
  const template = {
    ...loose,
    id: loose.id ?? slug(loose.name, new Set()),
    conventions: loose.conventions.map((c) => ({ ...c, id: c.id ?? slug(c.name, new Set()) })),
    fields: loose.fields.map((f) => ({ ...f, id: f.id ?? f.key })),
    blocks: loose.blocks?.map((b) => ({
      ...b,
      id: b.id ?? slug(b.name ?? 'block', new Set()),
      folders: b.folders.map((f) => withIds(f, used)),
    })),
    root: withIds({ ...loose.root, id: loose.root.id ?? 'root' }, used),
  } as Template;
  const blocks = blocksOf(template);
  const numbered = (node: FolderNode): FolderNode => {
    if (node.folders === undefined) return node;
    const given = new Map(siblingsOf(node, blocks).map((s) => [s.node, s.number]));
    return {
      ...node,
      folders: node.folders.map((child) => {
        const number = given.get(child) ?? undefined;
        const isGiven = node.numbering !== undefined && number !== undefined && child.number === undefined;
        return numbered(isGiven ? { ...child, number } : child);
      }),
    };
  };
  return { ...template, root: numbered(template.root) };
}

type LooseFolder = Loose<FolderNode>;

function collectIds(node: LooseFolder, used: Set<string>): void {
  if (node.id !== undefined) used.add(node.id);
  for (const starter of node.starters ?? []) if (starter.id !== undefined) used.add(starter.id);
  for (const child of node.folders ?? []) collectIds(child, used);
}

function withIds(node: LooseFolder, used: Set<string>): FolderNode {
  const named = {
    ...node,
    id: node.id ?? slug(node.name ?? node.block ?? 'folder', used),
    ...(node.starters && { starters: node.starters.map((s) => ({ ...s, id: s.id ?? slug(s.name, used) })) }),
    ...(node.folders && { folders: node.folders.map((child) => withIds(child, used)) }),
  };
  return named as FolderNode;
}

/** A short id from a name, made unique; it is then marked as used. */
function slug(name: string, used: Set<string>): string {
  const shaped = shapeText(name.replace(/[{}()?]/g, ' '), 'kebab');
  const base = shaped.ok && shaped.text !== '' ? shaped.text : 'item';
  let id = base;
  for (let n = 2; used.has(id); n++) id = `${base}-${n}`;
  used.add(id);
  return id;
}
