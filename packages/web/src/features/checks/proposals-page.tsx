/** Plans that artists handed in: looked at, taken whole or in part, or refused with a word. */
import type { Me, ProposalRow } from '@nesting/contract';
import { type FormEvent, useState } from 'react';
import { Link, useOutletContext } from 'react-router';
import { troubleOf } from '../../app/api';
import { ago, many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { FoundGrid } from '../../grid/found-grid';
import type { GridColumn } from '../../grid/grid';
import { useFound } from '../../grid/use-found';
import { Button, Heading, Labelled, Lines, Refused, Trouble } from '../../ui';
import { repairApi } from '../repair/repair-api';
import { ChecksNav } from './checks-nav';

const STATE_WORDS: Readonly<Record<ProposalRow['state'], string>> = {
  open: 'waits for an answer',
  taken: 'carried out',
  refused: 'refused',
};

const COLUMNS: readonly GridColumn<ProposalRow>[] = [
  {
    id: 'project',
    header: 'Project',
    width: '5.5rem',
    sort: (r) => r.project.number,
    cell: (r) => <span className="font-mono text-plum">{r.project.number}</span>,
  },
  { id: 'by', header: 'By', width: 'minmax(8rem,1fr)', sort: (r) => r.by, cell: (r) => r.by },
  { id: 'findings', header: 'Findings', width: '5.5rem', sort: (r) => r.findings, cell: (r) => r.findings },
  { id: 'note', header: 'A word', width: 'minmax(10rem,2fr)', sort: (r) => r.note, cell: (r) => r.note },
  { id: 'at', header: 'When', width: '8rem', sort: (r) => r.at, cell: (r) => ago(r.at) },
  {
    id: 'state',
    header: 'State',
    width: 'minmax(8rem,1fr)',
    sort: (r) => r.state,
    cell: (r) => <span className={r.state === 'open' ? 'text-ochre' : 'text-ink2'}>{STATE_WORDS[r.state]}</span>,
  },
];

const keyOf = (row: ProposalRow): string => row.id;
const textOf = ({ project, by, note }: ProposalRow): string => `${project.number} ${project.title} ${by} ${note}`;

export function ProposalsPage() {
  const me = useOutletContext<Me>();
  const { data, isError, error, refetch } = repairApi.useProposalsQuery();
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const shown = useFound(data, COLUMNS, textOf, 'state');
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  if (data === undefined) return null;
  const row = shown.rows.find((r) => r.id === chosen.at(-1)) ?? null;
  const open = data.filter((r) => r.state === 'open').length;
  return (
    <Columns
      id="checks"
      labels={['Checks', 'Proposals', 'The selected one']}
      given={
        <div className="flex flex-col gap-4">
          <ChecksNav />
          <p className="text-sm text-ink2">
            {me.role === 'artist'
              ? 'What you proposed, and what became of it.'
              : 'How artists would put findings right. A plan is taken by looking at it and carrying it out, whole or in part.'}
          </p>
        </div>
      }
      plan={
        <FoundGrid
          id="proposals"
          title="Proposals"
          findWords="Find a proposal"
          columns={COLUMNS}
          found={shown}
          keyOf={keyOf}
          chosen={chosen}
          onChoose={setChosen}
          empty="Nothing was proposed."
        />
      }
      consequence={row && <Proposed key={row.id} row={row} isCoordinator={me.role === 'coordinator'} />}
      ledger={
        <p className="flex-1">
          <strong className="font-semibold">
            {open === 0
              ? 'No proposal waits.'
              : `${many(open, 'proposal')} ${open === 1 ? 'waits' : 'wait'} for an answer.`}
          </strong>
        </p>
      }
    />
  );
}

function Proposed({ row, isCoordinator }: { row: ProposalRow; isCoordinator: boolean }) {
  const { id, project, by, findings, note, state, settledBy, word, batch } = row;
  return (
    <div className="flex flex-col gap-4 text-sm">
      <div className="flex flex-col gap-1">
        <Heading>{project.title}</Heading>
        <p>
          {by} would put {many(findings, 'finding')} right{note === '' ? '.' : `: “${note}”`}
        </p>
        {state !== 'open' && (
          <p className="text-ink2">
            {settledBy} {state === 'taken' ? 'carried it out' : 'refused it'}
            {word === '' ? '.' : `: “${word}”`}
          </p>
        )}
        {batch !== null && (
          <Link to={`/projects/${project.id}/batches?batch=${batch}`} className="text-bottle hover:underline">
            What was done
          </Link>
        )}
      </div>
      {isCoordinator && state === 'open' && (
        <>
          <Link
            to={`/projects/${project.id}/repair?proposal=${id}`}
            className="self-start rounded-tray border border-bottle bg-sheet px-3 py-1.5 font-semibold text-bottle hover:bg-bottle/10"
          >
            Look at the plan
          </Link>
          <Refuse id={id} />
        </>
      )}
    </div>
  );
}

function Refuse({ id }: { id: string }) {
  const [refuse, refusing] = repairApi.useRefuseProposalMutation();
  const [word, setWord] = useState('');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (word.trim() !== '') void refuse({ id, word });
  };
  return (
    <form className="flex flex-col gap-2 border-t border-line pt-4" onSubmit={submit}>
      <Labelled id="refuse-word" label="Why not">
        <Lines id="refuse-word" rows={3} value={word} maxLength={2000} onChange={(e) => setWord(e.target.value)} />
      </Labelled>
      <Button type="submit" className="self-start" disabled={word.trim() === '' || refusing.isLoading}>
        Refuse it
      </Button>
      <Refused words={refusing.isError ? troubleOf(refusing.error) : null} />
    </form>
  );
}
