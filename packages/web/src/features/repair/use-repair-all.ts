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

type Dispatch = ReturnType<typeof useAppDispatch>;

async function planned(dispatch: Dispatch, id: string, rule: RuleCode | null): Promise<ProjectRepair> {
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
}

async function applied(
  dispatch: Dispatch,
  id: string,
  plan: RepairPlan,
  rule: RuleCode | null,
): Promise<ProjectRepair> {
  const { fingerprint, now, counts } = plan;
  const request = { id, asked: { ...askedFor(rule), now }, fingerprint, key: crypto.randomUUID?.() };
  try {
    const { batch } = await dispatch(repairApi.endpoints.applyRepair.initiate(request)).unwrap();
    return { is: 'done', batch, findings: counts.ready ?? 0 };
  } catch (failed) {
    return { is: 'refused', why: troubleOf(failed) };
  }
}

/** Found once: what is put right here is not to go from the page while one looks at it. `null` while they are looked for. */
function useProjectsWithFindings() {
  const dispatch = useAppDispatch();
  const [projects, setProjects] = useState<readonly ProjectRow[] | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => {
    const query = dispatch(projectsApi.endpoints.projectsWithFindings.initiate(undefined, { forceRefetch: true }));
    query
      .unwrap()
      .then((all) => setProjects(all.filter(hasFindings)))
      .catch((failed: unknown) => setTrouble(troubleOf(failed)));
    return () => query.unsubscribe();
  }, [dispatch]);
  return { projects, trouble };
}

/** How far each project is, by its id: planned one after another. */
function useStates(projects: readonly ProjectRow[] | null, rule: RuleCode | null) {
  const dispatch = useAppDispatch();
  const [states, setStates] = useState<ReadonlyMap<string, ProjectRepair>>(new Map());
  const say = useCallback((id: string, state: ProjectRepair) => setStates((all) => new Map(all).set(id, state)), []);
  useEffect(() => {
    let isWanted = true;
    setStates(new Map());
    const all = async () => {
      for (const { id } of projects ?? []) {
        const state = await planned(dispatch, id, rule);
        if (!isWanted) return;
        say(id, state);
      }
    };
    void all();
    return () => {
      isWanted = false;
    };
  }, [projects, dispatch, rule, say]);
  return { states, say };
}

export function useRepairAll(rule: RuleCode | null) {
  const dispatch = useAppDispatch();
  const { projects, trouble } = useProjectsWithFindings();
  const { states, say } = useStates(projects, rule);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [isRunning, setIsRunning] = useState(false);
  const stop = useRef(false);
  const rows = useMemo(
    () =>
      (projects ?? []).map((project): RepairedProject => {
        const repair = states.get(project.id) ?? { is: 'looking' };
        return { project, repair, isChosen: isOpen(repair) ? !left.has(project.id) : null };
      }),
    [projects, states, left],
  );
  const carryOut = async () => {
    stop.current = false;
    setIsRunning(true);
    for (const { project, repair, isChosen } of rows) {
      if (stop.current) break;
      if (isChosen !== true || repair.is !== 'planned') continue;
      say(project.id, { is: 'running' });
      say(project.id, await applied(dispatch, project.id, repair.plan, rule));
    }
    setIsRunning(false);
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
    carryOut,
  };
}

const isOpen = (repair: ProjectRepair): boolean =>
  repair.is === 'planned' && repair.plan.entries > 0 && repair.plan.refused.length === 0 && repair.plan.mayApply;
