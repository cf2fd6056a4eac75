/** A start that is not written by the server: into a folder on this computer, or taken away as a zip or a script. */
import type { StartRequest, WrittenAs } from '@nesting/contract';
import type { FilledStep } from '@nesting/core/report';
import { troubleOf } from '../../app/api';
import { fetchFor } from '../../app/endpoints';
import { type Outcome, type Progress, startHere } from '../../browser-disk/start';

export type Elsewhere = Exclude<WrittenAs, 'steps'> | 'folder';

export const canWriteFolders = (): boolean => 'showDirectoryPicker' in globalThis;

async function ask(request: StartRequest, as: WrittenAs): Promise<Response | string> {
  const response = await fetchFor('writeStart', { query: { as }, body: request }).catch(() => null);
  if (response === null) return 'The server cannot be reached. Nothing was written; try again in a moment.';
  if (response.ok) return response;
  return troubleOf({ status: response.status, data: await response.json().catch(() => null) });
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
  return startHere({ picked, root, steps }, progress, cancel);
}
