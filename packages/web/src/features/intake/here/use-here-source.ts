/** What is brought in on this computer, and the project's folder that it is brought into: chosen, and looked through. */
import { proxy } from 'comlink';
import { useRef, useState } from 'react';
import { many, size } from '../../../app/words';
import { type HeapChoice, nameOfChoice } from '../../../workers/heap-choice';
import { intakeWorker } from '../../../workers/intake';
import type { OpenedProject } from '../../../workers/intake-worker';
import { placedFiles } from '../sending/use-sending';

export interface OpenProject extends OpenedProject {
  readonly root: FileSystemDirectoryHandle;
}

export interface HereSource {
  readonly project: OpenProject | null;
  readonly choice: HeapChoice | null;
  readonly sourceName: string | null;
  /** How far it is looked through; `null` while nothing is. */
  readonly reading: string | null;
  /** Another number each time it was looked through to its end; 0 while it is not. */
  readonly read: number;
  readonly trouble: string | null;
  readonly chooseProject: () => Promise<void>;
  readonly chooseFolder: () => Promise<void>;
  readonly chooseZip: (zip: File) => Promise<void>;
  readonly chooseFiles: (files: readonly File[]) => Promise<void>;
  readonly again: () => Promise<void>;
}

export function useHereSource(): HereSource {
  const [project, setProject] = useState<OpenProject | null>(null);
  const [choice, setChoice] = useState<HeapChoice | null>(null);
  const [reading, setReading] = useState<string | null>(null);
  const [read, setRead] = useState(0);
  const [trouble, setTrouble] = useState<string | null>(null);
  // One of them may be chosen while the other is still being opened.
  const newest = useRef<{ project: OpenProject | null; choice: HeapChoice | null }>({ project: null, choice: null });
  const times = useRef(0);
  const look = async () => {
    setTrouble(null);
    setRead(0);
    const { project: opened, choice: chosen } = newest.current;
    // What was cut short in the folder is ended first.
    if (opened === null || chosen === null || opened.unended !== null) return;
    setReading('Looking through the files…');
    const told = proxy((files: number, bytes: number) =>
      setReading(`Looking through the files: ${many(files, 'file')} of ${size(bytes)} so far…`),
    );
    const why = await intakeWorker()
      .read(chosen, told)
      .catch((error: unknown) => `It cannot be looked through: ${error instanceof Error ? error.message : 'unknown'}`);
    setReading(null);
    setTrouble(why);
    if (why === null) times.current += 1;
    setRead(why === null ? times.current : 0);
  };
  /** Whether it is a project's folder. */
  const open = async (root: FileSystemDirectoryHandle): Promise<boolean> => {
    const found = await intakeWorker().open(root);
    newest.current.project = found === null ? null : { ...found, root };
    setProject(newest.current.project);
    setRead(0);
    return found !== null;
  };
  const choose = async (chosen: HeapChoice) => {
    newest.current.choice = chosen;
    setChoice(chosen);
    await look();
  };
  return {
    ...{ project, choice, reading, read, trouble },
    sourceName: choice === null ? null : nameOfChoice(choice),
    chooseProject: async () => {
      const root = await globalThis.showDirectoryPicker?.({ mode: 'readwrite' }).catch(() => null);
      if (!root) return;
      if (await open(root)) await look();
      else setTrouble(`${root.name || 'The folder'} is no project’s folder: nothing in it says what it is by.`);
    },
    chooseFolder: async () => {
      const folder = await globalThis.showDirectoryPicker?.({ mode: 'read' }).catch(() => null);
      if (folder) await choose({ kind: 'folder', folder });
    },
    chooseZip: (zip) => choose({ kind: 'zip', zip }),
    chooseFiles: (files) => choose({ kind: 'files', name: many(files.length, 'file'), files: placedFiles(files) }),
    again: async () => {
      if (project !== null && (await open(project.root))) await look();
    },
  };
}
