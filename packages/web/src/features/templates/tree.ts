/** A template as tree nodes: patterns stand where names will, reserved numbers are shown as the gaps they are. */
import { present } from '@nesting/core';
import { mustParse, type Registers } from '@nesting/core/name';
import { type FolderNode, type ResolvedFolder, resolveTemplate, type Template } from '@nesting/core/template';
import type { NamePiece, TreeNode } from '../../tray/flatten';
import { signOf } from './editor/row-signs';

export interface TemplateLine {
  readonly tree: TreeNode;
  readonly folder: ResolvedFolder | null;
  readonly path: string;
  /** The lists it is made once per entry of. */
  readonly per: readonly string[];
}

export function linesOfTemplate(template: Template, registers: Registers): TemplateLine[] {
  const out: TemplateLine[] = [];
  const { root } = resolveTemplate(template, registers);
  const walk = (
    folder: ResolvedFolder,
    depth: number,
    mark: FolderNode['mark'] | null,
    above: string,
    lists: readonly string[],
  ): void => {
    const per = folder.node.onePer ? [...lists, folder.node.onePer.as] : lists;
    const own = folder.node.mark ?? mark ?? null;
    const pieces = [
      ...(folder.numberPrefix === '' ? [] : [{ text: folder.numberPrefix, field: null }]),
      ...piecesOf(folder.node.name ?? ''),
    ];
    const path = above === '' ? (folder.node.name ?? '') : `${above} / ${folder.numberPrefix}${folder.node.name ?? ''}`;
    out.push({
      folder,
      path,
      per,
      tree: {
        key: folder.id,
        depth,
        kind: 'folder',
        pieces,
        mark: own,
        state: 'planned',
        note: folder.node.purpose,
        badge: signOf(folder.node) ?? undefined,
        open: depth < 4,
      },
    });
    for (const line of withReserved(folder)) {
      if ('reserved' in line)
        out.push({
          folder: null,
          path: '',
          per,
          tree: {
            key: `${folder.id}#${line.reserved}`,
            depth: depth + 1,
            kind: 'reserved',
            pieces: [{ text: line.text, field: null }],
            mark: null,
            state: 'planned',
            note: line.label,
            open: false,
          },
        });
      else walk(line, depth + 1, own, path, per);
    }
    for (const starter of folder.node.starters ?? []) {
      out.push({
        folder: null,
        path: `${path} / ${starter.name}`,
        per,
        tree: {
          key: `${folder.ids}${starter.id}`,
          depth: depth + 1,
          kind: 'file',
          pieces: piecesOf(starter.name),
          mark: own,
          state: 'planned',
          note: starter.fill ? 'starter file, filled in' : 'starter file',
          open: false,
        },
      });
    }
  };
  walk(root, 0, null, '', []);
  return out;
}

type Reserved = { readonly reserved: number; readonly text: string; readonly label: string };

/** Folders with the reserved numbers between them, in the order of their numbers. */
export function withReserved(folder: Pick<ResolvedFolder, 'node' | 'folders'>): (ResolvedFolder | Reserved)[] {
  const numbering = folder.node.numbering;
  const reserved = (numbering?.reserved ?? []).map(
    (r): Reserved => ({
      reserved: r.number,
      text: String(r.number).padStart(numbering?.digits ?? 1, '0'),
      label: r.label ?? 'kept free',
    }),
  );
  const out: (ResolvedFolder | Reserved)[] = [];
  for (const child of folder.folders) {
    const number = Number.parseInt(child.numberPrefix, 10);
    while (reserved[0] && Number.isFinite(number) && reserved[0].reserved < number) out.push(present(reserved.shift()));
    out.push(child);
  }
  return [...out, ...reserved];
}

/** A pattern's parts as pieces: slots carry their field. */
function piecesOf(pattern: string): NamePiece[] {
  try {
    return mustParse(pattern).parts.map((p) =>
      p.kind === 'literal'
        ? { text: p.text, field: null }
        : { text: pattern.slice(p.at, p.end), field: p.kind === 'slot' ? p.field : 'group' },
    );
  } catch {
    return [{ text: pattern, field: null }];
  }
}
