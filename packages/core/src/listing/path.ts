/** Paths given from outside, checked once: relative, parted by `/`, and never out of the folder they are in. */
import { failure, type Result, success } from '../result';

declare const relPath: unique symbol;
export type RelPath = string & { readonly [relPath]: true };

export type PathFault = 'path-absolute' | 'path-leaves' | 'path-nul' | 'path-empty-part' | 'path-too-long';

/** The one maker of `RelPath`. The empty path is the folder itself. */
export function relPathOf(text: string): Result<RelPath, PathFault> {
  if (text.length > 4096) return failure(['path-too-long']);
  if (text.includes('\0')) return failure(['path-nul']);
  if (text.startsWith('/') || /^[A-Za-z]:[\\/]/.test(text) || text.startsWith('\\')) return failure(['path-absolute']);
  const parts = text === '' ? [] : text.split('/');
  if (parts.some((part) => part === '..' || part === '.')) return failure(['path-leaves']);
  if (parts.some((part) => part === '')) return failure(['path-empty-part']);
  return success(text as RelPath);
}
