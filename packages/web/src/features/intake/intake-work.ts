/**
 * The state of an intake: the heap it is of, what was said of its files, what it comes to. What was said is kept in this
 * browser until it is carried out; what is looked at stands in the address.
 */
import type { HeapPlace, IntakePlan, IntakeRequest, ProjectPage } from '@nesting/contract';
import type { Pairing, Placed } from '@nesting/core/planners';
import { PLAIN_PAIRING } from '@nesting/core/planners';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { z } from 'zod';
import { refusalCodeOf, troubleOf } from '../../app/api';
import { fetchFor } from '../../app/endpoints';
import { readKept } from '../../app/kept';
import { useRequestKey } from '../../app/request-key';
import { useAddress } from '../../app/use-address';
import { useDebounced } from '../../app/use-debounced';
import { saveReply } from '../../changes/save-plan';
import { intakeApi } from './intake-api';

type AllPlaced = Readonly<Record<string, Placed>>;

export interface Said {
  readonly placed: AllPlaced;
  readonly pairing: Pairing;
  readonly isMove: boolean;
  /** Where the project's volume has its double. */
  readonly isDoubled?: boolean | undefined;
}

const pairs = z.array(z.object({ picture: z.string(), sound: z.string() }));
const saidSchema: z.ZodType<Said> = z.object({
  placed: z.record(
    z.string(),
    z.object({
      comes: z.boolean().optional(),
      folder: z.string().optional(),
      name: z.string().optional(),
      values: z.record(z.string(), z.string()).optional(),
      replaces: z.boolean().optional(),
      isCard: z.boolean().optional(),
    }),
  ),
  pairing: z.object({ tolerance: z.number(), shift: z.number().nullable(), joined: pairs, parted: pairs }),
  isMove: z.boolean(),
  isDoubled: z.boolean().optional(),
});

export const UNSAID: Said = { placed: {}, pairing: PLAIN_PAIRING, isMove: false };

/** What a page of an intake needs to know of the project. */
export type IntakeProject = Pick<ProjectPage, 'id' | 'number' | 'title' | 'folder' | 'body' | 'values'>;

export interface IntakeWork {
  readonly project: IntakeProject;
  /** Where the files lie on a volume; `null` where they are of this computer. */
  readonly place: HeapPlace | null;
  /** A loose file, to be looked at: whole, or its beginning; `null` where it is not given. */
  readonly bytesOf: (path: string, part: 'whole' | 'head') => Promise<ArrayBuffer | null>;
  readonly params: URLSearchParams;
  readonly put: ReturnType<typeof useAddress>[1];
  readonly said: Said;
  /** What is given is added to what was said of each path; `undefined` takes it back. */
  readonly say: (paths: readonly string[], one: Placed) => void;
  /** The same, of each path something of its own. */
  readonly sayEach: (each: Readonly<Record<string, Placed>>) => void;
  readonly setPairing: (changes: Partial<Pairing>) => void;
  readonly setMove: (isMove: boolean) => void;
  readonly setDoubled: (isDoubled: boolean) => void;
  readonly forget: () => void;
  readonly plan: IntakePlan | undefined;
  readonly isPlanning: boolean;
  readonly isReading: boolean;
  readonly readAgain: () => void;
  readonly trouble: string | null;
  readonly isReady: boolean;
  readonly isBringing: boolean;
  readonly carryOut: () => Promise<void>;
  readonly save: (as: 'text' | 'csv' | 'json' | 'pairs' | 'otio') => Promise<void>;
}

