/** A start that is not written by the server: into a folder on this computer, or taken away as a zip or a script. */
import type { StartRequest, WrittenAs } from '@nesting/contract';
import { type MakingStep, type NewContent, performSteps, takeBack } from '@nesting/core/change';
import type { FilledStep } from '@nesting/core/report';
import { browserPort, holds } from '../../browser-disk/folder-port';

export type Elsewhere = Exclude<WrittenAs, 'steps'> | 'folder';

/** What was done, or what hindered it and what was left. */
export type Outcome = { readonly ok: true; readonly words: string } | { readonly ok: false; readonly words: string };

export const canWriteFolders = (): boolean => 'showDirectoryPicker' in globalThis;

async function ask(request: StartRequest, as: WrittenAs): Promise<Response | string> {
  const response = await fetch(`/api/projects/write?as=${as}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(request),
  }).catch(() => null);
  if (response === null) return 'The server cannot be reached. Nothing was written; try again in a moment.';
  if (response.ok) return response;
  return (
    ((await response.json().catch(() => ({}))) as { message?: string }).message ??
    'The server refused. Nothing was written.'
  );
}

export async function download(request: StartRequest, as: Exclude<WrittenAs, 'steps'>): Promise<Outcome> {
  const response = await ask(request, as);
  if (typeof response === 'string') return { ok: false, words: response };
  const name = decodeURIComponent(
    /filename="([^"]+)"/.exec(response.headers.get('content-disposition') ?? '')?.[1] ?? 'project',
  );
  const link = document.createElement('a');
  link.href = URL.createObjectURL(await response.blob());
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
  return { ok: true, words: `${name} was saved.` };
}

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

/** All of it or nothing: what was made is taken back where a step fails, and what could not be taken back is named. */
export async function intoFolder(
  request: StartRequest,
  progress: (p: Progress) => void,
  cancel: AbortSignal,
): Promise<Outcome> {
  const picked = await globalThis.showDirectoryPicker?.({ mode: 'readwrite' }).catch(() => null);
  if (!picked) return { ok: false, words: 'No folder was chosen. Nothing was written.' };
  const response = await ask(request, 'steps');
  if (typeof response === 'string') return { ok: false, words: response };
  const { root, steps } = (await response.json()) as { root: string; steps: readonly FilledStep[] };
  if (await holds(picked, root).catch(() => false))
    return { ok: false, words: `A folder ${root} exists already in ${picked.name}. Nothing was written.` };
  const bytes = new Map(steps.flatMap((s) => (s.do === 'write' ? [[s.path, s.base64] as const] : [])));
  const plan: MakingStep[] = [
    { key: root, do: 'make', path: root },
    ...steps.map(
      (s): MakingStep =>
        s.do === 'make'
          ? { key: s.key, do: 'make', path: `${root}/${s.path}` }
          : { key: s.key, do: 'write', path: `${root}/${s.path}`, content: { kind: 'kept', key: s.path } },
    ),
  ];
  const port = browserPort(picked);
  const performed = await performSteps(plan, port, {
    bytesOf: (content: NewContent) => decoded(content.kind === 'kept' ? (bytes.get(content.key) ?? '') : ''),
    progress: (done, all) => progress({ done, all }),
    cancel,
  });
  if (performed.failed === null && !performed.cancelled)
    return { ok: true, words: `${root} was written into ${picked.name}.` };
  const stayed = await takeBack(performed.done, port);
  const left =
    stayed.length === 0
      ? 'Nothing was left behind.'
      : `These could not be taken back: ${stayed.slice(-3).join(', ')}${stayed.length > 3 ? ` and ${stayed.length - 3} more` : ''}.`;
  if (performed.cancelled) return { ok: false, words: `Stopped. ${left}` };
  return {
    ok: false,
    words: `Writing failed at ${performed.failed?.step.path}: ${WHY[performed.failed?.code ?? ''] ?? performed.failed?.code}. ${left}`,
  };
}

const decoded = (base64: string): Uint8Array => Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
