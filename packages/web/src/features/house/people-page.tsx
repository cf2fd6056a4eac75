/** People and their access: who may do what, invitations, leavers. Their work stays whoever goes. */

import type { Me, PersonRow } from '@nesting/contract';
import { useState } from 'react';
import { useOutletContext } from 'react-router';
import { troubleOf } from '../../app/api';
import { useAddress } from '../../app/use-address';
import { ago, many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Grid, type GridColumn } from '../../grid/grid';
import { useFound } from '../../grid/use-found';
import { Button, Empty, TextInput, Trouble } from '../../ui';
import { peopleApi } from '../access/people-api';
import { HouseNav } from './house-nav';
import { PersonForm, STATE_WORDS } from './person-form';

const FRESH = ':new';

const COLUMNS: readonly GridColumn<PersonRow>[] = [
  {
    id: 'initials',
    header: 'Init.',
    width: '4rem',
    sort: (p) => p.initials,
    cell: (p) => <span className="font-mono text-bottle">{p.initials}</span>,
  },
  {
    id: 'name',
    header: 'Name',
    width: 'minmax(8rem,1.4fr)',
    sort: (p) => p.name,
    cell: (p) => (
      <span className={p.state === 'left' ? 'text-ink2 line-through decoration-rule' : 'font-semibold'}>{p.name}</span>
    ),
  },
  { id: 'role', header: 'Role', width: '5.5rem', sort: (p) => p.role, cell: (p) => p.role },
  { id: 'state', header: 'Access', width: '6rem', sort: (p) => p.state, cell: (p) => STATE_WORDS[p.state] },
  { id: 'does', header: 'Does', width: 'minmax(7rem,1fr)', sort: (p) => p.does, cell: (p) => p.does, hidden: true },
  {
    id: 'seen',
    header: 'Last seen',
    width: '8rem',
    sort: (p) => p.lastSeen ?? '',
    cell: (p) => (p.lastSeen ? ago(p.lastSeen) : ''),
  },
  {
    id: 'email',
    header: 'E-mail',
    width: 'minmax(9rem,1fr)',
    sort: (p) => p.email,
    cell: (p) => p.email,
    hidden: true,
  },
];

export function PeoplePage() {
  const me = useOutletContext<Me>();
  const [params, put] = useAddress();
  const { data, isError, error, refetch } = peopleApi.usePeopleQuery(undefined, { skip: me.role !== 'coordinator' });
  const { rows, words, find, sorting, sort } = useFound(data, COLUMNS, textOf, 'name');
  const [link, setLink] = useState<string | null>(null);
  if (me.role !== 'coordinator') return <Empty title="Coordinators look after people">Ask one of them.</Empty>;
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  if (data === undefined) return null;
  const chosen = params.get('person');
  const person = data.find((p) => p.id === chosen) ?? null;
  const choose = (id: string | null) => {
    setLink(null);
    put({ person: id });
  };
  return (
    <Columns
      id="house"
      labels={['The house’s lists', 'People and access', 'The selected person']}
      given={
        <div className="flex flex-col gap-4">
          <HouseNav />
          <p className="text-sm text-ink2">
            Nobody signs up by themselves. Who leaves is out at once, and what they did stays theirs.
          </p>
        </div>
      }
      plan={
        <>
          <div className="flex flex-wrap items-center gap-3 pb-2">
            <h1 className="mr-auto text-xl font-semibold">People and access</h1>
            <TextInput
              aria-label="Find a person"
              placeholder="Find"
              value={words}
              onChange={(e) => find(e.target.value)}
              className="w-44"
            />
            <Button onClick={() => choose(FRESH)}>Invite…</Button>
          </div>
          <Grid
            id="people"
            label="People"
            columns={COLUMNS}
            rows={rows}
            keyOf={(p) => p.id}
            chosen={chosen === null ? [] : [chosen]}
            onChoose={(keys) => choose(keys.at(-1) ?? null)}
            sorting={sorting}
            onSort={sort}
            empty="Nobody found."
          />
        </>
      }
      consequence={
        person !== null || chosen === FRESH ? (
          <PersonForm
            key={person?.id ?? FRESH}
            person={person}
            own={person?.id === me.id}
            onDone={(id, given) => {
              choose(id);
              setLink(given);
            }}
            link={link}
          />
        ) : (
          <p className="text-sm text-ink2">Choose a person to see what they may do.</p>
        )
      }
      ledger={<HowMany rows={data} />}
    />
  );
}

const textOf = (p: PersonRow): string => [p.initials, p.name, p.email, p.role, p.does, STATE_WORDS[p.state]].join(' ');

function HowMany({ rows }: { rows: readonly PersonRow[] }) {
  return (
    <p className="flex-1">
      <strong className="font-semibold">
        {many(rows.filter((p) => p.state === 'active').length, 'person', 'people')} may sign in.
      </strong>{' '}
      <span className="text-ink2">
        {rows.filter((p) => p.state === 'invited').length} invited, {rows.filter((p) => p.state === 'left').length}{' '}
        left.
      </span>
    </p>
  );
}
