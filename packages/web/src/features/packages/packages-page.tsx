/** All packages: of which project and for whom, how each is, and what can be done with it. */
import type { Me, PackageRow } from '@nesting/contract';
import { nameOf } from '@nesting/core/listing';
import { PACKAGE_KIND_WORDS } from '@nesting/core/words';
import { useEffect, useState } from 'react';
import { Link, useOutletContext } from 'react-router';
import { troubleOf } from '../../app/api';
import { useAddress } from '../../app/use-address';
import { usePageTitle } from '../../app/use-page-title';
import { ago, count, many, moment, size } from '../../app/words';
import { FilterList, FilterRow } from '../../changes/filter-list';
import { LineList, type ListItem } from '../../changes/line-list';
import { Columns } from '../../columns/columns';
import { Button, Confirm, CopyButton, Empty, Heading, TextInput, Trouble } from '../../ui';
import { Archived } from './archived';
import { isBusy, isUnderWay, isWrong, stateWords } from './package-words';
import { packagesApi } from './packages-api';
import { SendLinks } from './send-links';
import { VerdictList } from './verdict-list';

/** Milliseconds between two looks while one is under way, and while none is. */
const [SOON, LATER] = [700, 10_000];

const ALL = {};

const VIEWS = ['busy', 'wrong', 'sent'] as const;
type View = (typeof VIEWS)[number];

const VIEW_WORDS: Readonly<Record<View, string>> = {
  busy: 'Under way',
  wrong: 'Need a look',
  sent: 'Can be fetched by a link',
};

const isIn = (row: PackageRow, view: View | null): boolean => {
  switch (view) {
    case 'busy':
      return isBusy(row);
    case 'wrong':
      return isWrong(row);
    case 'sent':
      return row.links.length > 0;
    case null:
      return true;
  }
};

export function PackagesPage() {
  usePageTitle('Packages');
  const me = useOutletContext<Me>();
  const [params, put] = useAddress();
  const [isBusyNow, setBusy] = useState(true);
  const {
    data: rows,
    isError,
    error,
    refetch,
  } = packagesApi.usePackagesQuery(ALL, {
    pollingInterval: isBusyNow ? SOON : LATER,
  });
  const busy = rows?.some(isBusy) ?? true;
  useEffect(() => setBusy(busy), [busy]);
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  if (rows === undefined) return null;
  const view = VIEWS.find((one) => one === params.get('view')) ?? null;
  const find = (params.get('find') ?? '').toLowerCase();
  const shown = rows.filter(
    (row) => isIn(row, view) && `${row.number} ${row.title} ${row.path} ${row.recipient}`.toLowerCase().includes(find),
  );
  const selected = shown.find(({ id }) => id === params.get('package')) ?? shown[0];
  const items = shown.map((line): ListItem<PackageRow> => ({ kind: 'line', key: line.id, line }));
  return (
    <Columns
      id="packages"
      labels={['What is shown', 'Packages', 'The selected package']}
      given={
        <div className="flex flex-col gap-4">
          <div>
            <h1 className="text-xl font-semibold">Packages</h1>
            <p className="text-sm text-ink2">
              What left the studio, and what lies on the shelf. Each was read back when it was written, and is read
              again every quarter.
            </p>
          </div>
          <TextInput
            aria-label="Part of a project, a name or a recipient"
            placeholder="Project, name or recipient"
            value={params.get('find') ?? ''}
            onChange={(e) => put({ find: e.target.value })}
          />
          <FilterList label="How they are">
            {VIEWS.map((one) => (
              <FilterRow
                key={one}
                words={VIEW_WORDS[one]}
                of={rows.filter((row) => isIn(row, one)).length}
                chosen={view === one}
                onChoose={() => put({ view: view === one ? null : one, package: null })}
              />
            ))}
          </FilterList>
          <Link to="/packages/check" className="text-sm text-bottle underline">
            Check a package on this computer
          </Link>
        </div>
      }
      plan={
        rows.length === 0 ? (
          <Empty title="Nothing was packed yet">
            A project is packed from its page, under More: for somebody outside, or for the archive.
          </Empty>
        ) : shown.length === 0 ? (
          <Empty title="No package is like that">Take a filter away.</Empty>
        ) : (
          <LineList<PackageRow>
            label="Packages"
            items={items}
            selected={selected?.id ?? null}
            onSelect={(id) => put({ package: id })}
            heightOf={() => 46}
            draw={(row) => <Line row={row} />}
            hasPageKeys
          />
        )
      }
      consequence={selected === undefined ? null : <Selected key={selected.id} row={selected} me={me} />}
      ledger={
        selected === undefined ? (
          <p className="flex-1 text-ink2">Nothing is selected.</p>
        ) : (
          <Foot row={selected} me={me} />
        )
      }
    />
  );
}

function Line({ row }: { row: PackageRow }) {
  return (
    <>
      <span className="min-w-0 flex-1">
        <span className="block truncate font-mono text-sm leading-5 whitespace-pre">{nameOf(row.path)}</span>
        <span className="block truncate text-xs leading-5 text-ink2">
          {row.number} {row.title}
          {row.recipient !== '' && ` · for ${row.recipient}`} · {ago(row.at)}
          {row.by !== '' && ` by ${row.by}`}
        </span>
      </span>
      <span className="shrink-0 text-right text-xs">
        <span className={`block leading-5 ${isWrong(row) ? 'font-semibold text-brick' : 'text-ink2'}`}>
          {stateWords(row)}
        </span>
        <span className="block leading-5 text-ink2">
          {many(row.files, 'file')} · {size(row.size ?? row.bytes)}
        </span>
      </span>
    </>
  );
}

