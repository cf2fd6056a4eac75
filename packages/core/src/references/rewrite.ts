/**
 * What must stand in a document so that it refers to the same files once it, or they, have moved.
 *
 * 1. Each reference is read, and its file found in the project.
 * 2. Where the document and the file are afterwards is asked; a reference that still leads there is left alone.
 * 3. All others are written anew in their own manner: relative or whole, with their own separators and encoding.
 *    Nothing else of the document changes.
 */
import { utf8ToBytes } from '@noble/hashes/utils.js';
import { parentOf } from '../listing/entry';
import { utf8Length } from '../portable/name';
import { base64 } from '../text/bytes';
import type { Moves } from './moves';
import { encode, type Reference, type RefFormat } from './reference';
import { FRAMES, type Target, targetOf } from './target';

/** A document that moves, and what moves with it. */
interface ToFollow {
  /** Where the document is before, and after. */
  readonly before: string;
  readonly after: string;
  /** Whole paths of the project's root, as each system has it. */
  readonly roots: readonly string[];
  /**
   * The same of another project that the document is copied to: whole paths lead there then. `null` where nobody knows
   * them.
   */
  readonly rootsAfter?: readonly string[] | null | undefined;
  readonly moves: Moves;
  /** References that are to lead elsewhere, as they are meant now: where to, by the place before. */
  readonly pointed?: ReadonlyMap<string, string> | undefined;
}

export interface ToRewrite extends ToFollow {
  readonly text: string;
  readonly format: RefFormat;
}

/** A reference that cannot be written anew. */
export interface Unable {
  readonly target: string;
  /**
   * Why: its frames do not stay one sequence; it means a folder whose files get other names; it is a whole path, and
   * where the new project lies is not known.
   */
  readonly why: 'frames-part' | 'folder-of-renamed' | 'root-unknown';
}

/** Bytes of a document, from one of them on, that become others (base64): the form in which changes take them. */
interface BytePatch {
  readonly at: number;
  readonly length: number;
  readonly bytes: string;
}

export interface Rewriting {
  /** Of the document as UTF-8, in order. */
  readonly patches: readonly BytePatch[];
  readonly changes: readonly { readonly from: string; readonly to: string }[];
  readonly unable: readonly Unable[];
}

export function rewriteReferences(given: ToRewrite): Rewriting {
  const { text, format } = given;
  const patches: BytePatch[] = [];
  const changes = new Map<string, string>();
  const unable = new Map<string, Unable>();
  let [at, bytes] = [0, 0];
  // Lists name one file many times.
  const known = new Map<string, string | Unable | null>();
  for (const reference of format.find(text)) {
    const { target } = reference;
    let now = known.get(target);
    if (now === undefined) {
      now = targetAfter(given, reference);
      known.set(target, now);
    }
    if (now === null) continue;
    if (typeof now === 'object') {
      unable.set(reference.target, now);
      continue;
    }
    // Two readers of one format may find the same place.
    if (reference.start < at) continue;
    bytes += utf8Length(text.slice(at, reference.start));
    const written = text.slice(reference.start, reference.end);
    const length = utf8Length(written);
    patches.push({ at: bytes, length, bytes: base64(utf8ToBytes(encodedAs(now, reference, written))) });
    changes.set(reference.target, now);
    [at, bytes] = [reference.end, bytes + length];
  }
  return { patches, changes: [...changes].map(([from, to]) => ({ from, to })), unable: [...unable.values()] };
}

/** Programs write the places of frames as they are, where all else is encoded. */
function encodedAs(target: string, { encoding }: Reference, written: string): string {
  const encoded = encode(target, encoding);
  return written.includes('#') ? encoded.replaceAll('%23', '#') : encoded;
}

/** What a reference is to say that only a program can write; `null` where it may stay, or has no one place. */
export function referenceAfter(given: ToFollow, target: string): string | null {
  const after = targetAfter(given, { target });
  return typeof after === 'string' ? after : null;
}

