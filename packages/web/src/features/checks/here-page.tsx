/**
 * A check of what only this computer sees: a folder, a listing, a zip. The same rules and findings; nothing is uploaded
 * unless it is handed in.
 */

import {
  type FindingRow,
  type HandedIn,
  type KeptFinding,
  MOST_RELATED,
  type ProjectPage as Project,
  SYSTEMS,
} from '@nesting/contract';
import { NO_REGISTERS, type Registers } from '@nesting/core/name';
import { type CheckInput, pathOn } from '@nesting/core/project';
import { findingWords } from '@nesting/core/words';
import { proxy } from 'comlink';
import { type ChangeEvent, useMemo, useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import { troubleOf } from '../../app/api';
import { ago, many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Button, Empty, Heading, Labelled, Lines, Trouble } from '../../ui';
import { checksWorker } from '../../workers/checks';
import type { HereOutcome } from '../../workers/checks-worker';
import { FindingDetail } from '../findings/finding-detail';
import { FindingsList } from '../findings/findings-list';
import { houseApi } from '../house/house-api';
import { Counts } from '../projects/counts';
import { projectsApi } from '../projects/projects-api';
import { checksApi } from './checks-api';

const kept = (finding: FindingRow): KeptFinding => ({
  ...finding,
  since: '',
  isNew: false,
  solvedAt: null,
  accepted: null,
  to: null,
  given: false,
  note: '',
});

interface Checked {
  readonly source: string;
  readonly result: HereOutcome;
  /** What this kind of source cannot tell. */
  readonly untold: string;
  /** Checked here just now, and not handed in by somebody before. */
  readonly mine: boolean;
}

export function HerePage() {
  const { id = '' } = useParams();
  const project = projectsApi.useProjectQuery(id);
  const registers = houseApi.useRegistersQuery();
  if (project.isError) return <Trouble message={troubleOf(project.error)} again={() => void project.refetch()} />;
  return project.data && registers.data ? <Here project={project.data} registers={registers.data} /> : null;
}

function Here({ project, registers }: { project: Project; registers: Registers }) {
  const [checked, setChecked] = useState<Checked | null>(null);
  const [running, setRunning] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [selected, setSelected] = useState<string | null>(null);
  const [handIn, handing] = checksApi.useHandInMutation();
  const { data: before = [] } = checksApi.useHandedInQuery(project.id);
  const [open] = checksApi.useLazyHandedInFindingsQuery();
  const show = async ({ id, by, source, files, folders, counts }: HandedIn) => {
    const { data } = await open(id);
    if (data === undefined) return;
    const findings = data.map((f) => ({ ...f, modified: 0, person: null }));
    setChecked({
      source,
      result: { outcome: { summary: { ...counts, files, folders }, bytes: 0, findings }, unseen: [] },
      untold: `Handed in by ${by}.`,
      mine: false,
    });
    setSelected(null);
    handing.reset();
  };
  const roots = useMemo(
    () => [
      project.root,
      ...SYSTEMS.flatMap((system) =>
        project.prefixes[system] === '' ? [] : [pathOn(system, project.prefixes[system], project.folder, '')],
      ),
    ],
    [project],
  );
  const input = (): CheckInput => ({
    template: project.body,
    values: project.values,
    registers: registers ?? NO_REGISTERS,
    now: Date.now(),
  });
  const run = async (
    source: string,
    untold: string,
    work: (say: (files: number, folders: number, stage: 'walking' | 'reading') => void) => Promise<HereOutcome | null>,
  ) => {
    setTrouble(null);
    setRunning(`Looking at ${source}.`);
    try {
      const result = await work(
        proxy((files, _folders, stage) =>
          setRunning(
            `${stage === 'walking' ? 'Looking at' : 'Looking into'} ${source}: ${many(files, 'file')} so far.`,
          ),
        ),
      );
      if (result === null) setTrouble(`${source} is no listing that can be understood. Nothing was checked.`);
      else setChecked({ source, result, untold, mine: true });
      setSelected(null);
      handing.reset();
    } catch (error) {
      setTrouble(`The check ended early: ${error instanceof Error ? error.message : 'unknown'}. Nothing was changed.`);
    } finally {
      setRunning(null);
    }
  };
  const rows = useMemo(
    () => checked?.result.outcome.findings.map((f): KeptFinding => kept({ ...f, message: findingWords(f) })) ?? [],
    [checked],
  );
  const finding = rows.find((f) => f.id === selected) ?? rows[0] ?? null;
  const summary = checked?.result.outcome.summary;
  return (
    <Columns
      id="here"
      labels={['What is checked', 'Findings', 'The selected one']}
      given={
        <div className="flex flex-col gap-5">
          <div>
            <Link to={`/projects/${project.id}`} className="text-sm text-bottle hover:underline">
              <span className="font-mono">{project.number}</span> {project.title}
            </Link>
            <h1 className="text-xl font-semibold">Check it here</h1>
            <p className="text-sm text-ink2">
              By this project’s rules, on this computer. Nothing is uploaded and nothing on the disk is changed.
            </p>
          </div>
          <Sources
            project={project}
            busy={running !== null}
            input={input}
            roots={roots}
            run={run}
            onTrouble={setTrouble}
          />
          {before.length > 0 && (
            <section className="flex flex-col gap-1">
              <Heading>Handed in before</Heading>
              <ul className="text-sm">
                {before.map((h) => (
                  <li key={h.id}>
                    <button
                      type="button"
                      onClick={() => void show(h)}
                      className="flex w-full items-center gap-2 border-b border-line py-1 text-left hover:bg-bench"
                    >
                      <span className="font-mono text-bottle">{h.by}</span>
                      <span className="min-w-0 flex-1 truncate">
                        {h.source}, {ago(h.at)}
                      </span>
                      <Counts counts={h.counts} />
                    </button>
                  </li>
                ))}
              </ul>
            </section>
          )}
        </div>
      }
      plan={
        running !== null ? (
          <div className="flex flex-1 flex-col items-center justify-center gap-3">
            <p role="status">{running}</p>
            <Button onClick={() => void checksWorker().stop()}>Stop</Button>
          </div>
        ) : checked === null ? (
          <Empty title="Choose what is to be checked">
            A folder on this computer, a listing, or a zip. What is found stays here until you hand it in.
          </Empty>
        ) : rows.length === 0 ? (
          <Empty title="Everything is in order">
            Every file and folder is where it belongs and is called as it should be.
          </Empty>
        ) : (
          <FindingsList
            findings={rows}
            total={rows.length}
            group="none"
            selected={finding?.id ?? null}
            picked={new Set()}
            onSelect={setSelected}
            onPick={() => undefined}
            more={() => undefined}
          />
        )
      }
      consequence={
        finding && <FindingDetail finding={finding} wholePath={(path) => `${checked?.source ?? ''}/${path}`} />
      }
      ledger={
        <>
          {trouble !== null || handing.isError ? (
            <p role="alert" className="flex-1 text-brick">
              {trouble ?? troubleOf(handing.error)}
            </p>
          ) : summary === undefined || checked === null ? (
            <p className="flex-1 text-ink2">A check changes nothing.</p>
          ) : (
            <div className="flex min-w-0 flex-1 items-center gap-3">
              <strong className="font-semibold whitespace-nowrap">
                {many(summary.files, 'file')} in {many(summary.folders, 'folder')}.
              </strong>
              <Counts counts={summary} />
              <span className="truncate text-ink2">
                {handing.isSuccess
                  ? 'Handed in: whoever coordinates sees it.'
                  : checked.result.unseen.length > 0
                    ? `${many(checked.result.unseen.length, 'place')} could not be seen: ${checked.result.unseen[0]}`
                    : checked.untold}
              </span>
            </div>
          )}
          <Button
            look="main"
            disabled={checked === null || !checked.mine || running !== null || handing.isLoading || handing.isSuccess}
            onClick={() =>
              checked &&
              void handIn({
                project: project.id,
                source: checked.source,
                files: checked.result.outcome.summary.files,
                folders: checked.result.outcome.summary.folders,
                findings: rows.slice(0, MOST_HANDED_IN).map(bare),
              })
            }
          >
            Hand the findings in
          </Button>
        </>
      }
    />
  );
}

/** More than anybody goes through; the rest is found once these are put right. */
const MOST_HANDED_IN = 2000;

const bare = ({
  id,
  rule,
  weight,
  path,
  message,
  params,
  problems,
  stretches,
  suggestion,
  related,
}: FindingRow): FindingRow => ({
  id,
  rule,
  weight,
  path: path.toWellFormed(),
  message,
  params,
  problems,
  stretches,
  suggestion,
  related: related.slice(0, MOST_RELATED),
});

interface SourcesProps {
  readonly project: Project;
  readonly busy: boolean;
  readonly input: () => CheckInput;
  readonly roots: readonly string[];
  readonly run: (
    source: string,
    untold: string,
    work: (say: (files: number, folders: number, stage: 'walking' | 'reading') => void) => Promise<HereOutcome | null>,
  ) => Promise<void>;
  readonly onTrouble: (words: string) => void;
}

const NAMES_ONLY = 'Names and sizes alone: nothing was looked into.';

function Sources({ busy, input, roots, run, onTrouble }: SourcesProps) {
  const folder = useRef<HTMLInputElement>(null);
  const zip = useRef<HTMLInputElement>(null);
  const [listing, setListing] = useState('');
  const choose = async () => {
    const pick = (
      globalThis as unknown as { showDirectoryPicker?: (options: object) => Promise<FileSystemDirectoryHandle> }
    ).showDirectoryPicker;
    if (pick === undefined) return folder.current?.click();
    const handle = await pick({ mode: 'read' }).catch(() => null);
    if (handle !== null)
      await run(handle.name || 'the folder', 'A check changes nothing on the disk.', (say) =>
        checksWorker().folder(handle, input(), roots, say),
      );
  };
  const fromFiles = (event: ChangeEvent<HTMLInputElement>) => {
    const files = [...(event.target.files ?? [])].map((file) => ({ path: file.webkitRelativePath, file }));
    event.target.value = '';
    if (files.length > 0)
      void run(
        files[0]?.path.split('/', 1)[0] ?? 'the folder',
        'Folders without files are not told by this browser, so none is missed.',
        (say) => checksWorker().files(files, input(), roots, say),
      );
  };
  const fromZip = async (event: ChangeEvent<HTMLInputElement>) => {
    const file = event.target.files?.[0];
    event.target.value = '';
    if (file === undefined) return;
    const { entriesOfZip } = await import('../templates/zip-names');
    const entries = await entriesOfZip(file);
    if (entries === null) return onTrouble(`${file.name} is no zip that can be read. Nothing was checked.`);
    await run(file.name, NAMES_ONLY, () => checksWorker().entries(entries, input()));
  };
  return (
    <div className="flex flex-col gap-3">
      <div className="flex flex-wrap gap-2">
        <Button disabled={busy} onClick={() => void choose()}>
          A folder here…
        </Button>
        <Button disabled={busy} onClick={() => zip.current?.click()}>
          A zip…
        </Button>
      </div>
      <input
        ref={folder}
        type="file"
        aria-label="A folder on this computer"
        className="sr-only"
        tabIndex={-1}
        onChange={fromFiles}
        {...{ webkitdirectory: '' }}
      />
      <input
        ref={zip}
        type="file"
        aria-label="A zip on this computer"
        accept=".zip,application/zip"
        className="sr-only"
        tabIndex={-1}
        onChange={(e) => void fromZip(e)}
      />
      <Labelled
        id="listing"
        label="Or a listing"
        help="Paths one under another, an indented list, a drawn tree, CSV or JSON."
      >
        <Lines
          id="listing"
          rows={6}
          value={listing}
          onChange={(e) => setListing(e.target.value)}
          className="font-mono text-xs"
          spellCheck={false}
        />
      </Labelled>
      <Button
        className="self-start"
        disabled={busy || listing.trim() === ''}
        onClick={() => void run('The listing', NAMES_ONLY, () => checksWorker().text(listing, input()))}
      >
        Check the listing
      </Button>
    </div>
  );
}
