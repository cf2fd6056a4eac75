/**
 * A project grows or changes: what it is to become at left, what that does to its folder in the middle, line by line,
 * the selected line at right.
 */
import type { Me } from '@nesting/contract';
import { Link, useOutletContext, useParams } from 'react-router';
import { troubleOf } from '../../app/api';
import { useReaderPath } from '../../app/reader-path';
import { useAddress } from '../../app/use-address';
import { usePageTitle } from '../../app/use-page-title';
import { Columns } from '../../columns/columns';
import { Empty, Heading, Trouble } from '../../ui';
import { changesApi } from '../batches/changes-api';
import { houseApi } from '../house/house-api';
import { projectsApi } from '../projects/projects-api';
import { templatesApi } from '../templates/templates-api';
import { ChangeList } from './change-list';
import { ReshapeLedger } from './reshape-ledger';
import { callIt, leave, type Wish } from './reshape-slice';
import { SelectedChange } from './selected-change';
import { type Reshape, type ReshapeInput, useReshape } from './use-reshape';
import { WishForm } from './wish-form';

export function ReshapePage() {
  const { id = '' } = useParams();
  const me = useOutletContext<Me>();
  const project = projectsApi.useProjectQuery(id);
  const registers = houseApi.useRegistersQuery();
  const templates = templatesApi.useTemplatesQuery();
  const draft = changesApi.useReshapeDraftQuery(id, { refetchOnMountOrArgChange: true });
  const failed = [project, registers, templates, draft].find((q) => q.isError);
  if (me.role === 'lead')
    return <Empty title="Projects are changed by those who work in them">As lead you may look, and not do this.</Empty>;
  if (failed) return <Trouble message={troubleOf(failed.error)} again={() => void failed.refetch()} />;
  if (!project.data || !registers.data || !templates.data || draft.data === undefined || draft.isFetching) return null;
  return (
    <Reshaping
      key={id}
      me={me}
      project={project.data}
      registers={registers.data}
      templates={templates.data.filter((t) => t.edition > 0)}
      draft={draft.data as Wish | null}
    />
  );
}

function Reshaping({ me, ...input }: ReshapeInput & { readonly me: Me }) {
  const { project } = input;
  usePageTitle(`Change ${project.number} ${project.title}`);
  const state = useReshape(input);
  if (state === null) return null;
  return <ReshapeColumns me={me} input={input} state={state} />;
}

function ReshapeColumns({ me, input, state }: { me: Me; input: ReshapeInput; state: Reshape }) {
  const { project, registers, templates } = input;
  const { wish, change, plan } = state;
  const wholePath = useReaderPath(project);
  const [params, put] = useAddress();
  const lines = plan?.lines ?? [];
  const selected = lines.find((l) => l.key === params.get('line')) ?? lines[0] ?? null;
  return (
    <Columns
      id="reshape"
      labels={['What it is to become', 'What that does', 'The selected line']}
      given={
        <div className="flex flex-col gap-4">
          <div>
            <p className="font-mono text-sm">
              <Link to={`/projects/${project.id}`} className="text-plum hover:underline">
                {project.number}
              </Link>
            </p>
            <h1 className="text-xl font-semibold">Change {project.title || project.folder}</h1>
            <p className="text-sm text-ink2">Nothing that is there is removed.</p>
          </div>
          <WishForm
            me={me}
            project={project}
            wish={wish}
            template={state.body}
            templates={templates}
            editions={state.editions}
            registers={registers}
            expansion={state.expansion}
            onChange={change}
          />
        </div>
      }
      plan={<Lines state={state} selected={selected?.key ?? null} onSelect={(key) => put({ line: key })} />}
      consequence={
        <div className="flex flex-col gap-5">
          <Refusals refused={plan?.refused ?? []} />
          {selected && (
            <SelectedChange
              key={selected.key}
              line={selected}
              wholePath={wholePath}
              isArtist={me.role === 'artist'}
              onLeave={() => change(leave(wish, selected), null)}
              onCall={(name) => change(callIt(wish, selected, name), null)}
            />
          )}
        </div>
      }
      ledger={<ReshapeLedger state={state} mayKeepName={me.role === 'coordinator'} />}
    />
  );
}

interface LinesProps {
  readonly state: Reshape;
  readonly selected: string | null;
  readonly onSelect: (key: string) => void;
}

function Lines({ state, selected, onSelect }: LinesProps) {
  const { lines, all } = state.plan ?? { lines: [], all: 0 };
  return (
    <>
      <div className="flex items-baseline gap-3 pb-2">
        <Heading>What that does</Heading>
        {all > lines.length && (
          <span className="text-xs text-ink2">
            the first {lines.length} of {all} lines
          </span>
        )}
      </div>
      {lines.length > 0 ? (
        <ChangeList label="What that does" lines={lines} selected={selected} onSelect={onSelect} />
      ) : state.nothing ? (
        <Empty title="Nothing is to change yet">
          Add an entry, correct a value or choose another edition at left: what it would do is shown here, before it is
          done.
        </Empty>
      ) : (
        <Empty title="Nothing changes on the disk">What was changed is kept in the project’s rules alone.</Empty>
      )}
    </>
  );
}

function Refusals({ refused }: { refused: readonly string[] }) {
  if (refused.length === 0) return null;
  return (
    <ul className="flex flex-col gap-1 text-sm text-brick">
      {refused.map((r) => (
        <li key={r}>{r}</li>
      ))}
    </ul>
  );
}
