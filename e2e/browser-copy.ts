/** A folder in the browser's own file system, given to whoever asks for one: nobody sits at a test to choose. */
import { lstatSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import type { Page } from '@playwright/test';

export interface CopiedEntry {
  readonly path: string;
  readonly folder: boolean;
  /** Base 64. */
  readonly text: string;
}

/** Everything in a folder, but the program's own unless that is wanted. */
export const copiedFrom = (root: string, { withOwn = false } = {}): CopiedEntry[] =>
  readdirSync(root, { recursive: true, encoding: 'utf8' })
    .filter((at) => !at.startsWith('.nesting') || (withOwn && !at.startsWith('.nesting/batches')))
    .map((at) => {
      const folder = lstatSync(path.join(root, at)).isDirectory();
      return { path: at, folder, text: folder ? '' : readFileSync(path.join(root, at)).toString('base64') };
    });

/** The folder is given to whoever asks for one to write into, or to read from. */
export async function intoBrowser(
  page: Page,
  tree: readonly CopiedEntry[],
  { name = 'copy', isSource = false } = {},
): Promise<void> {
  await page.evaluate(
    async ({ entries, called, mode }) => {
      const home = await navigator.storage.getDirectory();
      const top = await home.getDirectoryHandle(called, { create: true });
      for (const { path: at, folder, text } of entries) {
        const parts = at.split('/');
        let into = top;
        for (const part of parts.slice(0, -1)) into = await into.getDirectoryHandle(part, { create: true });
        const name = parts.at(-1) as string;
        if (folder) await into.getDirectoryHandle(name, { create: true });
        else {
          const stream = await (await into.getFileHandle(name, { create: true })).createWritable();
          await stream.write(Uint8Array.from(atob(text), (c) => c.charCodeAt(0)));
          await stream.close();
        }
      }
      type Picker = (asked: { readonly mode: string }) => Promise<FileSystemDirectoryHandle>;
      const global = globalThis as unknown as { showDirectoryPicker: Picker };
      const before = global.showDirectoryPicker;
      global.showDirectoryPicker = async (asked) => (mode === null || asked.mode === mode ? top : before(asked));
    },
    {
      entries: [...tree].sort((a, b) => (a.path < b.path ? -1 : 1)),
      called: name,
      mode: isSource ? 'read' : null,
    },
  );
}

/** Names and bytes of all that is in it now, but the program's own. */
export const treeInBrowser = (page: Page, called = 'copy'): Promise<string[]> =>
  page.evaluate(async (name) => {
    const out: string[] = [];
    const look = async (folder: FileSystemDirectoryHandle, below: string) => {
      for await (const [name, handle] of folder.entries()) {
        if (below === '' && name === '.nesting') continue;
        if (handle.kind === 'directory') {
          out.push(`${below}${name}/`);
          await look(handle as FileSystemDirectoryHandle, `${below}${name}/`);
        } else {
          const bytes = new Uint8Array(await (await (handle as FileSystemFileHandle).getFile()).arrayBuffer());
          out.push(`${below}${name} ${bytes.length} ${bytes.reduce((sum, byte) => (sum * 31 + byte) % 1_000_003, 7)}`);
        }
      }
    };
    // While something moves it may be gone between its name and its content.
    try {
      await look(await (await navigator.storage.getDirectory()).getDirectoryHandle(name), '');
    } catch (error) {
      if (error instanceof DOMException && error.name === 'NotFoundError') return ['moving'];
      throw error;
    }
    return out.sort();
  }, called);
