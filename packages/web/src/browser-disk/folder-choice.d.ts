/** Browsers that let a page choose a folder have this function; the types of the DOM do not name it yet. */
declare global {
  var showDirectoryPicker:
    | ((options: { readonly mode: 'read' | 'readwrite' }) => Promise<FileSystemDirectoryHandle>)
    | undefined;
}

export {};
