/** What programs left on this computer: where, how much, since when; set aside, put back, and freed. */
import type { Me } from '@nesting/contract';
import type { Registers } from '@nesting/core/name';
import { useMemo } from 'react';
import { useOutletContext } from 'react-router';
import { troubleOf } from '../../../app/api';
import { usePageTitle } from '../../../app/use-page-title';
import { ago, count, many, size } from '../../../app/words';
import { FilterList, FilterRow } from '../../../changes/filter-list';
import { LineList, type ListItem } from '../../../changes/line-list';
import { Columns } from '../../../columns/columns';
import { Button, Choose, Empty, Refused, Trouble } from '../../../ui';
import type { LeftRow } from '../../../workers/here-clearing';
import { houseApi } from '../../house/house-api';
import { ChecksNav } from '../checks-nav';
import { KeptHereList } from './kept-here-list';
import { SelectedLeft } from './selected-left';
import { AGES, type Age, type LeftWork, useLeft } from './use-left';

export function LeftPage() {
  const registers = houseApi.useRegistersQuery();
  if (registers.isError) return <Trouble message={troubleOf(registers.error)} again={() => void registers.refetch()} />;
  return registers.data === undefined ? null : <Left registers={registers.data} />;
}

const AGE_WORDS: Readonly<Record<Age, string>> = {
  any: 'However old',
  week: 'Not written for 7 days',
  month: 'Not written for 30 days',
  year: 'Not written for a year',
};

function Left({ registers }: { registers: Registers }) {
  const me = useOutletContext<Me>();
  const work = useLeft(registers.families, me.initials);
  const { looked, left, params, put } = work;
  usePageTitle('What programs left on this computer');
  const selected = left.rows.find((r) => r.path === params.get('line')) ?? left.rows[0] ?? null;
  return (
    <Columns
      id="checks"
      labels={['Checks', 'What programs left', 'The selected folder']}
      given={
        <div className="flex flex-col gap-4">
          <ChecksNav />
          <div className="flex flex-col gap-2">
            <h1 className="text-xl font-semibold">Left by programs here</h1>
            <p className="text-sm text-ink2">
              What programs made along the way in a folder of this computer, by the house’s families of files. It is
              looked through in the browser, and nothing of it is sent.
            </p>
            <ChooseFolder work={work} />
          </div>
          {looked !== null && <Narrow work={work} />}
          {looked !== null && <CutShort work={work} />}
          {looked !== null && work.kept.length > 0 && <KeptHereList work={work} folder={looked.folder.name} />}
        </div>
      }
      plan={<Folders work={work} onSelect={(line) => put({ line })} selected={params.get('line')} />}
      consequence={selected && <SelectedLeft key={selected.path} work={work} row={selected} />}
      ledger={<Ledger work={work} />}
    />
  );
}

function ChooseFolder({ work: { choose, looked, running } }: { work: LeftWork }) {
  if (globalThis.showDirectoryPicker === undefined)
    return (
      <p className="text-sm">
        This browser does not let pages work in folders. It takes another browser, over HTTPS or on this computer.
      </p>
    );
  return (
    <Button
      className="self-start"
      variant={looked === null ? 'main' : 'plain'}
      disabled={running !== null}
      onClick={() => void choose()}
    >
      {looked === null ? 'Choose a folder…' : 'Another folder…'}
    </Button>
  );
}

function Narrow({ work }: { work: LeftWork }) {
  const { left, age, put } = work;
  return (
    <>
      <Choose
        label="When it was written"
        value={age}
        options={AGES.map((value) => ({ value, label: AGE_WORDS[value] }))}
        onChange={(value) => put({ age: value === 'any' ? null : value, line: null })}
      />
      {left.forms.length > 0 && <Forms work={work} />}
    </>
  );
}

function Forms({ work: { left, form, put } }: { work: LeftWork }) {
  return (
    <FilterList label="What it is">
      {left.forms.map((one) => (
        <FilterRow
          key={one.form}
          words={one.form === '' ? 'left by the system' : `.${one.form}`}
          note={size(one.bytes)}
          of={one.files}
          chosen={form === one.form}
          onChoose={() => put({ form: form === one.form ? null : one.form, line: null })}
        />
      ))}
    </FilterList>
  );
}

