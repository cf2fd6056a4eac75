/** A project's folder, made in a folder of this computer: all of it or nothing. */
import {
  applyBatch,
  type BatchOutcome,
  type Cancellation,
  type Change,
  codeOf,
  HOME,
  home,
  type NewContent,
  NO_JOURNAL,
  takeBackMade,
  VOLUME,
} from '@nesting/core/change';
import type { FilledStep } from '@nesting/core/report';
import { browserPort, holds } from './port';

/** What was done, or what hindered it and what was left. */
export type Outcome = { readonly ok: true; readonly words: string } | { readonly ok: false; readonly words: string };

const WHY: Readonly<Record<string, string>> = {
  EACCES: 'the browser’s permission for this folder was withdrawn',
  ENOSPC: 'the disk is full',
  EROFS: 'the folder may not be written to',
  ENOENT: 'the folder went away',
  EEXIST: 'something of that name is there already',
};

export interface Progress {
  readonly done: number;
  readonly all: number;
}

interface ToStart {
  /** What it is made in. */
  readonly picked: FileSystemDirectoryHandle;
  /** What it is called. */
  readonly root: string;
  readonly steps: readonly FilledStep[];
}

/** What was made is taken back where a step fails, and what could not be taken back is named. */
export async function startHere(
  { picked, root, steps }: ToStart,
  progress: (p: Progress) => void,
  cancel: Cancellation,
): Promise<Outcome> {
  if (await holds(picked, root).catch(() => false))
    return { ok: false, words: `A folder ${root} exists already in ${picked.name}. Nothing was written.` };
  const bytes = new Map(steps.flatMap((s) => (s.do === 'write' ? [[s.path, s.base64] as const] : [])));
  const changes = steps.map(changeOf);
  const folder = { root: VOLUME, path: root };
  try {
    await browserPort(new Map([[VOLUME, picked]])).make(folder);
  } catch (error) {
    return { ok: false, words: `Writing failed at ${root}: ${whyOf(codeOf(error))}. Nothing was left behind.` };
  }
  const port = browserPort(
    new Map([
      [VOLUME, picked],
      [HOME, await picked.getDirectoryHandle(root)],
    ]),
  );
  const batch = { id: root, what: 'start', by: '', at: '', undoes: null, changes, folder: '', fresh: new Set([HOME]) };
  const outcome = await applyBatch(batch, port, NO_JOURNAL, {
    bytesOf: (content: NewContent) => decoded(content.kind === 'starter' ? (bytes.get(content.key) ?? '') : ''),
    progress: (done, all) => progress({ done, all }),
    cancel,
  });
  if (outcome.state === 'done') return { ok: true, words: `${root} was written into ${picked.name}.` };
  const stayed = (await takeBackMade(changes, port)).map(({ path }) => `${root}/${path}`);
  await Promise.resolve(port.unmake(folder)).catch(() => stayed.push(root));
  const left =
    stayed.length === 0
      ? 'Nothing was left behind.'
      : `These could not be taken back: ${stayed.slice(-3).join(', ')}${stayed.length > 3 ? ` and ${stayed.length - 3} more` : ''}.`;
  const { code, path } = failureOf(outcome);
  return {
    ok: false,
    words: code === 'CANCELLED' ? `Stopped. ${left}` : `Writing failed at ${root}/${path}: ${whyOf(code)}. ${left}`,
  };
}

const changeOf = (step: FilledStep): Change => ({
  id: step.path,
  subject: { kind: 'line', line: step.path },
  group: null,
  entry: step.do === 'make' ? 'folder' : 'file',
  before: null,
  after: home(step.path),
  content: step.do === 'make' ? null : { kind: 'starter', key: step.path, isFilled: false },
});

const whyOf = (code: string): string => WHY[code] ?? code;

function failureOf(outcome: Exclude<BatchOutcome, { state: 'done' }>): { code: string; path: string } {
  if (outcome.state === 'paused') return { code: outcome.code, path: outcome.at.path };
  const [fault] = outcome.faults;
  return { code: fault?.code ?? '', path: fault?.at.path ?? '' };
}

const decoded = (base64: string): Uint8Array => Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
