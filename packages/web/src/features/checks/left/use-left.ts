/**
 * What programs left in a folder of this computer: looked through by the browser, cleared by a change that stands in the
 * folder itself, and freed by an act of its own.
 */
import type { Registers } from '@nesting/core/name';
import type { LeftWish } from '@nesting/core/planners';
import { proxy } from 'comlink';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { useAddress } from '../../../app/use-address';
import { many } from '../../../app/words';
import type { KeptHere, Unended } from '../../../browser-disk/batches';
import { mayWrite, stepsSaid } from '../../../browser-disk/writing';
import { checksWorker } from '../../../workers/checks';
import type { LeftHere } from '../../../workers/here-clearing';

export const AGES = ['any', 'week', 'month', 'year'] as const;
export type Age = (typeof AGES)[number];
const DAYS: Readonly<Record<Age, number>> = { any: 0, week: 7, month: 30, year: 365 };

/** What was written in the last minutes may still be in use. */
const IN_USE = 10 * 60_000;
const DAY = 24 * 60 * 60_000;

const NOTHING: LeftHere = { rows: [], forms: [] };
const NO_PATHS: ReadonlySet<string> = new Set();

interface Looked {
  readonly folder: FileSystemDirectoryHandle;
  readonly files: number;
  readonly unseen: readonly string[];
  /** Milliseconds since 1970. */
  readonly at: number;
}

/** Families and initials are those of whoever looks. */
export function useLeft(families: Registers['families'], by: string) {
  const [params, put] = useAddress();
  const [looked, setLooked] = useState<Looked | null>(null);
  const [left, setLeft] = useState(NOTHING);
  const [chosen, setChosen] = useState(NO_PATHS);
  const [kept, setKept] = useState<readonly KeptHere[]>([]);
  const [unended, setUnended] = useState<Unended | null>(null);
  const [running, setRunning] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const form = params.get('form');
  const age = AGES.find((a) => a === params.get('age')) ?? 'any';
  const wish = useMemo(
    (): LeftWish => ({ form, before: (looked?.at ?? 0) - Math.max(IN_USE, DAYS[age] * DAY) }),
    [form, age, looked],
  );
  useEffect(() => {
    let isWanted = true;
    if (looked !== null)
      void checksWorker()
        .left(wish)
        .then((found) => isWanted && setLeft(found));
    return () => {
      isWanted = false;
    };
  }, [looked, wish]);
  const look = useCallback(
    async (folder: FileSystemDirectoryHandle) => {
      setTrouble(null);
      setRunning(`Looking through ${folder.name || 'the folder'}.`);
      const say = (files: number) =>
        setRunning(`Looking through ${folder.name || 'the folder'}: ${many(files, 'file')} so far.`);
      try {
        const found = await checksWorker().lookForLeft(folder, families, proxy(say));
        setChosen(NO_PATHS);
        if (found === null) return setTrouble('It was stopped. Nothing was changed.');
        setLooked({ folder, ...found, at: Date.now() });
        setUnended(await checksWorker().unended(folder));
        setKept(await checksWorker().cleared(folder));
      } catch (error) {
        setTrouble(`It ended early: ${error instanceof Error ? error.message : 'unknown'}. Nothing was changed.`);
      } finally {
        setRunning(null);
      }
    },
    [families],
  );
  /** Something is done in the folder; then it is looked through anew. `act` says why it was not, or `null`. */
  const inFolder = async (words: string, act: (folder: FileSystemDirectoryHandle) => Promise<string | null>) => {
    if (looked === null) return;
    const { folder } = looked;
    setTrouble(null);
    if (!(await mayWrite(folder))) return setTrouble('The browser does not let this page write into the folder.');
    setRunning(words);
    const hindrance = await act(folder);
    setRunning(null);
    await look(folder);
    setTrouble(hindrance);
  };
  const told = () => proxy(stepsSaid(setRunning));
  return {
    ...{ params, put, form, age, looked, left, chosen, setChosen, kept, unended, running, trouble, wish, look },
    choose: async () => {
      const folder = await globalThis.showDirectoryPicker?.({ mode: 'read' }).catch(() => null);
      if (folder != null) await look(folder);
    },
    clear: () =>
      inFolder('Making it ready…', async () => (await checksWorker().clear([...chosen], wish, by, told())).hindrance),
    undo: (batch: string) => inFolder('Taking it back…', (folder) => checksWorker().undo(folder, batch, by, told())),
    free: (batch: string) => inFolder('Freeing its space…', (folder) => checksWorker().free(folder, batch)),
    settle: (way: 'finish' | 'take-back') =>
      inFolder('Looking where it is…', (folder) => checksWorker().settle(folder, unended?.id ?? '', way, told())),
  };
}

export type LeftWork = ReturnType<typeof useLeft>;
