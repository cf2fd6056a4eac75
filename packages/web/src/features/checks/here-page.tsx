/**
 * A check of what only this computer sees: a folder, a listing, a zip. The same rules and findings; nothing is uploaded
 * unless it is handed in.
 */
import type { HandedIn, Me, ProjectPage as Project } from '@nesting/contract';
import type { Registers } from '@nesting/core/name';
import { useState } from 'react';
import { Link, useOutletContext, useParams } from 'react-router';
import { troubleOf } from '../../app/api';
import { ago, many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Button, Empty, Heading, Refused, Trouble } from '../../ui';
import { checksWorker } from '../../workers/checks';
import { FindingDetail } from '../findings/finding-detail';
import { FindingsList } from '../findings/findings-list';
import { houseApi } from '../house/house-api';
import { Counts } from '../projects/counts';
import { projectsApi } from '../projects/projects-api';
import { checksApi } from './checks-api';
import { CutShort, DoneHere, HereRepairing } from './here-repair';
import { HereSources } from './here-sources';
import { type Checked, type HereCheck, useHereCheck } from './use-here-check';

export function HerePage() {
  const { id = '' } = useParams();
  const project = projectsApi.useProjectQuery(id);
  const registers = houseApi.useRegistersQuery();
  if (project.isError) return <Trouble message={troubleOf(project.error)} again={() => void project.refetch()} />;
  return project.data && registers.data ? <Here project={project.data} registers={registers.data} /> : null;
}

function Here({ project, registers }: { project: Project; registers: Registers }) {
  const check = useHereCheck(project, registers);
  const [selected, setSelected] = useState<string | null>(null);
  const { initials } = useOutletContext<Me>();
  const [isRepairing, setIsRepairing] = useState(false);
  const folder = check.checked?.folder ?? null;
  if (isRepairing && folder !== null)
    return (
      <HereRepairing {...{ project, registers, check, folder }} by={initials} onLeave={() => setIsRepairing(false)} />
    );
  const finding = check.findings.find((f) => f.id === selected) ?? check.findings[0] ?? null;
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
              By this project’s rules, on this computer. Nothing is uploaded, and a check changes nothing on the disk.
            </p>
          </div>
          <HereSources check={check} />
          <CutShort check={check} />
          <HandedInBefore project={project.id} onShow={(h) => void check.showHandedIn(h)} />
        </div>
      }
      plan={<Found check={check} selected={finding?.id ?? null} onSelect={setSelected} />}
      consequence={
        finding && <FindingDetail finding={finding} wholePath={(path) => `${check.checked?.source ?? ''}/${path}`} />
      }
      ledger={
        <>
          <Outcome check={check} />
          <DoneHere check={check} by={initials} />
          {folder !== null && check.findings.length > 0 && (
            <Button disabled={check.running !== null || check.unended !== null} onClick={() => setIsRepairing(true)}>
              Put right…
            </Button>
          )}
          <Button variant="main" disabled={!check.mayHandIn} onClick={() => void check.handFindingsIn()}>
            Hand the findings in
          </Button>
        </>
      }
    />
  );
}

function HandedInBefore({ project, onShow }: { project: string; onShow: (one: HandedIn) => void }) {
  const { data: before = [] } = checksApi.useHandedInQuery(project);
  if (before.length === 0) return null;
  return (
    <section className="flex flex-col gap-1">
      <Heading>Handed in before</Heading>
      <ul className="text-sm">
        {before.map((h) => (
          <li key={h.id}>
            <button
              type="button"
              onClick={() => onShow(h)}
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
  );
}

interface FoundProps {
  readonly check: HereCheck;
  readonly selected: string | null;
  readonly onSelect: (id: string) => void;
}

function Found({ check: { running, checked, findings }, selected, onSelect }: FoundProps) {
  if (running !== null)
    return (
      <div className="flex flex-1 flex-col items-center justify-center gap-3">
        <p role="status">{running}</p>
        <Button onClick={() => void checksWorker().stop()}>Stop</Button>
      </div>
    );
  if (checked === null)
    return (
      <Empty title="Choose what is to be checked">
        A folder on this computer, a listing, or a zip. What is found stays here until you hand it in.
      </Empty>
    );
  if (findings.length === 0)
    return (
      <Empty title="Everything is in order">
        Every file and folder is where it belongs and is called as it should be.
      </Empty>
    );
  return (
    <FindingsList
      findings={findings}
      total={findings.length}
      group="none"
      selected={selected}
      picked={NONE}
      onSelect={onSelect}
      onPick={() => undefined}
      more={() => undefined}
    />
  );
}

const NONE: ReadonlySet<string> = new Set();

function Outcome({ check: { trouble, checked, isHandedIn } }: { check: HereCheck }) {
  if (trouble !== null) return <Refused className="flex-1" words={trouble} />;
  if (checked === null) return <p className="flex-1 text-ink2">A check changes nothing.</p>;
  const { outcome } = checked.result;
  const { files, folders } = outcome.summary;
  return (
    <div className="flex min-w-0 flex-1 items-center gap-3">
      <strong className="font-semibold whitespace-nowrap">
        {many(files, 'file')} in {many(folders, 'folder')}.
      </strong>
      <Counts counts={outcome.summary} />
      <span className="truncate text-ink2">{restOf(checked, isHandedIn)}</span>
    </div>
  );
}

function restOf({ result: { unseen }, untold }: Checked, isHandedIn: boolean): string {
  if (isHandedIn) return 'Handed in: whoever coordinates sees it.';
  if (unseen.length > 0) return `${many(unseen.length, 'place')} could not be seen: ${unseen[0]}`;
  return untold;
}
