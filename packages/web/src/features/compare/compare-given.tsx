/** The two projects, and which rows are shown of them. */
import type { Comparison } from '@nesting/contract';
import { COMPARED, type Compared } from '@nesting/core/compare';
import { useState } from 'react';
import type { useAddress } from '../../app/use-address';
import { useDebounced } from '../../app/use-debounced';
import { size } from '../../app/words';
import { FilterList, FilterRow } from '../../changes/filter-list';
import { FindAndGroup } from '../../changes/find-and-group';
import { Button, Tick } from '../../ui';
import { Finder } from '../../ui/finder';
import { projectsApi } from '../projects/projects-api';
import { SCOPES } from './compare-api';
import { type Filter, sideWords } from './compare-rows';
import { NO_SCOPE, ScopeChoice } from './scope-choice';

type Address = ReturnType<typeof useAddress>;

interface Props {
  readonly params: Address[0];
  readonly put: Address[1];
  readonly found: Comparison | undefined;
  readonly filter: Filter;
}

const GROUPS = [
  { value: 'folder', label: 'by folder' },
  { value: 'state', label: 'by state' },
] as const;

export function CompareGiven({ params, put, found, filter }: Props) {
  const [left, right] = [params.get('left'), params.get('right')];
  return (
    <div className="flex flex-col gap-4">
      <div>
        <h1 className="text-xl font-semibold">Side by side</h1>
        <p className="text-sm text-ink2">As both lie on their disks now, by what names mean and what files hold.</p>
      </div>
      <SideChoice {...{ params, put }} side="left" found={found?.left} />
      <SideChoice {...{ params, put }} side="right" found={found?.right} />
      {left !== null && right !== null && (
        <Button className="self-start" onClick={() => put({ ...swapped(params), row: null })}>
          Swap them
        </Button>
      )}
      {found !== undefined && (
        <>
          <FilterList label="What became of it">
            {COMPARED.filter((state) => found.counts[state] > 0 || filter.state === state).map((state) => (
              <FilterRow
                key={state}
                words={wordsOf(state, found)}
                note={size(found.bytes[state])}
                of={found.counts[state]}
                chosen={filter.state === state}
                // What is the same is told where it is asked for.
                onChoose={() =>
                  put({
                    state: filter.state === state ? null : state,
                    row: null,
                    ...(state === 'same' && { same: filter.state === state ? null : 'yes' }),
                  })
                }
              />
            ))}
          </FilterList>
          <FindAndGroup
            find={filter.find}
            onFind={(find) => put({ find })}
            label="How rows are grouped"
            group={params.get('group') ?? 'folder'}
            groups={GROUPS}
            onGroup={(value) => put({ group: value === 'folder' ? null : value })}
          />
          <Tick
            label="Show what is the same too"
            checked={params.get('same') === 'yes'}
            onChange={(is) => put({ same: is ? 'yes' : null, ...(!is && filter.state === 'same' && { state: null }) })}
          />
        </>
      )}
    </div>
  );
}

function wordsOf(state: Compared, found: Comparison): string {
  const sides = sideWords(found);
  switch (state) {
    case 'same':
      return 'The same';
    case 'renamed':
      return 'Renamed';
    case 'changed':
      return 'Changed';
    case 'only-left':
      return `Only in ${sides.left}`;
    case 'only-right':
      return `Only in ${sides.right}`;
  }
}

interface SideProps extends Pick<Props, 'params' | 'put'> {
  readonly side: 'left' | 'right';
  readonly found: Comparison['left'] | undefined;
}

/** A project, and what of it is compared where it is not all of it. */
function SideChoice({ params, put, side, found }: SideProps) {
  const project = params.get(side);
  return (
    <>
      <ProjectChoice
        label={side === 'left' ? 'Left project' : 'Right project'}
        value={project}
        found={found}
        onChoose={(id) => put({ [side]: id, ...NO_SCOPE[side], row: null })}
      />
      {project !== null && <ScopeChoice {...{ side, project, params, put }} />}
    </>
  );
}

interface ChoiceProps {
  readonly label: string;
  readonly value: string | null;
  readonly found: Comparison['left'] | undefined;
  readonly onChoose: (id: string) => void;
}

/** One of all projects, by some of its number or title. */
function ProjectChoice({ label, value, found, onChoose }: ChoiceProps) {
  const [sought, setSought] = useState('');
  const { data: projects = [] } = projectsApi.useSomeProjectsQuery(useDebounced(sought, 80));
  const rows = found === undefined || projects.some((p) => p.id === found.id) ? projects : [found, ...projects];
  const options = rows.map((p) => ({ value: p.id, label: `${p.number} ${p.title}` }));
  return <Finder label={label} options={options} value={value} onChoose={onChoose} onSeek={setSought} />;
}

const swapped = (params: URLSearchParams) => ({
  left: params.get('right'),
  right: params.get('left'),
  ...Object.fromEntries(
    SCOPES.flatMap((scope) => [
      [`left${scope}`, params.get(`right${scope}`)],
      [`right${scope}`, params.get(`left${scope}`)],
    ]),
  ),
});
