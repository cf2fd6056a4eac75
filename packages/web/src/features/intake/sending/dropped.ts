/** Files and folders that were dropped on a page, with all that is in them. */
import type { PlacedFile } from '../../../workers/sending-worker';

/** Entries are only there while the event lasts: they are taken at once, and read after it. */
export async function droppedFiles(transfer: DataTransfer): Promise<readonly PlacedFile[]> {
  const entries = [...transfer.items].flatMap((item) => item.webkitGetAsEntry() ?? []);
  const out: PlacedFile[] = [];
  for (const entry of entries) await gather(entry, '', out);
  // One folder alone is the heap itself.
  const [only] = entries;
  const isHeap = entries.length === 1 && only?.isDirectory === true;
  return isHeap ? out.map(({ path, file }) => ({ path: path.slice(only.name.length + 1), file })) : out;
}

export const nameDropped = (transfer: DataTransfer): string | null => {
  const entries = [...transfer.items].flatMap((item) => item.webkitGetAsEntry() ?? []);
  return entries.length === 1 && entries[0]?.isDirectory === true ? entries[0].name : null;
};

async function gather(entry: FileSystemEntry, above: string, out: PlacedFile[]): Promise<void> {
  const path = above === '' ? entry.name : `${above}/${entry.name}`;
  if (entry.isFile) {
    const file = await new Promise<File>((resolve, reject) => (entry as FileSystemFileEntry).file(resolve, reject));
    out.push({ path, file });
    return;
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader();
  // It tells a hundred at a time, until it tells none.
  for (;;) {
    const some = await new Promise<FileSystemEntry[]>((resolve, reject) => reader.readEntries(resolve, reject));
    if (some.length === 0) return;
    for (const one of some) await gather(one, path, out);
  }
}
