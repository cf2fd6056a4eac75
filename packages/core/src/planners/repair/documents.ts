/** References of open formats follow what moves: the documents that mention it are rewritten in the same batch. */
import type { Change, Expected } from '../../change/change';
import { home } from '../../change/place';
import { nameOf } from '../../listing/entry';
import { refFormatOf } from '../../references/formats';
import type { Moves } from '../../references/moves';
import { rewriteReferences } from '../../references/rewrite';
import { pathMeant, targetOf } from '../../references/target';

/** A document of the project, and what it refers to, as it is written. */
export interface DocumentFacts {
  readonly path: string;
  readonly targets: readonly string[];
}

/** A document as it is read to be rewritten; only where its bytes are certain to be UTF-8. */
export interface DocumentText {
  readonly text: string;
  readonly expects: Expected;
}

export type Unread = 'not-utf-8' | 'too-large' | 'unreadable';

export interface RewrittenDocument {
  readonly path: string;
  readonly after: string;
  readonly changes: readonly { readonly from: string; readonly to: string }[];
}

export const BY_HAND_REASONS = [
  'not-utf-8',
  'too-large',
  'unreadable',
  'frames-part',
  'folder-of-renamed',
  'root-unknown',
  'other-project',
  'other-format',
] as const;

/** A reference that somebody must put right in the program the document belongs to. */
export interface ByHand {
  readonly document: string;
  readonly target: string;
  /** Where its file is afterwards; `null` where that is not one place. */
  readonly to: string | null;
  readonly why: (typeof BY_HAND_REASONS)[number];
}

export interface Rewritings {
  readonly changes: readonly Change[];
  readonly documents: readonly RewrittenDocument[];
  readonly byHand: readonly ByHand[];
}

interface Given {
  readonly changes: readonly Change[];
  readonly moves: Moves;
  readonly sent: Moves;
  readonly pointed: ReadonlyMap<string, ReadonlyMap<string, string>>;
  readonly documents: readonly DocumentFacts[];
  readonly roots: readonly string[];
  readonly read: (path: string) => DocumentText | Unread;
}

/** The changes with the rewriting of documents among them. */
export function rewriteDocuments(given: Given): Rewritings {
  const { moves, pointed, documents, roots, read } = given;
  const rewritten = new Map<string, { readonly document: RewrittenDocument; readonly change: Change }>();
  const byHand: ByHand[] = [];
  const gone = new Set(given.changes.flatMap((c) => (c.after === null && c.before !== null ? [c.before.path] : [])));
  for (const { path, targets } of documents) {
    const left = leftBehind(given, path, targets);
    byHand.push(...left);
    const parted = new Set(left.map(({ target }) => target));
    const isHere = !gone.has(path) && given.sent.of(path) === path;
    const affected = isHere ? targets.filter((t) => !parted.has(t) && isAffected(given, path, t)) : [];
    if (affected.length === 0) continue;
    const format = refFormatOf(nameOf(path));
    const found = format === null ? 'unreadable' : read(path);
    const after = moves.of(path);
    if (format === null || typeof found === 'string') {
      const why = typeof found === 'string' ? found : 'unreadable';
      for (const target of affected) byHand.push({ document: path, target, to: placeOf(given, path, target), why });
      continue;
    }
    const asked = { text: found.text, format, before: path, after, roots, moves, pointed: pointed.get(path) };
    const { patches, changes, unable } = rewriteReferences(asked);
    for (const { target, why } of unable) byHand.push({ document: path, target, to: null, why });
    if (patches.length === 0) continue;
    const content = { kind: 'rewritten', patches } as const;
    const own = { id: `refers ${path}`, subject: { kind: 'file' }, group: null, entry: 'file' } as const;
    const change: Change = { ...own, before: home(path), after: home(after), content, expects: found.expects };
    rewritten.set(path, { document: { path, after, changes }, change });
  }
  return {
    changes: joined(given.changes, rewritten),
    documents: [...rewritten.values()].map((r) => r.document),
    byHand,
  };
}

/** References between what stays in this project and what goes to another. */
function leftBehind({ sent, roots }: Given, path: string, targets: readonly string[]): ByHand[] {
  if (sent.isEmpty) return [];
  const isSent = sent.of(path) !== path;
  return targets.flatMap((target): ByHand[] => {
    const inside = pathMeant(targetOf(path, target, roots));
    if (inside === null) return [];
    const to = sent.ofFrames(inside);
    if ((to !== inside) === isSent) return [];
    return [{ document: path, target, to: isSent ? null : to, why: 'other-project' }];
  });
}

/** Whether a reference must be looked at: its file moves, its document does, or it is to lead elsewhere. */
function isAffected({ moves, pointed, roots }: Given, path: string, target: string): boolean {
  if (pointed.get(path)?.has(target)) return true;
  const meant = targetOf(path, target, roots);
  if (meant.kind === 'none') return false;
  if (meant.kind !== 'absolute' && moves.of(path) !== path) return true;
  const inside = pathMeant(meant);
  return (
    inside !== null && (moves.ofFrames(inside) !== inside || (/[\\/]$/.test(target) && moves.touchesFilesIn(inside)))
  );
}

function placeOf({ moves, roots }: Given, path: string, target: string): string | null {
  const inside = pathMeant(targetOf(path, target, roots));
  return inside === null ? null : moves.ofFrames(inside);
}

/** A document that moves by a change of its own is rewritten by that same change. */
function joined(
  changes: readonly Change[],
  rewritten: ReadonlyMap<string, { readonly change: Change }>,
): readonly Change[] {
  const moving = new Set<string>();
  const own = changes.map((change) => {
    const found = change.entry === 'file' && change.before !== null ? rewritten.get(change.before.path) : undefined;
    if (found === undefined || change.after === null || change.before === null) return change;
    moving.add(change.before.path);
    return { ...change, content: found.change.content, expects: found.change.expects };
  });
  return [...own, ...[...rewritten].flatMap(([path, { change }]) => (moving.has(path) ? [] : [change]))];
}
