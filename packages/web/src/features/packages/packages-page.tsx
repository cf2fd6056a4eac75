/** All packages: of which project and for whom, how each is, and what can be done with it. */
import type { Me, PackageRow } from '@nesting/contract';
import { nameOf } from '@nesting/core/listing';
import { useEffect, useState } from 'react';
import { Link, useOutletContext } from 'react-router';
import { troubleOf } from '../../app/api';
import { useAddress } from '../../app/use-address';
import { usePageTitle } from '../../app/use-page-title';
import { ago, many, size } from '../../app/words';
import { FilterList, FilterRow } from '../../changes/filter-list';
import { LineList, type ListItem } from '../../changes/line-list';
import { Columns } from '../../columns/columns';
import { Empty, TextInput, Trouble } from '../../ui';
import { PackageLedger } from './package-ledger';
import { PackageSelected } from './package-selected';
import { isBusy, isWrong, stateWords } from './package-words';
import { packagesApi } from './packages-api';

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

/** Looked at often while something goes on. */
function usePackageRows() {
  const [isBusyNow, setBusy] = useState(true);
  const found = packagesApi.usePackagesQuery(ALL, { pollingInterval: isBusyNow ? SOON : LATER });
  const busy = found.data?.some(isBusy) ?? true;
  useEffect(() => setBusy(busy), [busy]);
  return found;
}

const viewOf = (params: URLSearchParams): View | null => VIEWS.find((one) => one === params.get('view')) ?? null;

export function PackagesPage() {
  usePageTitle('Packages');
  const me = useOutletContext<Me>();
  const [params, put] = useAddress();
  const { data: rows, isError, error, refetch } = usePackageRows();
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  if (rows === undefined) return null;
  const find = (params.get('find') ?? '').toLowerCase();
  const textOf = ({ number, title, path, recipient }: PackageRow) => `${number} ${title} ${path} ${recipient}`;
  const shown = rows.filter((row) => isIn(row, viewOf(params)) && textOf(row).toLowerCase().includes(find));
  const selected = shown.find(({ id }) => id === params.get('package')) ?? shown[0];
  return (
    <Columns
      id="packages"
      labels={['What is shown', 'Packages', 'The selected package']}
      given={<Given rows={rows} params={params} put={put} />}
      plan={<Listed isAny={rows.length > 0} shown={shown} selected={selected?.id ?? null} put={put} />}
      consequence={selected === undefined ? null : <PackageSelected key={selected.id} row={selected} me={me} />}
      ledger={
        selected === undefined ? (
          <p className="flex-1 text-ink2">Nothing is selected.</p>
        ) : (
          <PackageLedger row={selected} me={me} />
        )
      }
    />
  );
}

interface GivenProps {
  readonly rows: readonly PackageRow[];
  readonly params: URLSearchParams;
  readonly put: ReturnType<typeof useAddress>[1];
}

function Given({ rows, params, put }: GivenProps) {
  const view = viewOf(params);
  return (
    <div className="flex flex-col gap-4">
      <div>
        <h1 className="text-xl font-semibold">Packages</h1>
        <p className="text-sm text-ink2">
          What left the studio, and what lies on the shelf. Each was read back when it was written, and is read again
          every quarter.
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
  );
}

interface ListedProps {
  /** Any at all, whatever is shown. */
  readonly isAny: boolean;
  readonly shown: readonly PackageRow[];
  readonly selected: string | null;
  readonly put: GivenProps['put'];
}

function Listed({ isAny, shown, selected, put }: ListedProps) {
  if (!isAny)
    return (
      <Empty title="Nothing was packed yet">
        A project is packed from its page, under More: for somebody outside, or for the archive.
      </Empty>
    );
  if (shown.length === 0) return <Empty title="No package is like that">Take a filter away.</Empty>;
  return (
    <LineList<PackageRow>
      label="Packages"
      items={shown.map((line): ListItem<PackageRow> => ({ kind: 'line', key: line.id, line }))}
      selected={selected}
      onSelect={(id) => put({ package: id })}
      height={46}
      draw={(row) => <Line row={row} />}
      hasPageKeys
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
