/** What the package is: for whom, of what, where it is written; and which files are shown. */
import type { VolumeRow } from '@nesting/contract';
import { PACKAGE_KINDS } from '@nesting/core/package';
import { signpostsOf } from '@nesting/core/project';
import { expandTemplate } from '@nesting/core/template';
import { PACKAGE_KIND_WORDS, STAYS_WORDS } from '@nesting/core/words';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { many, size } from '../../app/words';
import { FamilyFilter } from '../../changes/family-filter';
import { FilterList, FilterRow } from '../../changes/filter-list';
import { FindAndGroup } from '../../changes/find-and-group';
import { Button, Choose, Labelled, Radios, TextInput, Tick } from '../../ui';
import { houseApi } from '../house/house-api';
import { DueList } from '../projects/due-list';
import { KeptSelections } from './kept-selections';
import { filterOf, isShown, type Row } from './pack-rows';
import { FOR_SOMEBODY, FOR_THE_SHELF, type PackWork } from './pack-work';

interface Props {
  readonly work: PackWork;
  readonly volumes: readonly VolumeRow[];
  readonly volume: string | null;
  readonly shown: readonly Row[];
}

export function PackGiven({ work, volumes, volume, shown }: Props) {
  const { project, said, say } = work;
  return (
    <div className="flex flex-col gap-4">
      <div>
        <p className="font-mono text-sm">
          <Link to={`/projects/${project.id}`} className="text-plum hover:underline">
            {project.number}
          </Link>
        </p>
        <h1 className="text-xl font-semibold">Pack {project.title || project.folder}</h1>
      </div>
      <Radios
        label="What it is for"
        value={said.purpose}
        onChange={(purpose) => say(purpose === 'archive' ? FOR_THE_SHELF : FOR_SOMEBODY)}
        options={[
          { value: 'handover', label: 'For somebody' },
          { value: 'archive', label: 'For the archive' },
        ]}
      />
      <WhatGoes work={work} />
      <div className="flex">
        <KeptSelections work={work} />
      </div>
      <details>
        <summary className="cursor-pointer pb-2 text-sm font-semibold">For whom, and where it is written</summary>
        <Where {...{ work, volumes, volume }} />
      </details>
      <DueList project={project.id} isFolded />
      {work.plan !== undefined && <Narrow work={work} shown={shown} />}
    </div>
  );
}

const WHOLE = '-';

function WhatGoes({ work }: { work: PackWork }) {
  const { project, said, select } = work;
  const { selection } = said;
  const { data: registers } = houseApi.useRegistersQuery();
  const folders = useMemo(() => {
    if (registers === undefined) return [];
    const { lines } = expandTemplate(project.body, project.values, registers);
    const named = signpostsOf(expandTemplate(project.body, project.values, registers));
    const tops = lines.filter(
      ({ kind, path, parent }) => kind === 'folder' && path !== '' && !path.includes('/') && parent !== null,
    );
    return [
      ...tops.map(({ path }) => ({ value: path, label: path })),
      ...named
        .filter(({ path }) => path.includes('/'))
        .map(({ name, path }) => ({ value: path, label: `${name}: ${path}` })),
    ];
  }, [project, registers]);
  const options = [{ value: WHOLE, label: 'The whole project' }, ...folders];
  const isListed = selection.within === '' || folders.some(({ value }) => value === selection.within);
  return (
    <div className="flex flex-col gap-3">
      <Labelled id="pack-within" label="What is packed">
        <Choose
          id="pack-within"
          label="What is packed"
          value={selection.within || WHOLE}
          options={isListed ? options : [...options, { value: selection.within, label: selection.within }]}
          onChange={(value) => select({ within: value === WHOLE ? '' : value, document: null })}
        />
      </Labelled>
      {selection.document !== null && (
        <p className="flex items-baseline gap-2 text-sm">
          <span className="min-w-0 flex-1 break-all">
            Only what <span className="font-mono">{selection.document}</span> needs
          </span>
          <Button variant="quiet" onClick={() => select({ document: null })}>
            All
          </Button>
        </p>
      )}
      <div className="flex flex-col gap-1.5">
        <Tick
          label="Versions that newer ones supersede"
          checked={selection.comes === 'everything'}
          onChange={(all) => select({ comes: all ? 'everything' : 'current' })}
        />
        <Tick
          label="What programs made along the way"
          checked={selection.withGenerated}
          onChange={(withGenerated) => select({ withGenerated })}
        />
        <Tick
          label="Folders that are not for outsiders"
          checked={!selection.isForOutsiders}
          onChange={(all) => select({ isForOutsiders: !all })}
        />
      </div>
    </div>
  );
}

