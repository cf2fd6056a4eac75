/**
 * One finding put right by one press, from the page of findings: what that would do is asked of the server, and stands on
 * the button.
 */
import type { KeptFinding, Me, ProjectPage, RepairPlan } from '@nesting/contract';
import { nameOf } from '@nesting/core/listing';
import { wayWords } from '@nesting/core/words';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { troubleOf } from '../../app/api';
import { useRequestKey } from '../../app/request-key';
import { useDebounced } from '../../app/use-debounced';
import { changesApi } from '../batches/changes-api';
import { repairApi } from './repair-api';

/** What was done by a press, until it is undone or something else is done. */
export interface Pressed {
  readonly words: string;
  readonly batch: string;
  readonly isDone: boolean;
}

export interface Press {
  /** Whether somebody may put the chosen findings right at all. */
  readonly may: boolean;
  /** What the button says; `null` while it is not known. */
  readonly words: string | null;
  /** Findings that the press opens the plan of, as it is more than one, or needs an answer. */
  readonly opensPlan: boolean;
  /** Documents and other entries that follow. */
  readonly note: string;
  readonly isBusy: boolean;
  readonly trouble: string | null;
  readonly pressed: Pressed | null;
  readonly press: () => Promise<void>;
  readonly undo: () => Promise<void>;
  readonly dismiss: () => void;
}

interface Given {
  readonly project: ProjectPage;
  readonly me: Me;
  readonly findings: readonly KeptFinding[];
  readonly isShown: boolean;
  /** It is done: the next one is looked at. */
  readonly onDone: () => void;
}

/** Milliseconds a finding is looked at before its plan is asked for. */
const REST = 150;

export function usePress({ project, me, findings, isShown, onDone }: Given): Press {
  const go = useNavigate();
  const [pressed, setPressed] = useState<Pressed | null>(null);
  const [apply, applying] = repairApi.useApplyRepairMutation();
  const [undo, undoing] = changesApi.useUndoBatchMutation();
  const keyFor = useRequestKey();
  const may = isShown && mayRepair(project, me, findings);
  const one = may && findings.length === 1 ? (findings[0]?.id ?? null) : null;
  const rested = useDebounced(one, REST);
  const asked = useMemo(() => ({ ids: rested === null ? [] : [rested], from: 'likely' as const }), [rested]);
  const { currentData } = repairApi.usePlanRepairQuery({ id: project.id, asked }, { skip: rested === null });
  const plan = one === rested ? currentData : undefined;
  const line = plan?.lines[0];
  const taken = line?.options.find((o) => o.key === line.chosen);
  const isReady = line?.state === 'ready' && taken !== undefined;
  const ids = findings.map((f) => f.id);
  const press = async () => {
    if (!may) return;
    if (!isReady || plan === undefined) return void go(`/projects/${project.id}/repair?ids=${ids.join(',')}`);
    const request = { id: project.id, asked: { ...asked, now: plan.now }, fingerprint: plan.fingerprint };
    const done = await apply({ ...request, key: keyFor(request) })
      .unwrap()
      .catch(() => null);
    if (done === null) return;
    setPressed({ words: doneWords(taken, line.path), batch: done.batch, isDone: done.isDone });
    onDone();
  };
  return {
    may,
    words: wordsOf(findings, plan),
    opensPlan: !isReady,
    note: plan === undefined || !isReady ? '' : noteOf(plan),
    isBusy: applying.isLoading || undoing.isLoading,
    trouble: applying.isError ? troubleOf(applying.error) : undoing.isError ? troubleOf(undoing.error) : null,
    pressed,
    press,
    undo: async () => {
      if (pressed === null) return;
      const done = await undo({ project: project.id, batch: pressed.batch, ids: null })
        .unwrap()
        .catch(() => null);
      if (done !== null) setPressed(null);
    },
    dismiss: () => setPressed(null),
  };
}

/** A coordinator may; an artist what is theirs, where the template lets them. */
function mayRepair(project: ProjectPage, me: Me, findings: readonly KeptFinding[]): boolean {
  const isOpen = findings.length > 0 && findings.every((f) => f.solvedAt === null);
  if (!isOpen || ['starting', 'failed', 'packed'].includes(project.state)) return false;
  if (me.role === 'coordinator') return true;
  const isTheirs = findings.every((f) => f.to === me.initials);
  return me.role === 'artist' && isTheirs && project.body.checks?.artistsMayRepair === true;
}

function wordsOf(findings: readonly KeptFinding[], plan: RepairPlan | undefined): string | null {
  if (findings.length > 1) return `Put ${findings.length} right…`;
  const line = plan?.lines[0];
  if (line === undefined) return null;
  const taken = line.options.find((o) => o.key === line.chosen);
  if (line.state === 'ready' && taken !== undefined) return wayWords(taken, line.path);
  const isOpen = line.state === 'ask' || line.state === 'clash' || line.state === 'held';
  return isOpen && line.options.some((o) => o.way !== 'accept') ? 'Choose how…' : null;
}

function noteOf({ entries, documents }: RepairPlan): string {
  const others = entries - 1 - documents.length;
  return [
    ...(others > 0 ? [`${others + 1} files and folders change`] : []),
    ...(documents.length > 0
      ? [`${documents.length === 1 ? 'one document' : `${documents.length} documents`} that refer to it follow`]
      : []),
  ].join('; ');
}

const doneWords = (taken: RepairPlan['lines'][number]['options'][number], path: string): string => {
  const words = wayWords(taken, path);
  return `${nameOf(path)}: ${words.replace(/^./, (c) => c.toLowerCase())}`;
};
