/**
 * Batches written down in the project's own folder: what was meant before the first step, how far it came, how it
 * ended.
 */
import {
  closeSync,
  existsSync,
  fsyncSync,
  lstatSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  unlinkSync,
  writeFileSync,
  writeSync,
} from 'node:fs';
import { join } from 'node:path';
import {
  BATCHES,
  codeOf,
  INTENTS,
  type Intents,
  type Journal,
  KEPT,
  NEW,
  OPEN,
  OUTCOMES,
  type Outcome,
} from '@nesting/core/change';
import { OWN_FOLDER } from '@nesting/core/project';
import { inside } from './guard';

/** Steps between two outcomes: a crash costs looking at so many again. */
export const GROUP = 500;

export const batchFolder = (id: string): string => `${OWN_FOLDER}/${BATCHES}/${id}`;

const ID = /^[A-Za-z0-9-]{1,80}$/;

export interface BatchRecord {
  readonly id: string;
  readonly intents: Intents;
  readonly outcomes: readonly Outcome[];
  readonly ended: Extract<Outcome, { ended: string }> | null;
}

export class BatchOpen extends Error {
  readonly code = 'BATCH-OPEN';
  constructor(readonly batch: string) {
    super(`batch ${batch} is under way`);
  }
}

function batchesFolder(root: string): string {
  const own = inside(root, OWN_FOLDER);
  if (!own.ok)
    throw Object.assign(new Error(`${OWN_FOLDER}: ${own.faults[0]?.code}`), {
      code: own.faults[0]?.code === 'path-link' ? 'ELOOP' : 'ENOENT',
    });
  const folder = join(own.value, BATCHES);
  mkdirSync(folder, { recursive: true });
  const checked = inside(root, `${OWN_FOLDER}/${BATCHES}`);
  if (!checked.ok) throw Object.assign(new Error(BATCHES), { code: 'ELOOP' });
  return checked.value;
}

/** One batch at a time in a project, whichever process or machine asks: the file is made or is there already. */
export function openBatch(root: string, id: string): Journal {
  const folder = batchesFolder(root);
  try {
    writeFileSync(join(folder, OPEN), id, { flag: 'wx' });
  } catch (error) {
    if (codeOf(error) === 'EEXIST') throw new BatchOpen(openIn(root) ?? '');
    throw error;
  }
  return journalBeside(root, id);
}

/** A journal for a batch that holds the lock, or takes back the one that does. */
export function journalBeside(root: string, id: string): Journal {
  if (!ID.test(id)) throw new Error(`no batch's name: ${id}`);
  const folder = batchesFolder(root);
  for (const part of [id, `${id}/${NEW}`, `${id}/${KEPT}`]) mkdirSync(join(folder, part), { recursive: true });
  return journalIn(join(folder, id));
}

/** Goes on writing down a batch that is open. */
export const journalOf = (root: string, id: string): Journal => journalIn(join(batchesFolder(root), id));

function journalIn(folder: string): Journal {
  /** There whole or not at all: a crash leaves only the part. */
  const whole = (name: string, text: string) => {
    const part = join(folder, `${name}.part`);
    const fd = openSync(part, 'w');
    writeSync(fd, text);
    fsyncSync(fd);
    closeSync(fd);
    renameSync(part, join(folder, name));
  };
  return {
    group: GROUP,
    begin: (intents) => {
      whole(OUTCOMES, '');
      whole(INTENTS, JSON.stringify(intents));
    },
    outcome: (outcome) => {
      const fd = openSync(join(folder, OUTCOMES), 'a');
      // A line that a crash cut off is ended first.
      writeSync(fd, `\n${JSON.stringify(outcome)}\n`);
      if ('ended' in outcome) fsyncSync(fd);
      closeSync(fd);
    },
  };
}

/** The batch under way or left by a crash, or `null`. */
export function openIn(root: string): string | null {
  const at = inside(root, `${OWN_FOLDER}/${BATCHES}/${OPEN}`);
  if (!at.ok) return null;
  const id = readFileSync(at.value, 'utf8').trim();
  return ID.test(id) ? id : null;
}

export function closeBatch(root: string): void {
  const at = inside(root, `${OWN_FOLDER}/${BATCHES}/${OPEN}`);
  if (at.ok) unlinkSync(at.value);
}

/** How long somebody may lay contents ready before the lock alone says nothing any more. */
const STALE = 10 * 60_000;

/**
 * Opens what a batch left open that never began, long ago: its volume went away, or its process was killed. Whether it
 * did.
 */
export function openStale(root: string, now: number): boolean {
  const id = openIn(root);
  const at = inside(root, `${OWN_FOLDER}/${BATCHES}/${OPEN}`);
  if (id === null || !at.ok || readBatch(root, id) !== null || now - lstatSync(at.value).mtimeMs < STALE) return false;
  closeBatch(root);
  dropBatch(root, id);
  return true;
}

/** A batch that never began has touched nothing: what was laid ready for it goes. */
export function dropBatch(root: string, id: string): void {
  const at = inside(root, batchFolder(id));
  if (at.ok && !existsSync(join(at.value, INTENTS))) rmSync(at.value, { recursive: true });
}

export function readBatch(root: string, id: string): BatchRecord | null {
  if (!ID.test(id)) return null;
  const intents = inside(root, `${batchFolder(id)}/${INTENTS}`);
  if (!intents.ok) return null;
  let parsed: Intents;
  try {
    parsed = JSON.parse(readFileSync(intents.value, 'utf8')) as Intents;
  } catch {
    // Cut off while it was written: it never began.
    return null;
  }
  if (parsed.format !== 'nesting/batch' || parsed.formatVersion !== 1) return null;
  const outcomes = outcomesAt(root, id);
  return { id, intents: parsed, outcomes, ended: outcomes.findLast((o) => 'ended' in o) ?? null };
}

function outcomesAt(root: string, id: string): Outcome[] {
  const at = inside(root, `${batchFolder(id)}/${OUTCOMES}`);
  if (!at.ok) return [];
  return readFileSync(at.value, 'utf8')
    .split('\n')
    .flatMap((line) => {
      try {
        return [JSON.parse(line) as Outcome];
      } catch {
        // The last line may be cut off.
        return [];
      }
    });
}

export function batchesIn(root: string): string[] {
  const at = inside(root, `${OWN_FOLDER}/${BATCHES}`);
  return at.ok
    ? readdirSync(at.value, { withFileTypes: true })
        .filter((e) => e.isDirectory() && ID.test(e.name))
        .map((e) => e.name)
        .sort()
    : [];
}
