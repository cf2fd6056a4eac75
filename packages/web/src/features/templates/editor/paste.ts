/** Pasted text → folders and starter names: any form of listing is a tree. */
import { type PathLine, parseListing } from '@nesting/core/listing';
import { type FolderNode, freshId, typedName } from '@nesting/core/template';

/** Lines of one paste: beyond them it is no template any more. */
const MOST_PASTED = 50_000;

export interface Pasted {
  readonly nodes: readonly FolderNode[];
  /** Lines that name files: they are no folders, and are left out. */
  readonly files: number;
}

export function foldersFromText(text: string, used: Set<string>, parent: FolderNode | null): Pasted {
  let lines: PathLine[];
  try {
    lines = parseListing(text).slice(0, MOST_PASTED);
  } catch {
    // What looks like JSON and is none is taken line by line.
    lines = text
      .split(/\r?\n/)
      .map((line) => line.trim())
      .filter((line) => line !== '')
      .map((path) => ({ path, folder: null, size: 0, modified: 0 }));
  }
  interface Making {
    name: string;
    folders: Map<string, Making>;
  }
  const root: Making = { name: '', folders: new Map() };
  const holders = new Set(
    lines.flatMap((l) => {
      const cut = l.path.lastIndexOf('/');
      return cut > 0 ? [l.path.slice(0, cut)] : [];
    }),
  );
  let files = 0;
  for (const line of lines) {
    const isFolder = holders.has(line.path) || (line.folder ?? !/\.[A-Za-z0-9]{1,5}$/.test(line.path));
    const parts = line.path.split('/').filter((p) => p !== '');
    if (!isFolder) {
      files++;
      parts.pop();
    }
    let at = root;
    for (const part of parts) {
      const next = at.folders.get(part) ?? { name: part, folders: new Map() };
      at.folders.set(part, next);
      at = next;
    }
  }
  const make = (making: Making, above: FolderNode | null): FolderNode => {
    const { name, number } = typedName(above, making.name);
    const folders = [...making.folders.values()].map((child) => make(child, null));
    return {
      id: freshId(name, used),
      name,
      ...(number !== undefined && { number }),
      ...(folders.length > 0 && { folders }),
    };
  };
  return { nodes: [...root.folders.values()].map((m) => make(m, parent)), files };
}
