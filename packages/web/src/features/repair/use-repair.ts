/**
 * The state of a plan that puts findings right: which findings, what was answered, what that does on the disk. Answers
 * are kept in this browser until the plan is carried out; what is looked at stands in the address.
 */
import type { ProjectPage, ProposalPage, RepairPlan, RepairRequest } from '@nesting/contract';
import { RULE_CODES } from '@nesting/core/check';
import { createElement, useCallback, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { troubleOf } from '../../app/api';
import { fetchFor } from '../../app/endpoints';
import { readKept } from '../../app/kept';
import { useRequestKey } from '../../app/request-key';
import { useAddress } from '../../app/use-address';
import { RunningChange } from '../../changes/running-change';
import { saveReply } from '../../changes/save-plan';
import { repairApi } from './repair-api';
import { type Answers, answered, answersSchema, type RepairWork } from './repair-work';
import { useMentions } from './use-mentions';

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

export function useRepair(project: ProjectPage, proposal: ProposalPage | null): RepairWork {
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
  const plan = useMemo(
    (): RepairPlan | undefined =>
      error ? undefined : (currentData ?? (data && { ...data, lines: data.lines.map((l) => answered(l, answers)) })),
    [error, currentData, data, answers],
  );
  const mentions = useMentions(id, asked, isFetching ? null : (currentData ?? null));
  const [apply, applying] = repairApi.useApplyRepairMutation();
  const [beginLater, beginning] = repairApi.useRepairLaterMutation();
  const [propose, proposing] = repairApi.useProposeMutation();
  const keyFor = useRequestKey();
  const failed = [applying.error, proposing.error, beginning.error, error].find((one) => one !== undefined);
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
  const later = async (at: Date): Promise<boolean> => {
    if (plan === undefined) return false;
    const { fingerprint, now } = plan;
    const done = await beginLater({ id, asked: { ...asked, now }, fingerprint, beginsAt: at.toISOString() })
      .unwrap()
      .catch(() => null);
    if (done !== null) keep({});
    return done !== null;
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
    proposal,
    handIn,
    params,
    put,
    plan,
    mentions,
    answer,
    forget: (ids) => keep(Object.fromEntries(Object.entries(answers).filter(([finding]) => !ids.includes(finding)))),
    trouble: failed === undefined ? null : troubleOf(failed),
    isPlanning: isFetching,
    isReady:
      plan !== undefined &&
      plan.entries > 0 &&
      plan.refused.length === 0 &&
      !isFetching &&
      !applying.isLoading &&
      !proposing.isLoading,
    running: applying.isLoading ? createElement(RunningChange, { project: id }) : null,
    carryOut,
    later: proposal === null ? later : null,
    save: async (as) => saveReply(await fetchFor('writeRepair', { id, query: { as }, body: asked })),
  };
}
