/** What is said of the whole plan: where it goes, how versions and old words go on, which files are shown. */
import type { VersionWay } from '@nesting/core/planners';
import { type ReactNode, useEffect, useState } from 'react';
import { Link } from 'react-router';
import { many } from '../../app/words';
import { FamilyFilter } from '../../changes/family-filter';
import { FilterList, FilterRow } from '../../changes/filter-list';
import { FindAndGroup } from '../../changes/find-and-group';
import { Button, Choose, Labelled } from '../../ui';
import { useShownFiles, viewOf } from './carry-lists';
import { filterOf, isOf, isShown, refRows, STATE_WORDS, STATES, takenBy } from './carry-rows';
import type { CarryWork } from './carry-work';
import { KeptWays } from './kept-ways';
import { OldWords } from './old-words';

export type Destination = 'new' | 'folder' | 'there' | 'revision';

const DESTINATION_WORDS: Readonly<Record<Destination, string>> = {
  new: 'A new project',
  folder: 'A folder on this computer',
  there: 'A project that is there',
  revision: 'The next revision of it',
};

const VERSION_WORDS: Readonly<Record<VersionWay, string>> = {
  restart: 'Begin anew, in their order',
  keep: 'Stay as they are',
  drop: 'Are left out where names allow it',
};

interface Props {
  readonly work: CarryWork;
  readonly destination: Destination;
  readonly destinations: readonly Destination[];
  /** The fields of where it goes. */
  readonly children: ReactNode;
}

export function CarryGiven({ work, destination, destinations, children }: Props) {
  const { project, said, setWay, put, plan, params } = work;
  return (
    <div className="flex flex-col gap-4">
      <div>
        <p className="font-mono text-sm">
          <Link to={`/projects/${project.id}`} className="text-plum hover:underline">
            {project.number}
          </Link>
        </p>
        <h1 className="text-xl font-semibold">Carry {project.title || project.folder} over</h1>
        <p className="text-sm text-ink2">
          {destination === 'revision' ? 'What is there stays as it is.' : 'The old project is only read.'} What comes
          can be taken back.
        </p>
      </div>
      <Labelled id="carry-where" label="Carried to">
        <Choose
          id="carry-where"
          label="Carried to"
          value={destination}
          options={destinations.map((value) => ({ value, label: DESTINATION_WORDS[value] }))}
          onChange={(value) => put({ to: value === 'new' ? null : value, line: null, folder: null })}
        />
      </Labelled>
      <Fields isOpen={plan === undefined || viewOf(params) === 'folders'}>{children}</Fields>
      <Labelled id="carry-versions" label="Versions">
        <Choose
          id="carry-versions"
          label="Versions"
          value={said.way.version}
          options={(['restart', 'keep', 'drop'] as const).map((value) => ({ value, label: VERSION_WORDS[value] }))}
          onChange={(version) => setWay({ version })}
        />
      </Labelled>
      <OldWords work={work} />
      {plan !== undefined && viewOf(params) === 'files' && <Narrow work={work} />}
      {plan !== undefined && viewOf(params) === 'references' && <TakeAll work={work} />}
      <KeptWays work={work} />
    </div>
  );
}

/** Out of the way while one looks through files, and open again where something is missing. */
function Fields({ isOpen, children }: { isOpen: boolean; children: ReactNode }) {
  const [open, setOpen] = useState(isOpen);
  useEffect(() => setOpen(isOpen), [isOpen]);
  return (
    <details open={open} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="cursor-pointer pb-2 text-sm font-semibold">What it will be</summary>
      {children}
    </details>
  );
}

/** Each count is under the other filters. */
function Narrow({ work }: { work: CarryWork }) {
  const { plan, params, put, said, pick } = work;
  const filter = filterOf(params);
  const shown = useShownFiles(work);
  const isPicked = (path: string) => said.picked[path] !== undefined;
  const all = plan?.items ?? [];
  const ofState = all.filter((item) => isShown(item, { ...filter, state: null }, isPicked));
  const left = shown.filter((item) => !item.comes);
  const coming = shown.filter((item) => item.comes);
  const set = (items: typeof shown, comes: boolean) =>
    pick(Object.fromEntries(items.map(({ from }) => [from, { comes }])));
  return (
    <>
      {filter.folder !== null && (
        <p className="flex items-baseline gap-2 text-sm">
          <span className="min-w-0 flex-1 truncate font-mono">{filter.folder || 'the whole project'}</span>
          <Button variant="quiet" onClick={() => put({ in: null })}>
            All folders
          </Button>
        </p>
      )}
      <FilterList label="What becomes of it">
        {STATES.map((state) => ({ state, of: ofState.filter((item) => isOf(item, state, isPicked)).length }))
          .filter(({ state, of }) => of > 0 || filter.state === state)
          .map(({ state, of }) => (
            <FilterRow
              key={state}
              words={STATE_WORDS[state]}
              of={of}
              chosen={filter.state === state}
              onChoose={() => put({ state: filter.state === state ? null : state, line: null })}
            />
          ))}
      </FilterList>
      <FamilyFilter
        label="Family, of what comes"
        families={plan?.families ?? []}
        chosen={filter.family}
        onChoose={(family) => put({ family, line: null })}
      />
      <FindAndGroup
        find={filter.find}
        onFind={(find) => put({ find })}
        label="How files are grouped"
        group={params.get('group') ?? 'folder'}
        groups={[
          { value: 'folder', label: 'by folder' },
          { value: 'family', label: 'by family' },
        ]}
        onGroup={(value) => put({ group: value === 'folder' ? null : value })}
      />
      {shown.length > 0 && (
        <div className="flex flex-wrap gap-2">
          {left.length > 0 && <Button onClick={() => set(left, true)}>Take {many(left.length, 'file')} along</Button>}
          {coming.length > 0 && <Button onClick={() => set(coming, false)}>Leave {many(coming.length, 'file')}</Button>}
        </div>
      )}
    </>
  );
}

/** With one press what comes has all that it refers to, or all that refers to it. */
function TakeAll({ work: { plan, pick } }: { work: CarryWork }) {
  if (plan === undefined) return null;
  const rows = refRows(plan);
  const take = (kind: 'needed' | 'referring') =>
    pick(
      Object.fromEntries(
        rows
          .filter((row) => row.kind === kind && row.taken !== null)
          .flatMap(({ taken }) => Object.entries(takenBy(plan, taken ?? ''))),
      ),
    );
  return (
    <div className="flex flex-col items-start gap-2">
      {plan.needed.length > 0 && <Button onClick={() => take('needed')}>Take all along that is needed</Button>}
      {plan.referring.length > 0 && <Button onClick={() => take('referring')}>Take all along that refers to it</Button>}
    </div>
  );
}
