/** A damaged project put right by the planner and the engine: on a disk in memory, held against another check. */
import { applyBatch, type Change, HOME, home, isNew, MemoryDisk, NO_JOURNAL } from '@nesting/core/change';
import type { Finding } from '@nesting/core/check';
import { nameOf, parentOf } from '@nesting/core/listing';
import type { Confidence } from '@nesting/core/name';
import { type Answer, type DocumentFacts, type Neighbour, type Repair, repair } from '@nesting/core/planners';
import type { ProjectRules } from '@nesting/core/project';
import { refFormatOf } from '@nesting/core/references';
import { checkDisk, type Disk, type Entry, folder, listingOf, ROOTS } from './good-disk';

interface ToPlan {
  readonly rules: ProjectRules;
  readonly disk: Disk;
  readonly findings: readonly Finding[];
  readonly answers?: Readonly<Record<string, Answer>>;
  readonly from?: Confidence | null;
  readonly neighbours?: readonly Neighbour[];
}

/** What stands in a file that refers to others; empty for all others. */
const textIn = (disk: Disk, path: string): string => disk.get(path)?.content ?? '';

export function planRepair({ rules, disk, findings, answers = {}, from = 'sure', neighbours = [] }: ToPlan): Repair {
  const listings = new Map(listingOf(disk).map((l) => [l.path, l]));
  const files = [...disk].filter(([, entry]) => !entry.folder).map(([path]) => path);
  const targets = (path: string) =>
    refFormatOf(nameOf(path))
      ?.find(textIn(disk, path))
      .map((r) => r.target) ?? [];
  const documents = files.flatMap((path): DocumentFacts[] => {
    const found = targets(path);
    return found.length === 0 ? [] : [{ path, targets: found }];
  });
  return repair({
    rules,
    findings,
    answers,
    from,
    neighbours,
    view: {
      list: (path) => listings.get(path) ?? null,
      find: (name) => files.filter((path) => nameOf(path) === name),
      targets,
    },
    documents,
    read: (path) => {
      const entry = disk.get(path);
      return { text: entry?.content ?? '', expects: { size: entry?.size ?? 0, modified: entry?.modified ?? 0 } };
    },
    roots: ROOTS,
  });
}

const FOLDER = '.nesting/batches/b';

/** What a document says with some of its bytes replaced. */
function rewritten(entry: Entry, { content }: Change): Entry {
  if (content?.kind !== 'rewritten' || entry.content === undefined) return entry;
  let bytes = Buffer.from(entry.content);
  for (const { at, length, bytes: text } of [...content.patches].reverse())
    bytes = Buffer.concat([bytes.subarray(0, at), Buffer.from(text, 'base64'), bytes.subarray(at + length)]);
  return { ...entry, content: bytes.toString() };
}

/**
 * The changes carried out by the engine; `null` where it refused them. Files in memory have no bytes: what is rewritten
 * in them is rewritten here.
 */
export async function applied(disk: Disk, planned: readonly Change[]): Promise<Disk | null> {
  const memory = new MemoryDisk();
  const changes = planned.map((c) => (c.content?.kind === 'rewritten' ? { ...c, content: null } : c));
  const known = new Map<string, Entry>();
  for (const path of [...disk.keys()].sort()) {
    const entry = disk.get(path) ?? folder;
    known.set(memory.put(home(path), entry.folder ? 'folder' : 'file', entry), entry);
  }
  // Whoever opens a batch makes its own folders.
  for (const own of ['new', 'kept']) memory.put(home(`${FOLDER}/${own}`), 'folder');
  const batch = { id: 'b', what: 'repair', by: '', at: '', undoes: null, changes, folder: FOLDER };
  const bytesOf = (content: { readonly kind: string }) => new Uint8Array(content.kind === 'text' ? 1 : 1000);
  const outcome = await applyBatch(batch, memory, NO_JOURNAL, { bytesOf });
  if (outcome.state !== 'done') return null;
  const out: Disk = new Map();
  const texts = new Map(planned.flatMap((c) => (c.content?.kind === 'rewritten' ? [[c.after?.path, c]] : [])));
  const walk = (path: string): void => {
    for (const [name, kind] of memory.list({ root: HOME, path }) ?? []) {
      const at = path === '' ? name : `${path}/${name}`;
      if (at === '.nesting') continue;
      const there = memory.look({ root: HOME, path: at });
      const [before, change] = [known.get(there?.id ?? ''), texts.get(at)];
      const now = before !== undefined && change !== undefined ? rewritten(before, change) : before;
      out.set(at, now ?? { folder: kind === 'folder', size: there?.size ?? 0, modified: Date.UTC(2026, 2, 6) });
      if (kind === 'folder') walk(at);
    }
  };
  walk('');
  return out;
}

export interface Outcome {
  /** Findings that were to be gone, and still stand. */
  readonly stayed: readonly string[];
  /** Findings that were not there before. */
  readonly made: readonly string[];
  /** Files that are elsewhere, or gone, and that no finding was about. */
  readonly needless: readonly string[];
  /** Older versions that made way for what came. */
  readonly superseded: number;
  readonly sure: number;
  readonly findings: number;
  readonly isRefused: boolean;
}

/** Everything that is sure, put right and checked again. */
export async function putRight(rules: ProjectRules, disk: Disk): Promise<Outcome> {
  const findings = checkDisk(rules, disk);
  const plan = planRepair({ rules, disk, findings });
  const ready = new Set(plan.lines.filter((l) => l.state === 'ready').map((l) => l.id));
  const after = await applied(disk, plan.changes);
  const base = { sure: ready.size, findings: findings.length };
  if (after === null) return { ...base, stayed: [], made: [], needless: [], superseded: 0, isRefused: true };
  const again = checkDisk(rules, after);
  const before = new Set(findings.map((f) => f.id));
  const words = (f: { readonly rule: string; readonly path: string }) => `${f.rule} ${f.path}`;
  return {
    ...base,
    stayed: again.filter((f) => ready.has(f.id)).map(words),
    made: again.filter((f) => !before.has(f.id) && !isFollowing(plan, f)).map(words),
    ...needlessly(findings, plan.changes),
    isRefused: false,
  };
}

/** What was found of a thing before it moved is found where it is now. */
const isFollowing = (plan: Repair, found: Finding): boolean =>
  plan.lines.some(
    (l) =>
      l.rule === found.rule &&
      l.state !== 'ready' &&
      // A gap is told of the last of its chain, whichever that is.
      (found.rule === 'version-gap'
        ? l.path.startsWith(`${parentOf(found.path)}/`)
        : nameOf(l.path) === nameOf(found.path)),
  );

/** Places that no finding is about, above or below. */
function needlessly(
  findings: readonly Finding[],
  changes: readonly Change[],
): Pick<Outcome, 'needless' | 'superseded'> {
  const about = findings.flatMap((f) => [f.path, ...f.related]);
  const near = (path: string) => about.some((a) => a === path || path.startsWith(`${a}/`) || a.startsWith(`${path}/`));
  const far = changes.filter(
    ({ before, content }) => before !== null && !near(before.path) && (content === null || isNew(content)),
  );
  const superseded = far.filter(({ after }) => /\/older\/[^/]*$/.test(after?.path ?? ''));
  return {
    needless: far.flatMap((c) => (superseded.includes(c) ? [] : [c.before?.path ?? ''])),
    superseded: superseded.length,
  };
}
