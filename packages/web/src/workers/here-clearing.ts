/** What programs left in a folder of this computer, and the change that clears it. */
import type { Change } from '@nesting/core/change';
import type { FolderListing } from '@nesting/core/listing';
import type { Registers } from '@nesting/core/name';
import { clearingChanges, type LeftFolder, type LeftWish, leftIn, leftSum, wishedOf } from '@nesting/core/planners';
import { generatedBy } from '@nesting/core/project';
import { applyHere, hindranceOf, type Told, whyItFailed } from '../browser-disk/batches';
import type { CarriedOut } from './here-repair';

/** A folder, as the page shows it. */
export interface LeftRow {
  readonly path: string;
  readonly files: number;
  readonly bytes: number;
  readonly newest: number;
}

export interface LeftForm {
  /** An extension; empty for what systems leave behind. */
  readonly form: string;
  readonly files: number;
  readonly bytes: number;
}

export interface LeftHere {
  readonly rows: readonly LeftRow[];
  /** Under all but its own filter. */
  readonly forms: readonly LeftForm[];
}

export const CLEAR = 'clear';

export class HereClearing {
  private readonly left: readonly LeftFolder[];

  constructor(
    private readonly root: FileSystemDirectoryHandle,
    listings: Iterable<FolderListing>,
    families: Registers['families'],
  ) {
    this.left = leftIn(listings, generatedBy(families));
  }

  show(wish: LeftWish): LeftHere {
    const forms = new Map<string, { files: number; bytes: number }>();
    for (const { files } of wishedOf(this.left, { ...wish, form: null }))
      for (const { form, size } of files) {
        const sum = forms.get(form) ?? { files: 0, bytes: 0 };
        forms.set(form, { files: sum.files + 1, bytes: sum.bytes + size });
      }
    return {
      rows: wishedOf(this.left, wish).map(({ path, files }) => ({ path, ...leftSum(files) })),
      forms: [...forms].map(([form, sum]) => ({ form, ...sum })).sort((a, b) => b.bytes - a.bytes),
    };
  }

  /** The largest first. */
  filesOf(path: string, wish: LeftWish, most: number) {
    const [folder] = wishedOf(this.left, wish).filter((f) => f.path === path);
    return [...(folder?.files ?? [])].sort((a, b) => b.size - a.size).slice(0, most);
  }

  async clear(paths: readonly string[], wish: LeftWish, by: string, told: Told): Promise<CarriedOut> {
    const batch = crypto.randomUUID();
    const wanted = new Set(paths);
    const changes: readonly Change[] = clearingChanges(
      wishedOf(this.left, wish).filter(({ path }) => wanted.has(path)),
    );
    try {
      const asked = { root: this.root, id: batch, what: CLEAR, by, undoes: null, changes, told };
      return { batch, hindrance: hindranceOf(await applyHere(asked)) };
    } catch (error) {
      return { batch, hindrance: `It failed: ${whyItFailed(error)}` };
    }
  }
}
