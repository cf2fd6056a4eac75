/** Writing a start, on a volume or elsewhere: one status at a time, and one function to begin and to stop. */
import type { StartRequest } from '@nesting/contract';
import type { Template } from '@nesting/core/template';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { troubleOf } from '../../app/api';
import { useRequestKey } from '../../app/request-key';
import { useAppDispatch } from '../../app/store';
import type { Outcome, Progress } from '../../browser-disk/start';
import { numbersApi } from '../house/numbers-api';
import { draftDone, SETTINGS } from './start-slice';
import { startsApi } from './starts-api';
import { targetWords } from './target';
import type { StartPlan } from './use-start-plan';
import { download, intoFolder } from './write-elsewhere';

export type StartStatus =
  | { readonly kind: 'ready' }
  /** How far it is, where that is known. */
  | { readonly kind: 'writing'; readonly progress: Progress | null }
  | { readonly kind: 'written'; readonly outcome: Outcome }
  | { readonly kind: 'failed'; readonly why: string };

export interface StartWriting {
  readonly status: StartStatus;
  readonly begin: () => Promise<void>;
  readonly stop: () => void;
  readonly forget: () => void;
}

export function useStartWriting(plan: StartPlan): StartWriting {
  const onVolume = useVolumeStart(plan);
  const elsewhere = useStartElsewhere(plan);
  return plan.target?.kind === 'volume' ? onVolume : elsewhere;
}

const requestOf = (plan: StartPlan): StartRequest => ({
  template: plan.row.id,
  edition: plan.row.edition,
  volume: plan.volume?.name ?? '',
  values: plan.values,
  adjusted: plan.adjusted,
  settings: plan.settings,
  into: plan.isAdding,
});

function useVolumeStart(plan: StartPlan): StartWriting {
  const dispatch = useAppDispatch();
  const go = useNavigate();
  const [start, { isLoading, isError, error, reset }] = startsApi.useStartProjectMutation();
  const [watched, setWatched] = useState<string | null>(null);
  const abort = useRef<(() => void) | null>(null);
  const keyFor = useRequestKey();
  const { data: far } = startsApi.useMakingQuery(watched ?? '', { skip: watched === null, pollingInterval: 400 });
  const begin = async () => {
    const request = requestOf(plan);
    const key = keyFor(request);
    setWatched(key ?? null);
    const asked = start({ ...request, ...(key && { key }) });
    abort.current = asked.abort;
    const made = await asked.unwrap().catch(() => null);
    setWatched(null);
    if (made === null) return;
    dispatch(draftDone({ template: plan.row.id, keep: keptFields(plan.row.template) }));
    await go(`/projects/${made.id}`);
  };
  const status = (): StartStatus => {
    if (isLoading) return { kind: 'writing', progress: far ?? null };
    if (!isError) return { kind: 'ready' };
    return { kind: 'failed', why: isAborted(error) ? 'Stopped: what was made is taken back.' : troubleOf(error) };
  };
  return { status: status(), begin, stop: () => abort.current?.(), forget: reset };
}

function useStartElsewhere(plan: StartPlan): StartWriting {
  const [outcome, setOutcome] = useState<Outcome | null>(null);
  const [progress, setProgress] = useState<Progress | null>(null);
  const stop = useRef<AbortController | null>(null);
  const keepNumber = useKeepNumber(plan);
  const { target } = plan;
  const begin = async () => {
    if (target === null || target.kind === 'volume') return;
    stop.current = new AbortController();
    setOutcome(null);
    const done =
      target.kind === 'folder'
        ? await intoFolder(requestOf(plan), setProgress, stop.current.signal)
        : await download(requestOf(plan), target.kind);
    setProgress(null);
    setOutcome(done);
    if (done.ok) await keepNumber();
  };
  const status = (): StartStatus => {
    if (progress !== null) return { kind: 'writing', progress };
    return outcome === null ? { kind: 'ready' } : { kind: 'written', outcome };
  };
  return { status: status(), begin, stop: () => stop.current?.abort(), forget: () => setOutcome(null) };
}

/** No project here knows what was written elsewhere: its number is kept from everybody else. */
export function useKeepNumber({ target, number, held, expansion }: StartPlan): () => Promise<void> {
  const [reserve] = numbersApi.useReserveNumberMutation();
  const [giveBack] = numbersApi.useGiveBackNumberMutation();
  return async () => {
    if (target === null || number !== held) return;
    await giveBack(number);
    await reserve({ number, why: `${expansion.rootName}, written to ${targetWords(target)}` });
  };
}

/** Fields whose values are mostly the same for one template: offered again the next time. */
const keptFields = (template: Template): string[] => [
  ...template.fields.filter((f) => f.type === 'choice').map((f) => f.key),
  SETTINGS,
];

const isAborted = (error: unknown): boolean => error instanceof Error && error.name === 'AbortError';
