/**
 * The state of a check on this computer: what was checked, what was found, and what of it is handed in.
 */
import {
  type HandedIn,
  type KeptFinding,
  MOST_RELATED,
  type ProjectPage as Project,
  type StoredFinding,
  SYSTEMS,
} from '@nesting/contract';
import type { Registers } from '@nesting/core/name';
import { type CheckInput, pathOn } from '@nesting/core/project';
import { findingWords } from '@nesting/core/words';
import { proxy } from 'comlink';
import { useMemo, useState } from 'react';
import { troubleOf } from '../../app/api';
import { many } from '../../app/words';
import type { Unended } from '../../browser-disk/batches';
import { checksWorker } from '../../workers/checks';
import type { HereOutcome } from '../../workers/checks-worker';
import { checksApi } from './checks-api';

export interface Checked {
  readonly source: string;
  readonly result: HereOutcome;
  /** What this kind of source cannot tell. */
  readonly untold: string;
  /** Checked here just now, and not handed in by somebody before. */
  readonly mine: boolean;
  /** Where it was a folder that the browser let the page have: it can be put right. */
  readonly folder: FileSystemDirectoryHandle | null;
}

/** What was done in the folder a moment ago. */
export interface DoneHere {
  readonly batch: string;
  readonly words: string;
}

export type Progress = (files: number, folders: number, stage: 'walking' | 'reading') => void;

/** Checks one source. `null` when it cannot be understood. */
export type Work = (say: Progress) => Promise<HereOutcome | null>;

export type HereCheck = ReturnType<typeof useHereCheck>;

export function useHereCheck(project: Project, registers: Registers) {
  const [checked, setChecked] = useState<Checked | null>(null);
  const [running, setRunning] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [done, setDone] = useState<DoneHere | null>(null);
  const [unended, setUnended] = useState<(Unended & { readonly folder: FileSystemDirectoryHandle }) | null>(null);
  const [handIn, handing] = checksApi.useHandInMutation();
  const [open] = checksApi.useLazyHandedInFindingsQuery();
  const findings = useMemo(() => checked?.result.outcome.findings.map(kept) ?? [], [checked]);
  const show = (next: Checked) => {
    setChecked(next);
    handing.reset();
  };
  const run = async (source: string, untold: string, work: Work, folder: FileSystemDirectoryHandle | null = null) => {
    setTrouble(null);
    if (folder === null) setDone(null);
    setRunning(`Looking at ${source}.`);
    const say: Progress = (files, _folders, stage) =>
      setRunning(`${stage === 'walking' ? 'Looking at' : 'Looking into'} ${source}: ${many(files, 'file')} so far.`);
    try {
      const result = await work(proxy(say));
      if (result === null) setTrouble(`${source} is no listing that can be understood. Nothing was checked.`);
      else show({ source, result, untold: [result.aligned, untold].filter(Boolean).join(' '), mine: true, folder });
    } catch (error) {
      setTrouble(`The check ended early: ${error instanceof Error ? error.message : 'unknown'}. Nothing was changed.`);
    } finally {
      setRunning(null);
    }
  };
  const { body: template, values, settings } = project;
  const input = (): CheckInput => ({ template, values, settings, registers, now: Date.now() });
  const roots = useMemo(() => rootsOf(project), [project]);
  const walk = (folder: FileSystemDirectoryHandle) =>
    run(
      folder.name || 'the folder',
      'A check changes nothing on the disk.',
      (say) => checksWorker().folder(folder, input(), roots, say),
      folder,
    );
  /** Checks a folder, unless a change of it was cut short: that is settled first. */
  const look = async (folder: FileSystemDirectoryHandle) => {
    const found = await checksWorker().unended(folder);
    setUnended(found === null ? null : { ...found, folder });
    if (found === null) await walk(folder);
  };
  const showHandedIn = async ({ id, by, source, files, folders, counts }: HandedIn) => {
    const { data } = await open(id);
    if (data === undefined) return;
    const outcome = { summary: { ...counts, files, folders }, findings: data };
    show({ source, result: { outcome, unseen: [] }, untold: `Handed in by ${by}.`, mine: false, folder: null });
  };
  const handFindingsIn = async () => {
    if (checked === null) return;
    const { files, folders } = checked.result.outcome.summary;
    const sent = findings.slice(0, MOST_HANDED_IN).map(bare);
    await handIn({ project: project.id, source: checked.source, files, folders, findings: sent });
  };
  return {
    checked,
    findings,
    running,
    trouble: trouble ?? (handing.isError ? troubleOf(handing.error) : null),
    setTrouble,
    run,
    showHandedIn,
    handFindingsIn,
    isHandedIn: handing.isSuccess,
    mayHandIn: checked?.mine === true && running === null && !handing.isLoading && !handing.isSuccess,
    done,
    setDone,
    unended,
    look,
    /** The same folder once more. */
    again: async () => {
      if (checked?.folder) await walk(checked.folder);
    },
    input,
    roots,
  };
}

/** The places the project's folder may have, as each system writes them. */
const rootsOf = (project: Project): readonly string[] => [
  project.root,
  ...SYSTEMS.flatMap((system) =>
    project.prefixes[system] === '' ? [] : [pathOn(system, project.prefixes[system], project.folder, '')],
  ),
];

const kept = (finding: StoredFinding): KeptFinding => ({
  ...finding,
  message: findingWords(finding),
  since: '',
  isNew: false,
  solvedAt: null,
  accepted: null,
  to: null,
  given: false,
  note: '',
});

/** More than anybody goes through; the rest is found once these are put right. */
const MOST_HANDED_IN = 2000;

const bare = ({ id, rule, weight, path, params, problems, stretches, suggestion, related }: StoredFinding) => ({
  id,
  rule,
  weight,
  path: path.toWellFormed(),
  params,
  problems,
  stretches,
  suggestion,
  related: related.slice(0, MOST_RELATED),
});
