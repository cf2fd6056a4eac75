/** An intake on this computer: what was said of its files, what it comes to, what became of it. */
import type { IntakePlan, Me } from '@nesting/contract';
import { proxy } from 'comlink';
import { useCallback, useEffect, useState } from 'react';
import { useOutletContext } from 'react-router';
import { save } from '../../../app/save';
import { useAddress } from '../../../app/use-address';
import { useDebounced } from '../../../app/use-debounced';
import { many } from '../../../app/words';
import { mayWrite, NOT_WRITABLE, stepsSaid } from '../../../browser-disk/writing';
import type { SavedHere } from '../../../workers/here-plan';
import { intakeWorker } from '../../../workers/intake';
import type { BroughtHere, PlannedHere } from '../../../workers/intake-worker';
import { type IntakeWork, type Said, UNSAID, waysToSay } from '../intake-work';
import { type HereSource, useHereSource } from './use-here-source';

/** What became of it. */
interface Ended {
  readonly state: 'done' | 'hindered' | 'taken-back';
  readonly words: string;
  /** Whether something of it is there that can be gone on with, or taken back. */
  readonly isBegun: boolean;
}

export interface IntakeHere {
  readonly source: HereSource;
  /** `null` until both folders are chosen and looked through. */
  readonly work: IntakeWork | null;
  readonly starters: number;
  /** How far it is; `null` while nothing is written. */
  readonly running: string | null;
  readonly ended: Ended | null;
  readonly goOn: () => Promise<void>;
  readonly takeBack: () => Promise<void>;
  readonly settle: (way: 'finish' | 'take-back') => Promise<void>;
  readonly stop: () => void;
  readonly saveRecord: (as: 'checksums' | 'names') => Promise<void>;
}

export function useIntakeHere(): IntakeHere {
  const { initials: by } = useOutletContext<Me>();
  const source = useHereSource();
  const { project, read } = source;
  const [params, put] = useAddress();
  const [said, keep] = useState<Said>(UNSAID);
  const asked = useDebounced(said, 250);
  const { made, trouble } = usePlanned(asked, read);
  const [running, setRunning] = useState<string | null>(null);
  const [ended, setEnded] = useState<Ended | null>(null);
  const plan = made?.of === asked && made.read === read ? made.told.plan : undefined;
  const isPlanning = read > 0 && (plan === undefined || asked !== said);
  const tell = proxy(stepsSaid(setRunning));
  const end = async ({ hindrance, isBegun }: BroughtHere, words: string, state: Ended['state']) => {
    setRunning(null);
    setEnded(hindrance === null ? { state, words, isBegun } : { state: 'hindered', words: hindrance, isBegun });
    if (hindrance !== null) return;
    keep(UNSAID);
    await source.again();
  };
  const carryOut = async () => {
    if (plan === undefined || project === null) return;
    if (!(await mayWrite(project.root))) return setEnded({ state: 'hindered', words: NOT_WRITABLE, isBegun: false });
    setRunning('Making it ready…');
    setEnded(null);
    const words = broughtWords(plan, project.root.name);
    await end(await intakeWorker().carryOut(plan.fingerprint, by, tell), words, 'done');
  };
  const bytesOf = useCallback<IntakeWork['bytesOf']>(async (path, part) => {
    const file = await intakeWorker().fileOf(path);
    if (file === null) return null;
    return (part === 'whole' ? file : file.slice(0, HEAD)).arrayBuffer().catch(() => null);
  }, []);
  const work: IntakeWork | null = project && {
    ...{ project, place: null, params, put, said, plan, isPlanning, carryOut, bytesOf },
    ...waysToSay(said, keep),
    isReading: source.reading !== null,
    readAgain: () => void source.again(),
    trouble: source.trouble ?? trouble,
    isReady: plan !== undefined && plan.files > 0 && plan.refused.length === 0 && !isPlanning && running === null,
    isBringing: false,
    save: async (as) => saveText(await intakeWorker().print(as)),
  };
  return {
    ...{ work, running, ended },
    // What was said of another folder is over.
    source: {
      ...source,
      chooseProject: () => {
        setEnded(null);
        return source.chooseProject();
      },
    },
    starters: made?.told.starters ?? 0,
    goOn: async () => {
      setRunning('Looking where it is…');
      await end(await intakeWorker().goOn(tell), 'All of it has come, each file read back.', 'done');
    },
    takeBack: async () => {
      setRunning('Taking it back…');
      const back = await intakeWorker().takeBack(ended?.state === 'done', tell);
      await end(back, 'What came is gone again.', 'taken-back');
    },
    settle: async (way) => {
      if (project?.unended == null) return;
      if (!(await mayWrite(project.root))) return setEnded({ state: 'hindered', words: NOT_WRITABLE, isBegun: false });
      setRunning('Looking where it is…');
      const hindrance = await intakeWorker().settle(project.unended.id, way, source.choice, tell);
      await end({ hindrance, isBegun: false }, 'What was cut short is ended.', 'taken-back');
    },
    stop: () => void intakeWorker().stop(),
    saveRecord: async (as) => saveText(await intakeWorker().record(as)),
  };
}

function saveText(saved: SavedHere | null): void {
  if (saved !== null) save(saved.name, saved.body, saved.type);
}

/** Bytes in which a photograph has a small picture of itself. */
const HEAD = 256 * 1024;

const broughtWords = ({ files }: IntakePlan, folder: string): string =>
  `${many(files, 'file')} came into ${folder}, each read back and proved.`;

interface Made {
  readonly told: PlannedHere;
  readonly of: Said;
  readonly read: number;
}

/** Planned anew whenever something else is said, or it was looked through again. */
function usePlanned(said: Said, read: number): { readonly made: Made | null; readonly trouble: string | null } {
  const [made, setMade] = useState<Made | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => {
    if (read === 0) return;
    let isOver = false;
    const { placed, pairing } = said;
    intakeWorker()
      .plan({ placed, pairing })
      .then(
        (told) => {
          if (isOver) return;
          setMade({ told, of: said, read });
          setTrouble(null);
        },
        (error: unknown) =>
          !isOver && setTrouble(`It cannot be planned: ${error instanceof Error ? error.message : ''}.`),
      );
    return () => {
      isOver = true;
    };
  }, [said, read]);
  return { made, trouble };
}
