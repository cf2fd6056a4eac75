/** Writing into a folder of this computer, as a page asks for it and tells of it. */
import { many } from '../app/words';

/** Whether the browser lets the page write into the folder; it may ask whoever sits there. */
export async function mayWrite(folder: FileSystemDirectoryHandle): Promise<boolean> {
  return (await folder.requestPermission?.({ mode: 'readwrite' }).catch(() => 'denied')) !== 'denied';
}

export const NOT_WRITABLE = 'The browser does not let this page write into the folder. Nothing was changed.';

export const stepsSaid =
  (say: (words: string) => void) =>
  (done: number, all: number): void =>
    say(`${done} of ${many(all, 'step')} done. Leave this page open until it has ended.`);