function Where({ work, volumes, volume }: Omit<Props, 'shown'>) {
  const { said, say, plan } = work;
  return (
    <div className="flex flex-col gap-3">
      <Labelled id="pack-recipient" label="For whom">
        <TextInput
          id="pack-recipient"
          value={said.recipient}
          maxLength={200}
          onChange={(e) => say({ recipient: e.target.value })}
        />
      </Labelled>
      <Labelled id="pack-note" label="A word to them">
        <TextInput id="pack-note" value={said.note} maxLength={2000} onChange={(e) => say({ note: e.target.value })} />
      </Labelled>
      <Labelled id="pack-kind" label="Form">
        <Choose
          id="pack-kind"
          label="Form"
          value={said.kind}
          options={PACKAGE_KINDS.map((value) => ({ value, label: PACKAGE_KIND_WORDS[value] }))}
          onChange={(kind) => say({ kind })}
        />
      </Labelled>
      <Tick
        label="All files side by side, without folders"
        checked={said.isSideBySide}
        onChange={(isSideBySide) => say({ isSideBySide })}
      />
      <Labelled id="pack-volume" label="Volume">
        <Choose
          id="pack-volume"
          label="Volume"
          value={volume ?? ''}
          options={volumes.map(({ name }) => ({ value: name, label: name }))}
          onChange={(name) => say({ volume: name })}
        />
      </Labelled>
      <Labelled id="pack-folder" label="Folder on it">
        <TextInput id="pack-folder" value={said.folder} onChange={(e) => say({ folder: e.target.value })} />
      </Labelled>
      <Labelled id="pack-name" label="Its name">
        <TextInput
          id="pack-name"
          value={said.name}
          placeholder={plan?.name ?? ''}
          onChange={(e) => say({ name: e.target.value })}
        />
      </Labelled>
    </div>
  );
}

/** Each count is under the other filters. */
function Narrow({ work, shown }: { work: PackWork; shown: readonly Row[] }) {
  const { plan, params, put, pick } = work;
  const filter = filterOf(params);
  const rows = plan?.items ?? [];
  const filesIn = (some: readonly Row[]) => some.reduce((sum, { frames }) => sum + frames, 0);
  const states = ['goes', ...(plan?.staying ?? []).map(({ stays }) => stays)] as const;
  const taken = shown.filter(({ stays }) => stays === null);
  const left = shown.filter(({ stays }) => stays !== null && stays !== 'not-needed' && stays !== 'elsewhere');
  const set = (some: readonly Row[], goes: boolean) => pick(Object.fromEntries(some.map(({ path }) => [path, goes])));
  return (
    <>
      <FilterList label="What becomes of it">
        {states.map((state) => (
          <FilterRow
            key={state}
            words={state === 'goes' ? 'Goes along' : STAYS_WORDS[state]}
            note={size(
              state === 'goes' ? (plan?.bytes ?? 0) : (plan?.staying.find((s) => s.stays === state)?.bytes ?? 0),
            )}
            of={filesIn(rows.filter((row) => isShown(row, { ...filter, state })))}
            chosen={filter.state === state}
            onChoose={() => put({ state: filter.state === state ? null : state, line: null })}
          />
        ))}
      </FilterList>
      <FamilyFilter
        label="Family, of what goes"
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
      <div className="flex flex-wrap gap-2">
        {left.length > 0 && <Button onClick={() => set(left, true)}>Take {many(left.length, 'line')} along</Button>}
        {taken.length > 0 && filter.state !== null && (
          <Button onClick={() => set(taken, false)}>Leave {many(taken.length, 'line')}</Button>
        )}
      </div>
    </>
  );
}
