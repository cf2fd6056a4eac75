/** Changes → steps: folders before what is in them, both in the order of their paths. */
import type { Change, Step } from './change';

export function orderChanges(changes: readonly Change[]): Step[] {
  const making = changes.filter((c) => c.before === null && c.after !== null);
  const depth = (path: string) => path.split('/').length;
  const folders = making.filter((c) => c.what === 'folder').map((c) => c.after as string);
  folders.sort((a, b) => depth(a) - depth(b) || (a < b ? -1 : 1));
  const files = making.filter((c) => c.what === 'file' && c.content !== null);
  files.sort((a, b) => ((a.after as string) < (b.after as string) ? -1 : 1));
  return [
    ...folders.map((path): Step => ({ do: 'make', path })),
    ...files.map((c): Step => ({ do: 'write', path: c.after as string, content: c.content as NonNullable<Change['content']> })),
  ];
}
