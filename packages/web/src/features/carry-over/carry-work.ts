/**
 * The state of a plan that carries a project over: what was said of it, what it comes to, and its carrying out. What
 * was said is kept in this browser until then; what is looked at stands in the address.
 */
import {
  type CarryPlan,
  type CarryRequest,
  type CarryToVolume,
  type ProjectPage,
  wayBodySchema,
} from '@nesting/contract';
import type { CarryWay, Comes, Picked } from '@nesting/core/planners';
import { useMemo } from 'react';
import { useNavigate } from 'react-router';
import { z } from 'zod';
import { troubleOf } from '../../app/api';
import { fetchFor } from '../../app/endpoints';
import { useKept } from '../../app/kept';
import { useRequestKey } from '../../app/request-key';
import { useAddress } from '../../app/use-address';
import { useDebounced } from '../../app/use-debounced';
import { saveReply } from '../../changes/save-plan';
import { carryApi } from './carry-api';
import { type CarryHere, useCarryHere } from './use-carry-here';

export type Target = CarryRequest['target'];
export type PickedOne = Picked[string];

export interface Said {
  readonly way: CarryWay;
  readonly picked: Picked;
}

const saidSchema: z.ZodType<Said> = z.object({
  way: wayBodySchema,
  picked: z.record(
    z.string(),
    z.object({ comes: z.boolean().optional(), name: z.string().optional(), folder: z.string().optional() }),
  ),
});

const UNSAID: Said = { way: { folders: {}, take: [], leave: [], version: 'restart', words: [] }, picked: {} };

export interface CarryWork {
  readonly project: ProjectPage;
  readonly params: URLSearchParams;
  readonly put: ReturnType<typeof useAddress>[1];
  readonly said: Said;
  /** What of a folder comes, by the template's id of it; `null` says nothing of itself. */
  readonly sayFolder: (node: string, comes: Comes | null) => void;
  readonly setWay: (changes: Partial<CarryWay>) => void;
  /** What is given is added to what was said of a path; `undefined` takes it back. */
  readonly pick: (changes: Readonly<Record<string, PickedOne>>) => void;
  readonly forget: () => void;
  readonly plan: CarryPlan | undefined;
  readonly isPlanning: boolean;
  readonly trouble: string | null;
  /** Why there is no plan yet. */
  readonly hindrance: string | null;
  readonly isReady: boolean;
  readonly isCarrying: boolean;
  readonly carryOut: () => Promise<void>;
  /** Of a folder on this computer. */
  readonly here: CarryHere;
  readonly save: (as: 'text' | 'csv' | 'json') => Promise<void>;
}

/** @param target - `null`, with why, where nobody can tell yet where it is carried to */
export function useCarryWork(
  project: ProjectPage,
  target: Target | null,
  hindrance: string | null,
  whenDone: () => void,
): CarryWork {
  const { id } = project;
  const go = useNavigate();
  const [params, put] = useAddress();
  const [said, keep] = useSaid(id);
  const wanted = useMemo(
    (): CarryRequest | null =>
      target === null || hindrance !== null
        ? null
        : { target: keyless(target), way: bodyOfWay(said.way), picked: said.picked },
    [target, hindrance, said],
  );
  const asked = useDebounced(wanted, 250);
  const { data, error, isFetching } = carryApi.usePlanCarryQuery(
    { id, asked: asked ?? NOWHERE },
    { skip: asked === null, refetchOnMountOrArgChange: true },
  );
  const [apply, applying] = carryApi.useApplyCarryMutation();
  const here = useCarryHere(id);
  const keyFor = useRequestKey();
  const startKeyFor = useRequestKey();
  const plan = error || asked === null ? undefined : data;
  const isPlanning = isFetching || asked !== wanted;
  const failed = applying.error ?? error;
  const carryOut = async () => {
    if (plan === undefined || wanted === null || target === null) return;
    const { fingerprint } = plan;
    if (wanted.target.kind === 'here')
      return here.begin({ ...wanted, target: wanted.target, fingerprint }, () => {
        keep(UNSAID);
        whenDone();
      });
    const request = { id, ...wanted, target: withKey(wanted.target, startKeyFor(wanted.target)), fingerprint };
    const done = await apply({ ...request, key: keyFor(request) })
      .unwrap()
      .catch(() => null);
    if (done === null) return;
    keep(UNSAID);
    whenDone();
    await go(`/projects/${done.project}/batches?batch=${done.batch}`);
  };
  return {
    ...{ project, params, put, said, plan, isPlanning, hindrance, carryOut, here },
    ...waysToSay(said, keep),
    trouble: failed === undefined ? null : troubleOf(failed),
    isReady:
      plan !== undefined &&
      plan.files > 0 &&
      plan.refused.length === 0 &&
      !isPlanning &&
      !applying.isLoading &&
      here.running === null,
    isCarrying: applying.isLoading,
    save: async (as) => {
      if (wanted !== null) await saveReply(await fetchFor('writeCarry', { id, query: { as }, body: wanted }));
    },
  };
}

/** Never asked for. */
const NOWHERE: CarryRequest = { target: { kind: 'revision', was: '-' }, way: {} };

/** As it is sent. */
export const bodyOfWay = (way: CarryWay): CarryRequest['way'] => ({
  ...way,
  take: [...way.take],
  leave: [...way.leave],
  words: [...way.words],
});

const keyless = (target: Target): Target => {
  switch (target.kind) {
    case 'new':
    case 'here':
      return { ...target, start: { ...target.start, key: undefined } };
    default:
      return target;
  }
};

const withKey = (target: CarryToVolume['target'], key: string | undefined): CarryToVolume['target'] =>
  target.kind === 'new' && key !== undefined ? { ...target, start: { ...target.start, key } } : target;

const useSaid = (project: string) => useKept(`nesting-carry-${project}`, saidSchema, UNSAID);

function waysToSay(
  said: Said,
  keep: (next: Said) => void,
): Pick<CarryWork, 'sayFolder' | 'setWay' | 'pick' | 'forget'> {
  const { way, picked } = said;
  return {
    sayFolder: (node, comes) => {
      const { [node]: _before, ...others } = way.folders;
      keep({ ...said, way: { ...way, folders: comes === null ? others : { ...others, [node]: comes } } });
    },
    setWay: (changes) => keep({ ...said, way: { ...way, ...changes } }),
    pick: (changes) => {
      const merged = Object.entries(changes).map(([path, one]) => [path, { ...picked[path], ...one }] as const);
      const all = { ...picked, ...Object.fromEntries(merged) };
      const isSaid = (one: PickedOne) => Object.values(one).some((value) => value !== undefined);
      keep({ ...said, picked: Object.fromEntries(Object.entries(all).filter(([, one]) => isSaid(one))) });
    },
    forget: () => keep(UNSAID),
  };
}