function Selected({ row, me }: { row: PackageRow; me: Me }) {
  const { sha256, leftOut, notPacked, failure, actFailure } = row;
  return (
    <div className="flex flex-col gap-4 text-sm">
      <div className="flex flex-col gap-1">
        <Heading>{PACKAGE_KIND_WORDS[row.kind]}</Heading>
        <p className="flex items-start gap-1">
          <span className="min-w-0 flex-1 font-mono break-all">
            {row.volume}: {row.path}
          </span>
          <CopyButton text={row.path} what="the path" />
        </p>
        <p className="text-ink2">
          Of{' '}
          <Link to={`/projects/${row.project}`} className="text-plum underline">
            {row.number} {row.title}
          </Link>
          {row.purpose === 'archive' ? ', for the archive' : row.recipient === '' ? '' : `, for ${row.recipient}`}
        </p>
        {row.note !== '' && <p className="whitespace-pre-wrap">{row.note}</p>}
      </div>
      {failure !== '' && <p className="text-brick">{failure}</p>}
      {notPacked.length > 0 && (
        <section className="flex flex-col gap-1">
          <Heading>These could not be read</Heading>
          <ul className="font-mono">
            {notPacked.map(({ path, code }) => (
              <li key={path} className="break-all">
                {path}{' '}
                <span className="font-sans text-ink2">{code === 'ECHANGED' ? 'somebody writes to it' : code}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {leftOut.length > 0 && (
        <p className="text-ochre">
          {many(leftOut.length, 'file')} could not be read and {leftOut.length === 1 ? 'is' : 'are'} not in it.
        </p>
      )}
      {sha256 !== null && (
        <div className="flex flex-col gap-1">
          <Heading>Its checksum (sha256)</Heading>
          <p className="flex items-start gap-1">
            <span className="min-w-0 flex-1 font-mono break-all">{sha256}</span>
            <CopyButton text={sha256} what="the checksum" />
          </p>
          <p className="text-ink2">
            {row.provedAt === null ? 'Read back when it was written' : `Read again ${moment(row.provedAt)}`}
            {row.isWhole === false ? '' : `, ${many(row.files, 'file')} of ${size(row.bytes)}`}.
          </p>
        </div>
      )}
      {actFailure !== '' && <p className="text-brick">{actFailure}</p>}
      {row.isWhole === false && <VerdictOf id={row.id} />}
      {row.state === 'done' && row.purpose === 'archive' && me.role === 'coordinator' && <Archived row={row} />}
      {row.state === 'done' && row.kind !== 'bag' && me.role === 'coordinator' && <SendLinks row={row} />}
      {row.state === 'done' && row.kind === 'bag' && (
        <p className="text-ink2">A folder cannot be sent by a link. Pack it as a zip for that.</p>
      )}
    </div>
  );
}

function VerdictOf({ id }: { id: string }) {
  const { data } = packagesApi.useVerdictQuery(id);
  return data == null ? null : <VerdictList verdict={data} />;
}

function Foot({ row, me }: { row: PackageRow; me: Me }) {
  const [stop, stopping] = packagesApi.useStopPackageMutation();
  const [goOn, going] = packagesApi.useGoOnPackageMutation();
  const [drop, dropping] = packagesApi.useDropPackageMutation();
  const [prove, proving] = packagesApi.useProvePackageMutation();
  const failed = stopping.error ?? going.error ?? dropping.error ?? proving.error;
  const mayAct = me.role === 'coordinator';
  const isHalf = row.state === 'waits' || row.state === 'stopped' || row.state === 'failed';
  return (
    <>
      <p className="min-w-0 flex-1" aria-live="polite">
        {failed !== undefined ? (
          <span className="text-brick">{troubleOf(failed)}</span>
        ) : (
          <>
            <strong className="font-semibold">{footWords(row)}</strong>{' '}
            <span className="text-ink2">{isUnderWay(row) ? 'You may leave this page; it goes on.' : ''}</span>
          </>
        )}
      </p>
      {mayAct && isUnderWay(row) && <Button onClick={() => void stop(row.id)}>Stop</Button>}
      {mayAct && isHalf && (
        <Confirm
          trigger={<Button>Take it back…</Button>}
          title="Take this package back"
          act="Take it back"
          run={() => void drop(row.id)}
        >
          What was written of it is removed. The project stays as it is.
        </Confirm>
      )}
      {mayAct && row.state === 'waits' && (
        <Button onClick={() => void goOn({ id: row.id, mayLeaveOut: true })}>
          Pack without {row.notPacked.length === 1 ? 'it' : 'them'}
        </Button>
      )}
      {mayAct && isHalf && (
        <Button variant="main" onClick={() => void goOn({ id: row.id, mayLeaveOut: false })}>
          {row.state === 'waits' ? 'Try again' : 'Go on'}
        </Button>
      )}
      {row.state === 'done' && (
        <Button variant="main" disabled={row.act !== null} onClick={() => void prove(row.id)}>
          {row.act === 'prove' ? 'Being read…' : 'Read it again'}
        </Button>
      )}
    </>
  );
}

function footWords(row: PackageRow): string {
  switch (row.state) {
    case 'waits':
      return `${count(row.notPacked.length)} could not be read. The rest is packed and waits.`;
    case 'stopped':
      return 'Stopped. What is written waits.';
    case 'failed':
      return 'It could not be finished.';
    case 'done':
      return `${row.number} is packed: ${many(row.files, 'file')} of ${size(row.bytes)}.`;
    default:
      return `The package ${stateWords(row)}.`;
  }
}
