/** Who has what to put right: by initials in names, or given by hand; sent as a list, printed, opened by a link. */

import type { Me, PersonFindings, WhoRow } from '@nesting/contract';
import { useState } from 'react';
import { useOutletContext } from 'react-router';
import { troubleOf } from '../../app/api';
import { useAddress } from '../../app/use-address';
import { many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Grid, type GridColumn } from '../../grid/grid';
import { Button, CopyButton, Empty, Refused, Trouble } from '../../ui';
import { findingsApi } from '../findings/findings-api';
import { Counts } from '../projects/counts';
import { ChecksNav } from './checks-nav';
import { PersonList } from './person-list';

const NOBODY = '-';

const COLUMNS: readonly GridColumn<WhoRow>[] = [
  {
    id: 'initials',
    header: 'Init.',
    width: '4rem',
    sort: (w) => w.initials ?? '~',
    cell: (w) => <span className="font-mono text-bottle">{w.initials ?? ''}</span>,
  },
  {
    id: 'name',
    header: 'Name',
    width: 'minmax(8rem,1fr)',
    sort: (w) => w.name,
    cell: (w) =>
      w.initials === null ? (
        <span className="text-ink2">nobody by name</span>
      ) : (
        <span className="font-semibold">{w.name || w.initials}</span>
      ),
  },
  {
    id: 'counts',
    header: 'To put right',
    width: '10rem',
    sort: (w) => w.must * 1e6 + w.should * 1e3 + w.note,
    cell: (w) => <Counts counts={w} />,
  },
  { id: 'projects', header: 'In projects', width: '6rem', sort: (w) => w.projects, cell: (w) => w.projects },
];

export function WhoPage() {
  const me = useOutletContext<Me>();
  const [params, put] = useAddress();
  const { data, isError, error, refetch } = findingsApi.useWhoQuery(undefined, { skip: me.role === 'artist' });
  const chosen = params.get('person') ?? data?.[0]?.initials ?? null;
  const list = findingsApi.useListOfQuery(chosen ?? '', {
    skip: chosen === null || chosen === NOBODY || me.role === 'artist',
  });
  if (me.role === 'artist') return <Empty title="This is for who coordinates">What is yours stands under Mine.</Empty>;
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  if (data === undefined) return null;
  return (
    <Columns
      id="checks"
      labels={['Checks', 'Who has what to put right', 'Their list']}
      given={
        <div className="flex flex-col gap-4">
          <ChecksNav />
          <p className="text-sm text-ink2">
            A finding is whose initials stand in the name, or who it was given to. Projects that are closed or packed
            are left out.
          </p>
        </div>
      }
      plan={
        <>
          <h1 className="pb-2 text-xl font-semibold">Who has what to put right</h1>
          <Grid
            id="who"
            label="People"
            columns={COLUMNS}
            rows={data}
            keyOf={(w) => w.initials ?? NOBODY}
            chosen={chosen === null ? [] : [chosen]}
            onChoose={(keys) => put({ person: keys.at(-1) ?? null })}
            empty="Nobody has anything to put right."
          />
        </>
      }
      consequence={<TheirList chosen={chosen} list={list.data} mayRepair={me.role === 'coordinator'} />}
      ledger={
        <WhoLedger key={chosen} me={me} rows={data} person={chosen === NOBODY ? null : chosen} list={list.data} />
      }
    />
  );
}

interface TheirProps {
  readonly chosen: string | null;
  readonly list: PersonFindings | undefined;
  readonly mayRepair: boolean;
}

function TheirList({ chosen, list, mayRepair }: TheirProps) {
  return chosen === null || chosen === NOBODY ? (
    <p className="text-sm text-ink2">
      {chosen === NOBODY
        ? 'Findings with nobody’s initials in their names: give them to somebody in their project.'
        : ''}
    </p>
  ) : (
    list && (
      <div className="flex flex-col gap-4">
        <h2 className="text-lg font-semibold">{list.name}</h2>
        <PersonList list={list} linked mayRepair={mayRepair} />
      </div>
    )
  );
}

interface LedgerProps {
  readonly me: Me;
  readonly rows: readonly WhoRow[];
  /** Initials of the person whose list is shown. */
  readonly person: string | null;
  readonly list: PersonFindings | undefined;
}

function WhoLedger({ me, rows, person, list }: LedgerProps) {
  const [send, sending] = findingsApi.useSendListMutation();
  const [link, linking] = findingsApi.useLinkToListMutation();
  const [said, setSaid] = useState<{ readonly words: string; readonly link?: string } | null>(null);
  const sendIt = async (initials: string) => {
    const { data } = await send(initials);
    if (data === undefined) return;
    const words = data.sent
      ? `Sent to ${list?.name ?? initials}.`
      : 'No mail goes out of here: make a link and hand it over.';
    setSaid({ words });
  };
  const linkIt = async (initials: string) => {
    const { data } = await link(initials);
    if (data !== undefined)
      setSaid({ words: 'Whoever has this link sees this list, and nothing else, for two weeks:', link: data.link });
  };
  const trouble = sending.error ?? linking.error;
  return (
    <>
      {trouble ? (
        <Refused className="flex-1" words={troubleOf(trouble)} />
      ) : said !== null ? (
        <p role="status" className="flex min-w-0 flex-1 items-center gap-2">
          <span className="whitespace-nowrap">{said.words}</span>
          {said.link && (
            <>
              <span className="truncate font-mono text-sm">{said.link}</span>
              <CopyButton text={said.link} what="the link" />
            </>
          )}
        </p>
      ) : (
        <p className="flex-1">
          <strong className="font-semibold">
            {many(rows.filter((w) => w.initials !== null).length, 'person', 'people')}
          </strong>{' '}
          <span className="text-ink2">with something to put right.</span>
        </p>
      )}
      {person !== null && (
        <Button onClick={() => window.open(`/checks/paper/${encodeURIComponent(person)}`, '_blank')}>On paper</Button>
      )}
      {me.role === 'coordinator' && person !== null && (
        <>
          <Button disabled={linking.isLoading} onClick={() => void linkIt(person)}>
            Make a link
          </Button>
          <Button
            variant="main"
            disabled={sending.isLoading || (list?.projects.length ?? 0) === 0}
            onClick={() => void sendIt(person)}
          >
            Send the list
          </Button>
        </>
      )}
    </>
  );
}
