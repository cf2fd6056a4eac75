/** What is done to the hierarchy by writing in its outline. Each act gives the next tree, and what is selected then. */
import {
  absorbNumbers,
  type blocksOf,
  duplicateFolders,
  type FolderNode,
  findFolder,
  freshId,
  groupFolders,
  idsIn,
  indentFolders,
  insertFolders,
  moveFolders,
  outdentFolders,
  removeFolders,
  setFolder,
  shiftFolders,
  typedName,
} from '@nesting/core/template';
import { foldersFromText } from './paste';
import type { OutlineRow } from './rows';

export interface Act {
  readonly root: FolderNode;
  /** Left as it is where nothing is given. */
  readonly select?: readonly string[] | undefined;
  /** To be told to whoever wrote. */
  readonly said?: string;
}

export class OutlineActs {
  constructor(
    private readonly root: FolderNode,
    private readonly blocks: ReturnType<typeof blocksOf>,
    /** The rows in sight, in their order. */
    private readonly rows: readonly OutlineRow[],
    private readonly selected: readonly string[],
  ) {}

  /** Those that an act at this row is meant for. */
  private idsAt(row: OutlineRow): readonly string[] {
    return this.selected.length > 1 ? this.selected : [row.id];
  }

  rename(row: OutlineRow, typed: string): FolderNode {
    const { name: written, number } = typedName(row.parent, typed);
    // A folder that is being named has no name yet: that is kept as a draft too.
    const name = written === '' ? undefined : written;
    return setFolder(this.root, row.id, number === undefined ? { name } : { name, number });
  }

  addAfter(row: OutlineRow): Act {
    const id = freshId('folder', idsIn(this.root));
    // The root has no siblings: what follows it is in it.
    const place =
      row.parent === null || (row.open && row.holds > 0)
        ? { parent: row.id, index: 0 }
        : { parent: row.parent.id, index: row.index + 1 };
    return { root: insertFolders(this.root, place, [{ id }], this.blocks), select: [id] };
  }

  remove(row: OutlineRow): Act {
    const before = this.rows[this.rows.indexOf(row) - 1];
    return { root: removeFolders(this.root, this.idsAt(row)), select: [before?.id ?? this.root.id] };
  }

  indent(row: OutlineRow): Act {
    const ids = this.idsAt(row);
    const indented = indentFolders(this.root, ids, this.blocks);
    return { root: indented === this.root ? this.root : absorbNumbers(indented, ids) };
  }

  outdent(row: OutlineRow): Act {
    const ids = this.idsAt(row);
    const outdented = outdentFolders(this.root, ids, this.blocks);
    return { root: outdented === this.root ? this.root : absorbNumbers(outdented, ids) };
  }

  shift(row: OutlineRow, by: 1 | -1): Act {
    return { root: shiftFolders(this.root, this.idsAt(row), by, this.blocks) };
  }

  duplicate(row: OutlineRow): Act {
    const { root, ids } = duplicateFolders(this.root, this.idsAt(row), this.blocks);
    return { root, select: ids.length > 0 ? ids : undefined };
  }

  group(row: OutlineRow): Act {
    const { root, id } = groupFolders(this.root, this.idsAt(row), 'group', this.blocks);
    return { root, select: id === null ? undefined : [id] };
  }

  /** Lines become folders: in an empty row in its place, else in the row. */
  paste(row: OutlineRow, text: string): Act {
    const isEmpty = row.parent !== null && (row.node.name ?? '') === '' && row.holds === 0;
    const parent = isEmpty && row.parent !== null ? row.parent : row.node;
    const { nodes, files } = foldersFromText(text, idsIn(this.root), parent);
    const base = isEmpty ? removeFolders(this.root, [row.id]) : this.root;
    const index = isEmpty ? row.index : (row.node.folders?.length ?? 0);
    const last = nodes.at(-1);
    return {
      root: insertFolders(base, { parent: parent.id, index }, nodes, this.blocks),
      select: last === undefined ? undefined : [last.id],
      ...(files > 0 && { said: `${files} lines name files; only folders were taken.` }),
    };
  }

  /** `over` is where it was let go: `in:ID` or `after:ID`. */
  drop(dragged: string, over: string): Act {
    const target = this.rows.find((r) => r.id === over.replace(/^(in|after):/, ''));
    if (target === undefined) return { root: this.root };
    const place =
      over.startsWith('in:') || target.parent === null
        ? { parent: target.id, index: findFolder(this.root, target.id)?.node.folders?.length ?? 0 }
        : { parent: target.parent.id, index: target.index + 1 };
    const ids = this.selected.includes(dragged) ? this.selected : [dragged];
    return { root: moveFolders(this.root, ids, place, this.blocks) };
  }
}
