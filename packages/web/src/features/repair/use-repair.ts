/**
 * The state of a plan that puts findings right: which findings, what was answered, what that does on the disk. Answers
 * are kept in this browser until the plan is carried out; what is looked at stands in the address.
 */
import type { ProjectPage, ProposalPage, RepairPlan, RepairRequest } from '@nesting/contract';
import { RULE_CODES } from '@nesting/core/check';
import { join, parentOf } from '@nesting/core/listing';
import { useCallback, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { z } from 'zod';
import { troubleOf } from '../../app/api';
import { readKept } from '../../app/kept';
import { useRequestKey } from '../../app/request-key';
import { useAddress } from '../../app/use-address';
import { repairApi } from './repair-api';

const answersSchema = z.record(z.string(), z.object({ key: z.string().nullable(), name: z.string().optional() }));
export type Answers = Readonly<z.infer<typeof answersSchema>>;

/** Answers to a proposal are kept apart from those to a plan of one's own. */
const keptAs = (project: string, proposal: ProposalPage | null): string =>
  `nesting-repair-${project}${proposal === null ? '' : `-${proposal.id}`}`;

const NOTHING_NARROWED = { ids: null, rule: null, folder: null, person: null } as const;

/** Which findings the address asks for. */
function wishOf(params: URLSearchParams): Pick<RepairRequest, 'ids' | 'rule' | 'folder' | 'person'> {
  const ids =
    params
      .get('ids')
      ?.split(',')
      .filter((id) => /^[0-9a-f]{16}$/.test(id)) ?? [];
  return {
    ids: ids.length > 0 ? ids : null,
    rule: RULE_CODES.find((code) => code === params.get('rule')) ?? null,
    folder: params.get('folder'),
    person: params.get('person'),
  };
}

function useAnswers(project: string, proposal: ProposalPage | null) {
  const place = keptAs(project, proposal);
  const proposed = proposal?.asked.answers ?? NONE;
  const [answers, setAnswers] = useState<Answers>(() => ({ ...proposed, ...readKept(place, answersSchema, {}) }));
  const keep = useCallback(
    (next: Answers) => {
      setAnswers(next);
      if (Object.keys(next).length === 0) localStorage.removeItem(place);
      else localStorage.setItem(place, JSON.stringify(next));
    },
    [place],
  );
  return [answers, keep] as const;
}

const NONE: Answers = {};

type Line = RepairPlan['lines'][number];

function answered(line: Line, answers: Answers): Line {
  const answer = answers[line.id];
  if (answer === undefined || (answer.key === line.chosen && answer.name === undefined)) return line;
  if (answer.key === null) return { ...line, state: 'left', chosen: null, after: null, clash: null, free: null };
  const to = line.options.find((o) => o.key === answer.key)?.to ?? null;
  const after = to === null || answer.name === undefined ? to : join(parentOf(to), answer.name);
  return { ...line, state: 'ready', chosen: answer.key, after, clash: null, free: null, fault: null };
}

export type RepairWork = ReturnType<typeof useRepair>;

/** `proposal` is what somebody handed in, and is looked at here. */
export function useRepair(project: ProjectPage, proposal: ProposalPage | null) {
  const { id } = project;
  const go = useNavigate();
  const [params, put] = useAddress();
  const [answers, keep] = useAnswers(id, proposal);
  const wish = useMemo(
    () => (proposal === null ? wishOf(params) : { ...NOTHING_NARROWED, ids: proposal.asked.ids ?? null }),
    [proposal, params.get('ids'), params.get('rule'), params.get('folder'), params.get('person')],
  );
  const asked = useMemo((): RepairRequest => ({ ...wish, answers }), [wish, answers]);
  const { data, currentData, error, isFetching } = repairApi.usePlanRepairQuery(
    { id, asked },
    { refetchOnMountOrArgChange: true },
  );
  // While the plan of a new answer is on its way, the answer stands in the lines of the one before.
  const plan = useMemo(
    (): RepairPlan | undefined =>
      error ? undefined : (currentData ?? (data && { ...data, lines: data.lines.map((l) => answered(l, answers)) })),
    [error, currentData, data, answers],
  );
  const [apply, applying] = repairApi.useApplyRepairMutation();
  const [propose, proposing] = repairApi.useProposeMutation();
  const keyFor = useRequestKey();
  const failed = [applying.error, proposing.error, error].find((one) => one !== undefined);
  const answer = (changes: Answers) => keep({ ...answers, ...changes });
  const carryOut = async () => {
    if (plan === undefined) return;
    const { fingerprint, now } = plan;
    const request = { id, asked: { ...asked, now }, fingerprint };
    const taken = proposal === null ? {} : { proposal: proposal.id };
    const done = await apply({ ...request, ...taken, key: keyFor(request) })
      .unwrap()
      .catch(() => null);
    if (done === null) return;
    keep({});
    await go(`/projects/${id}/batches?batch=${done.batch}`);
  };
  const handIn = async (note: string) => {
    const done = await propose({ project: id, asked, note })
      .unwrap()
      .catch(() => null);
    if (done === null) return;
    keep({});
    await go('/checks/proposals');
  };
  return {
    id,
    proposal,
    handIn,
    params,
    put,
    wish,
    asked,
    plan,
    answers,
    answer,
    /** Answers that were given are taken back. */
    forget: (ids: readonly string[]) =>
      keep(Object.fromEntries(Object.entries(answers).filter(([finding]) => !ids.includes(finding)))),
    trouble: failed === undefined ? null : troubleOf(failed),
    /** Something is chosen, and nothing stands against it. */
    isReady:
      plan !== undefined &&
      plan.entries > 0 &&
      plan.refused.length === 0 &&
      !isFetching &&
      !applying.isLoading &&
      !proposing.isLoading,
    isApplying: applying.isLoading,
    carryOut,
  };
}