export function useIntakeWork(project: ProjectPage, place: HeapPlace): IntakeWork {
  const { id } = project;
  const go = useNavigate();
  const [params, put] = useAddress();
  const [said, keep] = useSaid(id, place);
  const wanted = useMemo((): IntakeRequest => ({ ...place, ...bodyOf(said) }), [place, said]);
  const asked = useDebounced(wanted, 250);
  const { data, error, isFetching } = intakeApi.usePlanIntakeQuery({ id, asked }, { refetchOnMountOrArgChange: true });
  const [read, reading] = intakeApi.useReadIntakeMutation();
  const [apply, applying] = intakeApi.useApplyIntakeMutation();
  const keyFor = useRequestKey();
  const isUnread = refusalCodeOf(error) === 'heap-unread';
  const readAgain = useCallback(() => void read({ id, place }), [read, id, place]);
  // The first time nobody has to ask for it.
  useEffect(() => {
    if (isUnread) readAgain();
  }, [isUnread, readAgain]);
  const plan = error ? undefined : data;
  const isPlanning = isFetching || asked !== wanted;
  const failed = applying.error ?? reading.error ?? (isUnread ? undefined : error);
  const carryOut = async () => {
    if (plan === undefined) return;
    const request = { id, asked: wanted, fingerprint: plan.fingerprint };
    const done = await apply({ ...request, key: keyFor(request) })
      .unwrap()
      .catch(() => null);
    if (done === null) return;
    keep(UNSAID);
    await go(`/projects/${id}/batches?batch=${done.batch}`);
  };
  const bytesOf = useCallback(
    async (path: string, part: 'whole' | 'head') => {
      const response = await fetchFor('looseFile', { id, query: { ...place, path, part } }).catch(() => null);
      return response?.ok === true ? response.arrayBuffer() : null;
    },
    [id, place],
  );
  return {
    ...{ project, place, params, put, said, plan, isPlanning, readAgain, carryOut, bytesOf },
    ...waysToSay(said, keep),
    isReading: reading.isLoading || isUnread,
    trouble: failed === undefined ? null : troubleOf(failed),
    isReady: plan !== undefined && plan.files > 0 && plan.refused.length === 0 && !isPlanning && !applying.isLoading,
    isBringing: applying.isLoading,
    save: async (as) => saveReply(await fetchFor('writeIntake', { id, query: { as }, body: wanted })),
  };
}

const bodyOf = ({ placed, pairing, isMove, isDoubled = true }: Said): Omit<IntakeRequest, keyof HeapPlace> => ({
  placed: { ...placed },
  pairing: { ...pairing, joined: [...pairing.joined], parted: [...pairing.parted] },
  isMove,
  isDoubled,
});

function useSaid(project: string, { volume, folder }: HeapPlace) {
  const at = `nesting-intake-${project}-${volume}/${folder}`;
  const [said, setSaid] = useState<Said>(() => readKept(at, saidSchema, UNSAID));
  const keep = useCallback(
    (next: Said) => {
      setSaid(next);
      if (next === UNSAID) localStorage.removeItem(at);
      else localStorage.setItem(at, JSON.stringify(next));
    },
    [at],
  );
  return [said, keep] as const;
}

export function waysToSay(said: Said, keep: (next: Said) => void) {
  const sayEach = (each: Readonly<Record<string, Placed>>) => {
    const placed: Record<string, Placed> = { ...said.placed };
    for (const [path, one] of Object.entries(each)) {
      const merged = mergedWith(placed[path], one);
      if (Object.values(merged).some((value) => value !== undefined)) placed[path] = merged;
      else delete placed[path];
    }
    keep({ ...said, placed });
  };
  return {
    sayEach,
    say: (paths: readonly string[], one: Placed) => sayEach(Object.fromEntries(paths.map((path) => [path, one]))),
    setPairing: (changes: Partial<Pairing>) => keep({ ...said, pairing: { ...said.pairing, ...changes } }),
    setMove: (isMove: boolean) => keep({ ...said, isMove }),
    setDoubled: (isDoubled: boolean) => keep({ ...said, isDoubled }),
    forget: () => keep(UNSAID),
  };
}

const mergedWith = (before: Placed | undefined, one: Placed): Placed => ({
  ...before,
  ...one,
  ...(one.values !== undefined && { values: valuesAfter(before, one) }),
});

/** An empty value is none. */
function valuesAfter(before: Placed | undefined, { values }: Placed): Placed['values'] {
  const all = Object.entries({ ...before?.values, ...values }).filter(([, value]) => value !== '');
  return all.length === 0 ? undefined : Object.fromEntries(all);
}
