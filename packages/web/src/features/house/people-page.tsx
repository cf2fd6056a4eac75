/** People and their access: who may do what, invitations, leavers. Their work stays whoever goes. */

import type { Me, PersonRow } from '@nesting/contract';
import { ROLES } from '@nesting/contract';
import { useId, useMemo, useState } from 'react';
import { useOutletContext } from 'react-router';
import { troubleOf } from '../../app/api';
import { useAddress } from '../../app/use-address';
import { ago, many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Grid, type GridColumn } from '../../grid/grid';
import { found, sorted } from '../../grid/sort';
import { Button, Choose, Confirm, CopyButton, Empty, Heading, Labelled, TextInput, Trouble } from '../../ui';
import { peopleApi } from '../access/people-api';
import { History } from './history';
import { houseApi } from './house-api';
import { HouseNav } from './house-nav';
import { faultsOfPerson } from './person-faults';

const ROLE_WORDS = {
  coordinator: 'coordinator: sets the rules, starts projects',
  artist: 'artist: works in projects',
  lead: 'lead: looks, changes nothing',
} as const;
const STATE_WORDS = { invited: 'invited', active: 'may sign in', left: 'has left' } as const;
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
  const words = params.get('find') ?? '';
  const sorting = { by: params.get('by') ?? 'name', down: params.get('order') === 'down' };
  const rows = useMemo(() => {
    const some = found(data ?? [], words, (p) =>
      [p.initials, p.name, p.email, p.role, p.does, STATE_WORDS[p.state]].join(' '),
    );
    const column = COLUMNS.find((c) => c.id === sorting.by);
    return column?.sort ? sorted(some, column.sort, sorting.down) : some;
  }, [data, words, sorting.by, sorting.down]);
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
              onChange={(e) => put({ find: e.target.value })}
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
            onSort={(s) => put({ by: s.by, order: s.down ? 'down' : null })}
            empty="Nobody has these letters."
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
      ledger={
        <p className="flex-1">
          <strong className="font-semibold">
            {many(data.filter((p) => p.state === 'active').length, 'person', 'people')} may sign in.
          </strong>{' '}
          <span className="text-ink2">
            {data.filter((p) => p.state === 'invited').length} invited, {data.filter((p) => p.state === 'left').length}{' '}
            left.
          </span>
        </p>
      }
    />
  );
}

interface FormProps {
  readonly person: PersonRow | null;
  readonly own: boolean;
  /** A link that no mail carries, to be handed over. */
  readonly link: string | null;
  readonly onDone: (id: string | null, link: string | null) => void;
}

function PersonForm({ person, own, link, onDone }: FormProps) {
  const id = useId();
  const [given, setGiven] = useState({
    name: person?.name ?? '',
    email: person?.email ?? '',
    initials: person?.initials ?? '',
    role: person?.role ?? ('artist' as const),
    does: person?.does ?? '',
  });
  const [invite, inviting] = peopleApi.useInviteMutation();
  const [change, changing] = peopleApi.useSavePersonMutation();
  const [again, asking] = peopleApi.useLinkPersonMutation();
  const [leave, leaving] = peopleApi.useLeavePersonMutation();
  const [comeBack] = peopleApi.useReturnPersonMutation();
  const { data: history = [] } = houseApi.useEntryHistoryQuery(
    { list: 'people', key: person?.initials ?? '' },
    { skip: person === null },
  );
  const faults = faultsOfPerson(given);
  const trouble = inviting.error ?? changing.error ?? asking.error ?? leaving.error;
  const set = (key: keyof typeof given, value: string) => setGiven({ ...given, [key]: value });
  const dirty = person === null || (Object.keys(given) as (keyof typeof given)[]).some((k) => given[k] !== person[k]);
  const keep = async () => {
    if (person === null) {
      const made = await invite(given);
      if (made.data) onDone(made.data.id, made.data.link);
    } else await change({ ...given, id: person.id, version: person.version });
  };
  const fixed = person !== null && (person.state !== 'invited' || person.projects > 0);
  const row = (key: 'name' | 'email' | 'initials' | 'does', label: string, help?: string) => (
    <Labelled id={`${id}${key}`} label={label} help={help}>
      <TextInput
        id={`${id}${key}`}
        value={given[key]}
        readOnly={key === 'initials' && fixed}
        fault={given[key] !== '' && faults[key] !== undefined}
        onChange={(e) => set(key, key === 'initials' ? e.target.value.toUpperCase() : e.target.value)}
        autoComplete="off"
      />
      {given[key] !== '' && faults[key] && <span className="text-xs text-brick">{faults[key]}</span>}
    </Labelled>
  );
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        void keep();
      }}
    >
      <Heading>{person === null ? 'To be invited' : `${person.name}, ${STATE_WORDS[person.state]}`}</Heading>
      {row('name', 'Name')}
      <div className="grid grid-cols-[6rem_1fr] gap-3">
        {row('initials', 'Initials')}
        {row('email', 'E-mail')}
      </div>
      {fixed && <p className="-mt-3 text-xs text-ink2">Initials stand in names on disks, and stay.</p>}
      <Labelled id={`${id}r`} label="Role">
        <Choose
          id={`${id}r`}
          label="Role"
          value={given.role}
          options={ROLES.map((value) => ({ value, label: ROLE_WORDS[value] }))}
          onChange={(role) => set('role', role)}
        />
      </Labelled>
      {row('does', 'Does')}
      {trouble && (
        <p role="alert" className="text-sm text-brick">
          {troubleOf(trouble)}
        </p>
      )}
      {link && (
        <div className="rounded-tray border border-ochre bg-sheet p-2 text-sm">
          <p>No mail goes out from here: hand this link over. It works once, and is shown only now.</p>
          <p className="flex items-start gap-1 font-mono text-xs break-all">
            <span className="flex-1">{link}</span>
            <CopyButton text={link} what="the link" />
          </p>
        </div>
      )}
      <div className="flex flex-wrap gap-3">
        {dirty && (
          <Button look="main" type="submit" disabled={Object.keys(faults).length > 0 || inviting.isLoading}>
            {person === null ? 'Invite them' : 'Keep it'}
          </Button>
        )}
        {person !== null && person.state !== 'left' && (
          <Button onClick={() => void again(person.id).then((r) => r.data && onDone(person.id, r.data.link))}>
            {person.state === 'invited' ? 'Invite again' : 'Send a link for a new password'}
          </Button>
        )}
        {person !== null && person.state !== 'left' && !own && (
          <Confirm
            trigger={<Button>End access…</Button>}
            title={`End the access of ${person.name}?`}
            act="End access"
            run={() => void leave(person.id)}
          >
            Their sessions, keys and links end at once; numbers and names they hold are free again. Projects and
            everything they did stay theirs.
          </Confirm>
        )}
        {person?.state === 'left' && (
          <Button onClick={() => void comeBack(person.id).then((r) => r.data && onDone(person.id, r.data.link))}>
            Let them return
          </Button>
        )}
      </div>
      {person !== null && <History rows={history} />}
    </form>
  );
}
