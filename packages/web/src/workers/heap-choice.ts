/** Loose files of this computer, as somebody chose them. */

/** What was chosen: a folder, or files by their places in what they were chosen from. */
export type HeapChoice =
  | { readonly kind: 'folder'; readonly folder: FileSystemDirectoryHandle }
  | { readonly kind: 'zip'; readonly zip: File }
  | {
      readonly kind: 'files';
      readonly name: string;
      readonly files: readonly { readonly path: string; readonly file: File }[];
    };

export function nameOfChoice(choice: HeapChoice): string {
  switch (choice.kind) {
    case 'folder':
      return choice.folder.name;
    case 'zip':
      return choice.zip.name.replace(/(?<=.)\.zip$/i, '');
    case 'files':
      return choice.name;
  }
}
