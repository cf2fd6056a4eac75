/** What a reference means, seen from the file it stands in. */
import { join, parentOf } from '../listing/entry';

export type Target =
  /** On the net, inside the file itself, or empty: no file of anybody's disk. */
  | { readonly kind: 'none' }
  /** A whole path; `inside` is where it lies in this project, where that is known. */
  | { readonly kind: 'absolute'; readonly path: string; readonly inside: string | null }
  | { readonly kind: 'outside'; readonly path: string }
  /** From the project's root. */
  | { readonly kind: 'inside'; readonly path: string };

/** `roots` are whole paths of the project's root, as each system has it. */
export function targetOf(file: string, reference: string, roots: readonly string[]): Target {
  let text = reference.trim();
  if (text === '' || text.startsWith('#')) return { kind: 'none' };
  const isUrl = /^file:/i.test(text);
  if (isUrl) text = text.replace(/^file:(?:\/\/(?:localhost)?(?=\/))?/i, '').replace(/^\/(?=[A-Za-z]:)/, '');
  // A letter and a colon is a drive; anything longer is a scheme.
  else if (/^[A-Za-z][A-Za-z0-9+.-]+:/.test(text)) return { kind: 'none' };
  const slashed = text.replaceAll('\\', '/');
  if (isUrl || /^(?:\/|[A-Za-z]:\/|~\/)/.test(slashed))
    return { kind: 'absolute', path: text, inside: insideOf(slashed, roots) };
  const parts: string[] = parentOf(file) === '' ? [] : parentOf(file).split('/');
  for (const part of slashed.split('/')) {
    if (part === '' || part === '.') continue;
    if (part !== '..') parts.push(part);
    else if (parts.pop() === undefined) return { kind: 'outside', path: text };
  }
  return { kind: 'inside', path: parts.join('/') };
}

function insideOf(path: string, roots: readonly string[]): string | null {
  for (const root of roots) {
    const slashed = root.replaceAll('\\', '/').replace(/\/+$/, '');
    // Drives and shares do not tell capitals apart.
    const same = /^[A-Za-z]:|^\/\//.test(slashed)
      ? path.toLowerCase().startsWith(`${slashed.toLowerCase()}/`)
      : path.startsWith(`${slashed}/`);
    if (slashed !== '' && same) return path.slice(slashed.length + 1);
  }
  return null;
}

/** A frame number's place in a path: `####`, `%04d`, `<UDIM>`. */
export const FRAMES = /#+|%0?\d*d|<UDIM>/;

/**
 * Whether something of this path is there: any frame will do where one is meant. `namesIn` gives the names in a folder,
 * `null` where there is none.
 */
export function isThere(path: string, namesIn: (folder: string) => ReadonlySet<string> | null): boolean {
  if (path === '') return true;
  const folder = parentOf(path);
  const names = namesIn(folder);
  if (names === null) return false;
  const name = path.slice(folder === '' ? 0 : folder.length + 1);
  if (names.has(name) || names.has(name.normalize('NFC')) || namesIn(join(folder, name)) !== null) return true;
  const cut = FRAMES.exec(name);
  if (cut === null) return false;
  const [head, tail] = [name.slice(0, cut.index), name.slice(cut.index + cut[0].length)];
  return [...names].some(
    (n) =>
      n.length > head.length + tail.length &&
      n.startsWith(head) &&
      n.endsWith(tail) &&
      /^\d+$/.test(n.slice(head.length, n.length - tail.length)),
  );
}

/** The path from the project's root that a target means; `null` where it means nothing of the project. */
export const pathMeant = (target: Target): string | null =>
  target.kind === 'inside' ? target.path : target.kind === 'absolute' ? target.inside : null;
