/** Paths given from outside, checked once: relative, parted by `/`, and never out of the folder they are in. */
import { type Answer, bad, good } from '../answer';

declare const relPath: unique symbol;
export type RelPath = string & { readonly [relPath]: true };

export type PathFault = 'path-absolute' | 'path-leaves' | 'path-nul' | 'path-empty-part' | 'path-too-long';

/** The one maker of `RelPath`. The empty path is the folder itself. */
export function relPathOf(text: string): Answer<RelPath, PathFault> {
  if (text.length > 4096) return bad(['path-too-long']);
  if (text.includes('\0')) return bad(['path-nul']);
  if (text.startsWith('/') || /^[A-Za-z]:[\\/]/.test(text) || text.startsWith('\\')) return bad(['path-absolute']);
  const parts = text === '' ? [] : text.split('/');
  if (parts.some((part) => part === '..' || part === '.')) return bad(['path-leaves']);
  if (parts.some((part) => part === '')) return bad(['path-empty-part']);
  return good(text as RelPath);
}
