/** What is sure in every project, put right project by project: each is planned, looked at, and changed by a batch of its own. */
import type { ProjectList, RepairPlan } from '@nesting/contract';
import type { RuleCode } from '@nesting/core/check';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { troubleOf } from '../../app/api';
import { useAppDispatch } from '../../app/store';
import { projectsApi } from '../projects/projects-api';
import { repairApi } from './repair-api';

export type ProjectRow = ProjectList['rows'][number];

/** How far one project is. */
export type ProjectRepair =
  | { readonly is: 'looking' }
  | { readonly is: 'planned'; readonly plan: RepairPlan }
  | { readonly is: 'running' }
  | { readonly is: 'done'; readonly batch: string; readonly findings: number }
  | { readonly is: 'refused'; readonly why: string };

export interface RepairedProject {
  readonly project: ProjectRow;
  readonly repair: ProjectRepair;
  /** Whether it is among those that are put right; `null` where nothing can be done in it. */
  readonly isChosen: boolean | null;
}

const hasFindings = ({ check }: ProjectRow): boolean =>
  check !== null && check.counts.must + check.counts.should + check.counts.note > 0;

const askedFor = (rule: RuleCode | null) => ({ rule, answers: {} });

export function useRepairAll(rule: RuleCode | null) {
  const dispatch = useAppDispatch();
  // Found once: what is put right here is not to go from the page while one looks at it.
  const [projects, setProjects] = useState<readonly ProjectRow[] | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [states, setStates] = useState<ReadonlyMap<string, ProjectRepair>>(new Map());
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [isRunning, setIsRunning] = useState(false);
  const stop = useRef(false);
  const say = useCallback((id: string, state: ProjectRepair) => setStates((all) => new Map(all).set(id, state)), []);
  useEffect(() => {
    const query = dispatch(projectsApi.endpoints.projectsWithFindings.initiate(undefined, { forceRefetch: true }));
    query
      .unwrap()
      .then((all) => setProjects(all.filter(hasFindings)))
      .catch((failed: unknown) => setTrouble(troubleOf(failed)));
    return () => query.unsubscribe();
  }, [dispatch]);
  const plan = useCallback(
    async (id: string): Promise<ProjectRepair> => {
      const query = dispatch(
        repairApi.endpoints.planRepair.initiate({ id, asked: askedFor(rule) }, { forceRefetch: true }),
      );
      try {
        return { is: 'planned', plan: await query.unwrap() };
      } catch (failed) {
        return { is: 'refused', why: troubleOf(failed) };
      } finally {
        query.unsubscribe();
      }
    },
    [dispatch, rule],
  );
  useEffect(() => {
    let isWanted = true;
    setStates(new Map());
    const all = async () => {
      for (const { id } of projects ?? []) {
        const state = await plan(id);
        if (!isWanted) return;
        say(id, state);
      }
    };
    void all();
    return () => {
      isWanted = false;
    };
  }, [projects, plan, say]);
  const rows = useMemo(
    () =>
      (projects ?? []).map((project): RepairedProject => {
        const repair = states.get(project.id) ?? { is: 'looking' };
        return { project, repair, isChosen: isOpen(repair) ? !left.has(project.id) : null };
      }),
    [projects, states, left],
  );
  const apply = async ({ project: { id }, repair }: RepairedProject): Promise<ProjectRepair> => {
    if (repair.is !== 'planned') return repair;
    const { fingerprint, now, counts } = repair.plan;
    const request = { id, asked: { ...askedFor(rule), now }, fingerprint, key: crypto.randomUUID?.() };
    try {
      const { batch } = await dispatch(repairApi.endpoints.applyRepair.initiate(request)).unwrap();
      return { is: 'done', batch, findings: counts.ready ?? 0 };
    } catch (failed) {
      return { is: 'refused', why: troubleOf(failed) };
    }
  };
  return {
    rows,
    trouble,
    isLooking: projects === null || states.size < projects.length,
    isRunning,
    toggle: ({ project: { id } }: RepairedProject) =>
      setLeft((all) => new Set(all.has(id) ? [...all].filter((one) => one !== id) : [...all, id])),
    stop: () => {
      stop.current = true;
    },
    carryOut: async () => {
      stop.current = false;
      setIsRunning(true);
      for (const row of rows.filter((one) => one.isChosen === true)) {
        if (stop.current) break;
        say(row.project.id, { is: 'running' });
        say(row.project.id, await apply(row));
      }
      setIsRunning(false);
    },
  };
}

const isOpen = (repair: ProjectRepair): boolean =>
  repair.is === 'planned' && repair.plan.entries > 0 && repair.plan.refused.length === 0 && repair.plan.mayApply;
