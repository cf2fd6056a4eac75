/**
 * Browsers that let a page choose a folder have this function, and ask before the page may write; the types of the DOM
 * do not name them yet.
 */
declare global {
  var showDirectoryPicker:
    | ((options: { readonly mode: 'read' | 'readwrite' }) => Promise<FileSystemDirectoryHandle>)
    | undefined;
  interface FileSystemDirectoryHandle {
    requestPermission?(asked: { readonly mode: 'read' | 'readwrite' }): Promise<PermissionState>;
  }
}

export {};
