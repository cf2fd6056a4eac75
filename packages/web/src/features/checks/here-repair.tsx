/** A folder on this computer put right; what was done there is undone, and what was cut short there is settled. */
import type { ProjectPage as Project } from '@nesting/contract';
import type { Registers } from '@nesting/core/name';
import { proxy } from 'comlink';
import { useState } from 'react';
import { many } from '../../app/words';
import { mayWrite, stepsSaid } from '../../browser-disk/writing';
import { Button, Refused } from '../../ui';
import { checksWorker } from '../../workers/checks';
import { RepairColumns } from '../repair/repair-page';
import type { HereCheck } from './use-here-check';
import { useRepairHere } from './use-repair-here';

interface Props {
  readonly project: Project;
  readonly registers: Registers;
  readonly check: HereCheck;
  readonly folder: FileSystemDirectoryHandle;
  /** Initials of whoever does it. */
  readonly by: string;
  readonly onLeave: () => void;
}

export function HereRepairing({ project, registers, check, folder, by, onLeave }: Props) {
  const onDone = (batch: string, findings: number) => {
    check.setDone({ batch, words: `${many(findings, 'finding')} put right.` });
    onLeave();
    void check.again();
  };
  const work = useRepairHere({ folder, by, onDone });
  return (
    <RepairColumns
      {...{ project, registers, work }}
      wholePath={(path) => `${folder.name}/${path}`}
      from={
        <button type="button" onClick={onLeave} className="text-left text-plum hover:underline">
          {project.number}, {folder.name || 'the folder'} on this computer
        </button>
      }
    />
  );
}

/** What was done in the folder a moment ago. */
export function DoneHere({ check, by }: { check: HereCheck; by: string }) {
  const [running, setRunning] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const { done, checked } = check;
  const folder = checked?.folder ?? null;
  if (done === null || folder === null) return null;
  const undo = async () => {
    if (!(await mayWrite(folder))) return setTrouble('The browser does not let this page write into the folder.');
    setRunning('Taking it back…');
    const hindrance = await checksWorker().undo(folder, done.batch, by, proxy(stepsSaid(setRunning)));
    setRunning(null);
    setTrouble(hindrance);
    if (hindrance !== null) return;
    check.setDone(null);
    await check.again();
  };
  if (trouble !== null) return <Refused words={trouble} />;
  return (
    <p role="status" className="flex items-center gap-3 text-sm">
      {running ?? done.words}
      {running === null && (
        <Button variant="quiet" onClick={() => void undo()}>
          Undo it
        </Button>
      )}
    </p>
  );
}

/** A change of this folder was cut short: the page was closed, or the browser’s permission went away. */
export function CutShort({ check }: { check: HereCheck }) {
  const [running, setRunning] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const { unended } = check;
  if (unended === null) return null;
  const settle = async (way: 'finish' | 'take-back') => {
    const { folder, id } = unended;
    if (!(await mayWrite(folder))) return setTrouble('The browser does not let this page write into the folder.');
    setTrouble(null);
    setRunning('Looking where it is…');
    const hindrance = await checksWorker().settle(folder, id, way, proxy(stepsSaid(setRunning)));
    setRunning(null);
    setTrouble(hindrance);
    if (hindrance === null) await check.look(folder);
  };
  return (
    <section
      className="flex flex-col gap-2 rounded-tray border border-brick bg-sheet p-3 text-sm"
      aria-label="Cut short"
    >
      <p>
        A change of <strong className="font-semibold">{unended.folder.name || 'this folder'}</strong> was cut short
        after {unended.done} of {many(unended.all, 'step')}. Nothing is lost.
      </p>
      {trouble !== null && <Refused words={trouble} />}
      {running === null ? (
        <div className="flex gap-2">
          <Button onClick={() => void settle('finish')}>Go on with it</Button>
          {!unended.isBack && <Button onClick={() => void settle('take-back')}>Take it back</Button>}
        </div>
      ) : (
        <p role="status">{running}</p>
      )}
    </section>
  );
}
