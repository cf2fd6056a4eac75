/** What a plan carries into a folder of this computer: written by the browser, gone on with, or taken back. */
import type { CarryHereRequest, Me } from '@nesting/contract';
import { proxy } from 'comlink';
import { useState } from 'react';
import { useOutletContext } from 'react-router';
import { troubleOf } from '../../app/api';
import { many } from '../../app/words';
import { carryingWorker } from '../../workers/carrying';
import type { CarriedSoFar } from '../../workers/carrying-worker';
import { carryApi } from './carry-api';

export interface CarryHere {
  /** How far it is; `null` while nothing is done. */
  readonly running: string | null;
  /** What became of it; `null` before it was begun. */
  readonly ended: Ended | null;
  readonly begin: (request: CarryHereRequest, whenDone: () => void) => Promise<void>;
  readonly goOn: () => Promise<void>;
  readonly takeBack: () => Promise<void>;
  readonly stop: () => void;
  /** What was said of it is put away. */
  readonly leave: () => void;
}

interface Ended {
  readonly state: 'done' | 'taken-back' | 'hindered';
  readonly words: string;
  /** Whether something of it is there that can be gone on with, or taken back. */
  readonly isBegun: boolean;
}

const NOTHING_DONE = { state: 'hindered', isBegun: false } as const;

export function useCarryHere(project: string): CarryHere {
  const { initials: by } = useOutletContext<Me>();
  const [running, setRunning] = useState<string | null>(null);
  const [ended, setEnded] = useState<Ended | null>(null);
  const [done, setDone] = useState<{ readonly words: string; readonly whenDone: () => void } | null>(null);
  const [ask] = carryApi.useCarryHereMutation();
  const told = proxy((steps: number, all: number) =>
    setRunning(`${steps} of ${many(all, 'step')} done. Leave this page open until it has ended.`),
  );
  const end = ({ hindrance, isBegun }: CarriedSoFar, { words, whenDone }: NonNullable<typeof done>) => {
    setRunning(null);
    setEnded(hindrance === null ? { state: 'done', words, isBegun } : { state: 'hindered', words: hindrance, isBegun });
    if (hindrance === null) whenDone();
  };
  return {
    running,
    ended,
    begin: async (request, whenDone) => {
      const picked = await globalThis.showDirectoryPicker?.({ mode: 'readwrite' }).catch(() => null);
      if (!picked) return setEnded({ ...NOTHING_DONE, words: 'No folder was chosen. Nothing was written.' });
      setEnded(null);
      setRunning('Making it ready…');
      const given = await ask({ id: project, ...request });
      if (given.data === undefined) {
        setRunning(null);
        return setEnded({ ...NOTHING_DONE, words: troubleOf(given.error) });
      }
      const { data } = given;
      const files = data.changes.filter(({ entry }) => entry === 'file').length;
      const words = `${data.folder} was written into ${picked.name}: ${many(files, 'file')} came along, each read back.`;
      setDone({ words, whenDone });
      end(await carryingWorker().carry({ ...data, picked, project, by }, told), { words, whenDone });
    },
    goOn: async () => {
      if (done === null) return;
      setRunning('Looking where it is…');
      end(await carryingWorker().goOn(told), done);
    },
    takeBack: async () => {
      setRunning('Taking it back…');
      const { hindrance, isBegun } = await carryingWorker().takeBack(ended?.state === 'done', told);
      setRunning(null);
      setEnded(
        hindrance === null
          ? {
              state: 'taken-back',
              words: 'What came along is gone again. The project stays as it was started.',
              isBegun,
            }
          : { state: ended?.state ?? 'hindered', words: hindrance, isBegun },
      );
    },
    stop: () => void carryingWorker().stop(),
    leave: () => setEnded(null),
  };
}
