/** Nests from a template, a plan, and a project's disk. */
import type { FolderNode, PlannedLine, Template } from '@nesting/core/template';
import type { NestNode } from './layout';

/** A template's own shape: what is made once per entry counts as three. */
export function nestOfTemplate(template: Template): NestNode {
  const blocks = new Map((template.blocks ?? []).map((b) => [b.id, b.folders]));
  const of = (node: FolderNode, mark: NestNode['mark'], depth: number): NestNode => {
    const own = node.mark ?? mark;
    const inner =
      depth > 8 ? [] : [...(node.block === undefined ? [] : (blocks.get(node.block) ?? [])), ...(node.folders ?? [])];
    const children = inner.map((child) => of(child, own, depth + 1));
    const times = node.onePer === undefined ? 1 : 3;
    return {
      key: node.id,
      name: node.name ?? node.id,
      mark: own,
      state: 'planned',
      size: times * (1 + (node.starters?.length ?? 0) + children.reduce((n, c) => n + c.size, 0)),
      children,
    };
  };
  return of(template.root, null, 0);
}

export interface LineState {
  readonly state: NestNode['state'];
  readonly files: number;
  readonly signs: number;
}

/** Planned lines with their states, and unplanned folders by the path of the line they lie in. */
export function nestOfLines(
  lines: readonly PlannedLine[],
  stateOf: (line: PlannedLine) => LineState,
  unplanned: readonly { readonly path: string; readonly parent: string; readonly files: number }[] = [],
): NestNode {
  interface Making {
    readonly node: {
      key: string;
      name: string;
      mark: NestNode['mark'];
      state: NestNode['state'];
      size: number;
      signs: number;
    };
    readonly children: Making[];
  }
  const made = new Map<string, Making>();
  const byPath = new Map<string, Making>();
  let root: Making | null = null;
  for (const line of lines) {
    if (line.kind !== 'folder') continue;
    const { state, files, signs } = stateOf(line);
    const making: Making = {
      node: { key: line.key, name: line.name, mark: line.mark, state, size: 1 + files, signs },
      children: [],
    };
    made.set(line.key, making);
    byPath.set(line.path, making);
    const parent = line.parent === null ? null : made.get(line.parent);
    if (parent) parent.children.push(making);
    else root ??= making;
  }
  for (const folder of unplanned) {
    byPath.get(folder.parent)?.children.push({
      node: {
        key: folder.path,
        name: folder.path.slice(folder.path.lastIndexOf('/') + 1),
        mark: null,
        state: 'unplanned',
        size: 1 + folder.files,
        signs: 0,
      },
      children: [],
    });
  }
  const finish = (m: Making): NestNode => {
    const children = m.children.map(finish);
    return { ...m.node, size: m.node.size + children.reduce((n, c) => n + c.size, 0), children };
  };
  return root === null ? { key: 'root', name: '', mark: null, state: 'planned', size: 1, children: [] } : finish(root);
}
