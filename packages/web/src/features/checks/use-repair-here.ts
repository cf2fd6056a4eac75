/** A folder on this computer put right: planned, and carried out in the folder itself, by the browser. */
import type { RepairPlan } from '@nesting/contract';
import { proxy } from 'comlink';
import { useEffect, useMemo, useState } from 'react';
import { useAddress } from '../../app/use-address';
import { mayWrite, stepsSaid } from '../../browser-disk/writing';
import { checksWorker } from '../../workers/checks';
import { type Answers, answered, type RepairWork } from '../repair/repair-work';

interface Here {
  readonly folder: FileSystemDirectoryHandle;
  readonly by: string;
  readonly onDone: (batch: string, findings: number) => void;
}

export function useRepairHere({ folder, by, onDone }: Here): RepairWork {
  const [params, put] = useAddress();
  const [answers, setAnswers] = useState<Answers>({});
  const [made, setMade] = useState<{ readonly plan: RepairPlan; readonly of: Answers } | null>(null);
  const [running, setRunning] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => {
    let isWanted = true;
    void checksWorker()
      .planRepair(answers)
      .then((plan) => {
        if (!isWanted) return;
        if (plan === null) setTrouble('The folder was checked in another way meanwhile. Check it again.');
        else setMade({ plan, of: answers });
      })
      .catch((error: unknown) => {
        if (isWanted) setTrouble(error instanceof Error ? error.message : 'It could not be planned.');
      });
    return () => {
      isWanted = false;
    };
  }, [answers]);
  const isNewest = made?.of === answers;
  const plan = useMemo(
    () =>
      made === null || isNewest
        ? made?.plan
        : { ...made.plan, lines: made.plan.lines.map((line) => answered(line, answers)) },
    [made, isNewest, answers],
  );
  const carryOut = async () => {
    if (plan === undefined) return;
    setTrouble(null);
    if (!(await mayWrite(folder)))
      return setTrouble('The browser does not let this page write into the folder. Nothing was changed.');
    setRunning('Making it ready…');
    const done = await checksWorker().carryOut(plan.fingerprint, by, proxy(stepsSaid(setRunning)));
    setRunning(null);
    if (done.hindrance === null) onDone(done.batch, plan.counts.ready ?? 0);
    else setTrouble(done.hindrance);
  };
  return {
    proposal: null,
    params,
    put,
    plan,
    mentions: null,
    answer: (changes) => setAnswers({ ...answers, ...changes }),
    forget: (ids) => setAnswers(Object.fromEntries(Object.entries(answers).filter(([id]) => !ids.includes(id)))),
    trouble,
    isPlanning: !isNewest,
    isReady: isNewest && running === null && plan !== undefined && plan.entries > 0 && plan.refused.length === 0,
    running,
    carryOut,
    later: null,
    handIn: async () => undefined,
    save: null,
  };
}