/** What the reference is to say; `null` where it may stay as it is. */
function targetAfter(given: ToFollow, { target }: Pick<Reference, 'target'>): string | Unable | null {
  const { before, after, roots, moves, pointed } = given;
  const meant = targetOf(before, target, roots);
  const chosen = pointed?.get(target);
  if (chosen !== undefined) return relative(after, moves.of(chosen), target);
  switch (meant.kind) {
    case 'none':
      return null;
    case 'outside':
      return parentOf(before) === parentOf(after) ? null : outsideFrom(before, after, target);
    case 'absolute':
      return meant.inside === null ? null : wholeAfter(given, meant.inside, target);
    case 'inside':
      return insideAfter(given, meant, target);
  }
}

function insideAfter(
  { before, after, roots, moves }: ToFollow,
  { path }: Extract<Target, { kind: 'inside' }>,
  target: string,
): string | Unable | null {
  const to = pathAfter(moves, path);
  if (to === null) return { target, why: 'frames-part' };
  const isFolder = /[\\/]$/.test(target.trim());
  if (isFolder && moves.touchesFilesIn(path)) return { target, why: 'folder-of-renamed' };
  const still = targetOf(after, target, roots);
  if (still.kind === 'inside' && still.path === to) return null;
  // What was broken before is not made another broken path, but for what its document's own move does to it.
  return before === after && to === path ? null : relative(after, to, target);
}

function wholeAfter({ moves, roots, rootsAfter }: ToFollow, inside: string, target: string): string | Unable | null {
  const to = pathAfter(moves, inside);
  if (to === null) return { target, why: 'frames-part' };
  if (to === inside && rootsAfter === undefined) return null;
  if (rootsAfter === null) return { target, why: 'root-unknown' };
  const head = headAfter(target.slice(0, target.length - inside.length), roots, rootsAfter ?? roots);
  return `${head}${inSeparators(to, target)}`;
}

/** What stands before a path in the project, for another root on the same system. */
function headAfter(head: string, roots: readonly string[], rootsAfter: readonly string[]): string {
  const slashed = (path: string): string => path.replaceAll('\\', '/').replace(/\/+$/, '').toLowerCase();
  const at = roots.findIndex((root) => slashed(root) === slashed(head));
  const after = rootsAfter[at];
  if (after === undefined || after === roots[at]) return head;
  const separator = /[\\/]$/.exec(head)?.[0] ?? '/';
  return (
    `${separator === '/' ? after.replaceAll('\\', '/') : after.replaceAll('/', '\\')}`.replace(/[\\/]+$/, '') +
    separator
  );
}

const pathAfter = (moves: Moves, path: string): string | null =>
  FRAMES.test(path.slice(path.lastIndexOf('/') + 1)) ? moves.ofFrames(path) : moves.of(path);

/** As it was written: with its separators, its `./` in front, its slash at the end. */
const inSeparators = (path: string, as: string): string =>
  as.includes('\\') && !as.includes('/') ? path.replaceAll('/', '\\') : path;

function relative(document: string, path: string, as: string): string {
  const from = parentOf(document) === '' ? [] : parentOf(document).split('/');
  const to = path.split('/');
  let same = 0;
  while (same < from.length && same < to.length - 1 && from[same] === to[same]) same++;
  const way = [...from.slice(same).map(() => '..'), ...to.slice(same)].join('/');
  // Lists and settings know a path by its dots and separators.
  const isDotted = /^\.{1,2}[\\/]/.test(as.trim()) || (/[\\/]/.test(as) && !way.includes('/'));
  const dotted = isDotted && !way.startsWith('../') ? `./${way}` : way;
  const slashed = /[\\/]$/.test(as.trim()) && !dotted.endsWith('/') ? `${dotted}/` : dotted;
  return inSeparators(slashed, as);
}

/** A way out of the project, from another folder in it. */
function outsideFrom(before: string, after: string, target: string): string {
  const depth = (path: string) => path.split('/').length - 1;
  const parts = target.trim().replaceAll('\\', '/').split('/');
  const at: string[] = parentOf(before) === '' ? [] : parentOf(before).split('/');
  let out = 0;
  const rest: string[] = [];
  for (const part of parts) {
    if (part === '' || part === '.') continue;
    if (part !== '..') (out > 0 ? rest : at).push(part);
    else if (rest.pop() === undefined && at.pop() === undefined) out++;
  }
  return inSeparators([...Array<string>(depth(after) + out).fill('..'), ...rest].join('/'), target);
}
