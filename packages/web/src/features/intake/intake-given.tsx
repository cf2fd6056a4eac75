/** What is said of the whole intake: where the files are, what becomes of the originals, clocks, which ones are shown. */
import type { HeapPlace, ProjectPage } from '@nesting/contract';
import type { Registers } from '@nesting/core/name';
import { ProjectRules } from '@nesting/core/project';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { many, moment } from '../../app/words';
import { FamilyFilter } from '../../changes/family-filter';
import { FilterList, FilterRow } from '../../changes/filter-list';
import { FindAndGroup } from '../../changes/find-and-group';
import { Button, Heading, Menu, Radios, Tick } from '../../ui';
import { volumesApi } from '../house/volumes-api';
import { HeapCopies } from './heap-copies';
import { fieldsToSay } from './intake-fields';
import { useShownItems } from './intake-list';
import { filterOf, groupOf, isShown, STATE_WORDS, STATES, stateOf } from './intake-rows';
import type { IntakeWork } from './intake-work';
import { LearnedNames } from './learned-names';
import { SayForShown } from './say-for-shown';

interface Props {
  readonly work: IntakeWork;
  readonly registers: Registers;
}

interface OnVolumes extends Props {
  readonly place: HeapPlace;
  /** The volume the project lies on. */
  readonly target: string;
}

export function IntakeGiven({ work, registers, place, target }: OnVolumes) {
  const { project, said, setMove, plan, isReading, readAgain, forget } = work;
  const { volume, folder } = place;
  return (
    <div className="flex flex-col gap-4">
      <div>
        <p className="font-mono text-sm">
          <Link to={`/projects/${project.id}`} className="text-plum hover:underline">
            {project.number}
          </Link>
        </p>
        <h1 className="text-xl font-semibold">Bring files into {project.title || project.folder}</h1>
        <p className="text-sm text-ink2">
          From{' '}
          <span className="font-mono text-ink">
            {volume}
            {folder === '' ? '' : `/${folder}`}
          </span>
          {plan !== undefined && `, looked through ${moment(plan.readAt)}`}
        </p>
        <div className="flex gap-2 pt-1">
          <Button disabled={isReading} onClick={readAgain}>
            {isReading ? 'Looking…' : 'Look again'}
          </Button>
          {Object.keys(said.placed).length > 0 && (
            <Button variant="quiet" onClick={forget}>
              Forget what I said
            </Button>
          )}
        </div>
      </div>
      <Radios
        label="What becomes of the originals"
        value={said.isMove ? 'move' : 'copy'}
        onChange={(way) => setMove(way === 'move')}
        options={[
          { value: 'copy', label: 'Copy them' },
          { value: 'move', label: 'Move them' },
        ]}
      />
      {!said.isMove && <SecondCopy work={work} volume={target} />}
      <HeapCopies project={project.id} place={place} />
      <WhatIsShown work={work} registers={registers} />
    </div>
  );
}

/** Pairs, filters, and what is said of all that is shown. */
export function WhatIsShown({ work, registers }: Props) {
  const { plan } = work;
  return plan === undefined ? null : (
    <>
      <Clocks work={work} plan={plan} />
      <Narrow work={work} plan={plan} registers={registers} />
    </>
  );
}

/** Where the project's volume has its double. */
function SecondCopy({ work: { said, setDoubled }, volume }: { work: IntakeWork; volume: string }) {
  const { data: volumes } = volumesApi.useVolumesQuery();
  const double = volumes?.find(({ name }) => name === volume)?.double ?? null;
  if (double === null) return null;
  return <Tick label={`A second copy on ${double}`} checked={said.isDoubled ?? true} onChange={setDoubled} />;
}

interface PlanProps {
  readonly work: IntakeWork;
  readonly plan: NonNullable<IntakeWork['plan']>;
}