/** A change of this folder was cut short: the page was closed, or the browser’s permission went away. */
function CutShort({ work: { unended, running, settle } }: { work: LeftWork }) {
  if (unended === null) return null;
  return (
    <section
      className="flex flex-col gap-2 rounded-tray border border-brick bg-sheet p-3 text-sm"
      aria-label="Cut short"
    >
      <p>
        A change of this folder was cut short after {count(unended.done)} of {many(unended.all, 'step')}. Nothing is
        lost.
      </p>
      <div className="flex gap-2">
        <Button disabled={running !== null} onClick={() => void settle('finish')}>
          Go on with it
        </Button>
        {!unended.isBack && (
          <Button disabled={running !== null} onClick={() => void settle('take-back')}>
            Take it back
          </Button>
        )}
      </div>
    </section>
  );
}

interface FoldersProps {
  readonly work: LeftWork;
  readonly selected: string | null;
  readonly onSelect: (path: string) => void;
}

function Folders({ work, selected, onSelect }: FoldersProps) {
  const { left, looked, running, chosen, setChosen } = work;
  const items = useMemo(
    () => left.rows.map((line): ListItem<LeftRow> => ({ kind: 'line', key: line.path, line })),
    [left.rows],
  );
  if (looked === null)
    return (
      <Empty title={running ?? 'Choose a folder to look through'}>
        For example the place where a program keeps its caches and previews. Nothing is changed by looking.
      </Empty>
    );
  if (left.rows.length === 0)
    return (
      <Empty title="Nothing of that is here">
        {many(looked.files, 'file')} looked at. What was written in the last ten minutes is left out: it may be in use.
      </Empty>
    );
  const toggle = ({ path }: LeftRow) =>
    setChosen(new Set(chosen.has(path) ? [...chosen].filter((p) => p !== path) : [...chosen, path]));
  return (
    <LineList
      label="Folders"
      items={items}
      selected={selected}
      onSelect={onSelect}
      height={28}
      draw={(row) => <Folder row={row} />}
      isChosen={({ path }) => chosen.has(path)}
      onChoose={toggle}
    />
  );
}

function Folder({ row: { path, files, bytes, newest } }: { row: LeftRow }) {
  return (
    <>
      <span className="min-w-0 flex-1 truncate font-mono text-sm" title={path}>
        {path || 'the folder itself'}
      </span>
      <span className="w-24 shrink-0 text-right text-xs text-ink2">{ago(new Date(newest).toISOString())}</span>
      <span className="w-20 shrink-0 text-right text-xs text-ink2">{many(files, 'file')}</span>
      <span className="w-20 shrink-0 text-right text-xs">{size(bytes)}</span>
    </>
  );
}

function Ledger({ work }: { work: LeftWork }) {
  const { left, looked, chosen, setChosen, running, trouble, unended, clear } = work;
  const meant = left.rows.filter(({ path }) => chosen.has(path));
  const files = meant.reduce((n, r) => n + r.files, 0);
  const bytes = meant.reduce((n, r) => n + r.bytes, 0);
  const isAll = left.rows.length > 0 && meant.length === left.rows.length;
  return (
    <>
      <div className="min-w-0 flex-1" aria-live="polite">
        {running !== null ? (
          <p>{running}</p>
        ) : trouble !== null ? (
          <Refused words={trouble} />
        ) : (
          <p>
            <strong className="font-semibold">
              {files === 0 ? 'Nothing is chosen yet.' : `Sets aside ${many(files, 'file')} of ${size(bytes)}.`}
            </strong>{' '}
            <span className="text-ink2">
              {files === 0
                ? looked === null || left.rows.length === 0
                  ? ''
                  : restWords(left.rows, looked.unseen)
                : 'They stay in this folder’s .nesting until their space is freed, and can be put back until then.'}
            </span>
          </p>
        )}
      </div>
      {left.rows.length > 0 && (
        <Button
          disabled={running !== null}
          onClick={() => setChosen(isAll ? new Set() : new Set(left.rows.map(({ path }) => path)))}
        >
          {isAll ? 'Choose none' : `Choose all ${count(left.rows.length)}`}
        </Button>
      )}
      <Button
        variant="main"
        disabled={files === 0 || running !== null || unended !== null}
        onClick={() => void clear()}
      >
        Set them aside
      </Button>
    </>
  );
}

function restWords(rows: readonly LeftRow[], unseen: readonly string[]): string {
  const all = `${size(rows.reduce((n, r) => n + r.bytes, 0))} in ${many(rows.length, 'folder')}.`;
  return unseen.length === 0 ? all : `${all} ${many(unseen.length, 'place')} could not be seen: ${unseen[0]}`;
}
