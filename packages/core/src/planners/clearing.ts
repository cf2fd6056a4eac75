/** What programs left in a folder of somebody's own: looked through by place, form and age, and cleared by a change. */
import type { Change, Expected } from '../change/change';
import { home } from '../change/place';
import { type FolderListing, join } from '../listing/entry';

export interface LeftFile extends Expected {
  readonly name: string;
  /** Its extension; empty for what systems leave behind. */
  readonly form: string;
}

/** A folder, and what programs left right in it. */
export interface LeftFolder {
  readonly path: string;
  readonly files: readonly LeftFile[];
}

export interface LeftSum {
  readonly files: number;
  /** Bytes. */
  readonly bytes: number;
  /** The newest of them, milliseconds since 1970; 0 for none. */
  readonly newest: number;
}

/** Which of them are meant; `null` for all. */
export interface LeftWish {
  readonly form: string | null;
  /** Written before this, milliseconds since 1970. */
  readonly before: number | null;
}

/** @param formOf - what programs make has a form, and a person's file has none */
export const leftIn = (
  listings: Iterable<FolderListing>,
  formOf: (name: string) => string | null,
): readonly LeftFolder[] =>
  [...listings]
    .map(({ path, files }) => ({
      path,
      files: files.flatMap(({ name, size, modified, isFolder }): LeftFile[] => {
        const form = isFolder === true ? null : formOf(name);
        return form === null ? [] : [{ name, form, size, modified }];
      }),
    }))
    .filter(({ files }) => files.length > 0)
    .sort((a, b) => (a.path < b.path ? -1 : 1));

export const wishedOf = (left: readonly LeftFolder[], { form, before }: LeftWish): readonly LeftFolder[] =>
  left
    .map(({ path, files }) => ({
      path,
      files: files.filter((f) => (form === null || f.form === form) && (before === null || f.modified < before)),
    }))
    .filter(({ files }) => files.length > 0);

export const leftSum = (files: readonly LeftFile[]): LeftSum => ({
  files: files.length,
  bytes: files.reduce((sum, { size }) => sum + size, 0),
  newest: files.reduce((newest, { modified }) => Math.max(newest, modified), 0),
});

/** Each is kept with the change until its space is freed; one that was written to since stops the change. */
export const clearingChanges = (left: readonly LeftFolder[]): readonly Change[] =>
  left.flatMap(({ path, files }) =>
    files.map(
      ({ name, size, modified }): Change => ({
        ...{ id: join(path, name), subject: { kind: 'file' }, group: path, entry: 'file', content: null },
        before: home(join(path, name)),
        after: null,
        expects: { size, modified },
      }),
    ),
  );