/** Sound and picture are paired by their clocks, which may differ. */
function Clocks({ work: { said, setPairing, save }, plan: { pairs, shift } }: PlanProps) {
  if (pairs.length === 0 && shift === null) return null;
  const isTaken = said.pairing.shift === null;
  return (
    <section aria-label="Pairs" className="flex flex-col gap-1 text-sm">
      <Heading>Sound and picture</Heading>
      <p>{pairs.length === 0 ? 'Nothing was recorded at the same time.' : `${many(pairs.length, 'pair')} found.`}</p>
      {shift !== null && (
        <p className="text-ink2">
          {many(shift.pairs, 'pair')} agree that the recorder’s clock is {clockWords(shift.seconds)}
          {isTaken ? '. That is counted in.' : '. Clocks are taken as they are.'}{' '}
          <Button variant="quiet" onClick={() => setPairing({ shift: isTaken ? 0 : null })}>
            {isTaken ? 'Take clocks as they are' : 'Count it in'}
          </Button>
        </p>
      )}
      {pairs.length > 0 && (
        <Menu
          trigger={<Button className="self-start">Save the pairs…</Button>}
          lines={[
            { words: 'As timelines (OTIO)', run: () => void save('otio') },
            { words: 'As a table (CSV)', run: () => void save('pairs') },
          ]}
        />
      )}
    </section>
  );
}

function clockWords(seconds: number): string {
  const [whole, way] = [Math.abs(seconds), seconds > 0 ? 'ahead' : 'behind'];
  if (whole < 120) return `${many(whole, 'second')} ${way}`;
  const minutes = Math.floor(whole / 60);
  return minutes < 120 ? `${minutes} min ${whole % 60} s ${way}` : `${Math.round(minutes / 6) / 10} hours ${way}`;
}

/** Each count is under the other filters. */
function Narrow({ work, plan, registers }: PlanProps & { registers: Registers }) {
  const { params, put, project } = work;
  const filter = filterOf(params);
  const shown = useShownItems(work);
  const ofState = plan.items.filter((item) => isShown(item, { ...filter, state: null }));
  const differing = plan.items.filter((item) => isShown(item, { ...filter, isDiffering: true })).length;
  const fields = useMemo(() => fieldsToSay(project, registers), [project, registers]);
  const folders = useMemo(() => foldersOf(project, registers), [project, registers]);
  return (
    <>
      <FilterList label="What becomes of it">
        {STATES.map((state) => ({ state, of: ofState.filter((item) => stateOf(item) === state).length }))
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
      {(differing > 0 || filter.isDiffering) && (
        <FilterList label="By the setup sheet">
          <FilterRow
            words="Not as agreed"
            of={differing}
            chosen={filter.isDiffering}
            onChoose={() => put({ agreed: filter.isDiffering ? null : 'no', line: null })}
          />
        </FilterList>
      )}
      <FamilyFilter
        label="Family, of what comes in"
        families={plan.families}
        chosen={filter.family}
        onChoose={(family) => put({ family, line: null })}
      />
      <FindAndGroup
        find={filter.find}
        onFind={(find) => put({ find })}
        label="How files are grouped"
        group={groupOf(params)}
        groups={[
          { value: 'state', label: 'by state' },
          { value: 'from', label: 'by folder' },
          { value: 'to', label: 'by place' },
          { value: 'day', label: 'by day' },
          { value: 'device', label: 'by device' },
        ]}
        onGroup={(value) => put({ group: value === 'state' ? null : value })}
      />
      <SayForShown work={work} fields={fields} folders={folders} shown={shown} />
      <LearnedNames {...{ work, registers, fields, shown }} />
    </>
  );
}

const MOST_FOLDERS = 1000;

function foldersOf(project: Pick<ProjectPage, 'body' | 'values'>, registers: Registers): readonly string[] {
  const rules = new ProjectRules({ template: project.body, values: project.values, registers });
  return rules.expansion.lines
    .filter((line) => line.kind === 'folder' && line.elsewhere === undefined && line.path !== '')
    .slice(0, MOST_FOLDERS)
    .map(({ path }) => path);
}
