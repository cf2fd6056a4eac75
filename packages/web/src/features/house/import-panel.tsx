/**
 * A table before it is taken in: each line new, changed, the same or refused, with why; the good ones go in, all of
 * them or nothing.
 */

import type { EditableList, ListEntryRow } from '@nesting/contract';
import { COLUMNS, type ImportRow } from '@nesting/core/lists';
import { wordsFor } from '@nesting/core/words';
import { useMemo, useState } from 'react';
import { troubleOf } from '../../app/api';
import { count, many, size } from '../../app/words';
import { Grid, type GridColumn } from '../../grid/grid';
import { Button, FileButton, Radios, Trouble } from '../../ui';
import { MOST_TABLE_BYTES } from '../../workers/table';
import { type Planned, planTable } from '../../workers/tables';
import { houseApi } from './house-api';

const STATES = ['new', 'changed', 'refused', 'same'] as const;
const STATE_WORDS: Readonly<Record<ImportRow['state'], string>> = {
  new: 'new',
  changed: 'changed',
  refused: 'refused',
  same: 'the same',
};
const SEPARATOR_WORDS: Readonly<Record<string, string>> = {
  ',': 'commas',
  ';': 'semicolons',
  '\t': 'tabs',
  '|': 'upright strokes',
};

interface Props {
  readonly list: EditableList;
  readonly entries: readonly ListEntryRow[];
  readonly onDone: (words: string) => void;
}

export function ImportPanel({ list, entries, onDone }: Props) {
  const [planned, setPlanned] = useState<PlannedTable | null>(null);
  const [trouble, setTrouble] = useState('');
  const [take, taking] = houseApi.useImportEntriesMutation();
  const give = async (file: File) => {
    setTrouble('');
    if (file.size > MOST_TABLE_BYTES)
      return setTrouble(
        `${file.name} has ${size(file.size)}: ${size(MOST_TABLE_BYTES)} are looked at. Nothing was taken in.`,
      );
    const answer = await planTable(list, entries, file);
    if (answer === null) return setTrouble(`${file.name} is no table that can be read. Nothing was taken in.`);
    setPlanned({ name: file.name, answer });
  };
  const plan = planned?.answer?.plan ?? null;
  const good = (plan?.rows ?? []).filter(isGood);
  const go = async () => {
    const table = planned?.answer?.table.cells;
    if (table === undefined) return;
    const done = await take({ list, table, lines: good.map((r) => r.line) });
    if (done.data) onDone(`${count(done.data.added)} added, ${count(done.data.changed)} changed.`);
  };
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-3">
      <h1 className="text-xl font-semibold">Take in a table</h1>
      <p className="max-w-prose text-sm text-ink2">
        A CSV file whose first line names the columns:{' '}
        {COLUMNS[list].map((c) => c.label + (c.required ? '' : ' (may be missing)')).join(', ')}. Commas, semicolons or
        tabs; what is not in the table stays as it is.
      </p>
      <ChosenTable planned={planned} onFile={(file) => void give(file)} />
      {(trouble || taking.isError) && <Trouble message={trouble || troubleOf(taking.error)} />}
      {plan?.faults.map((f) => (
        <Trouble
          key={f.code + String(f.params.column)}
          message={`${wordsFor(f.code, f.params)} Nothing was taken in.`}
        />
      ))}
      {plan && plan.faults.length === 0 && (
        <PlannedLines
          key={planned?.name}
          list={list}
          header={planned?.answer?.table.cells[0] ?? []}
          plan={plan}
          isTaking={taking.isLoading}
          onTake={() => void go()}
        />
      )}
    </div>
  );
}

/** Columns the table has are shown, after what each line is. */
function columnsOf(list: EditableList, header: readonly string[]): GridColumn<ImportRow>[] {
  const given = new Set(header.map((h) => h.trim().toLowerCase()));
  return [
    { id: 'line', header: 'Line', width: '3.5rem', cell: (r) => <span className="font-mono text-note">{r.line}</span> },
    {
      id: 'state',
      header: 'It is',
      width: '5.5rem',
      cell: (r) => (
        <span
          className={
            r.state === 'refused' ? 'font-semibold text-brick' : r.state === 'same' ? 'text-ink2' : 'text-bottle'
          }
        >
          {STATE_WORDS[r.state]}
        </span>
      ),
    },
    { id: 'why', header: 'Why', width: 'minmax(9rem,2fr)', cell: (r) => <span title={wordsOf(r)}>{wordsOf(r)}</span> },
    ...COLUMNS[list]
      .filter((c) => given.has(c.key) || given.has(c.label.toLowerCase()))
      .map(
        (c): GridColumn<ImportRow> => ({
          id: c.key,
          header: c.label,
          width: c.required ? 'minmax(5rem,1fr)' : 'minmax(4rem,1fr)',
          cell: (r) => (
            <span title={r.cells[c.key]} className={c.key in r.was ? 'text-plum' : ''}>
              {r.cells[c.key]}
            </span>
          ),
        }),
      ),
  ];
}

function wordsOf(r: ImportRow): string {
  if (r.faults.length > 0) return r.faults.map((f) => wordsFor(f.code, f.params)).join(' ');
  return Object.entries(r.was)
    .map(([key, was]) => `${key} was ${was || 'empty'}`)
    .join('; ');
}

interface PlannedTable {
  readonly name: string;
  readonly answer: Planned;
}

function ChosenTable({ planned, onFile }: { planned: PlannedTable | null; onFile: (file: File) => void }) {
  const plan = planned?.answer?.plan ?? null;
  return (
    <div className="flex flex-wrap items-center gap-3">
      <FileButton label="A table" accept=".csv,.tsv,.txt,text/csv" onFiles={([file]) => onFile(file)}>
        {planned === null ? 'Choose a file…' : 'Choose another file…'}
      </FileButton>
      {planned && (
        <span className="text-sm text-ink2">
          <span className="font-mono">{planned.name}</span>, {planned.answer?.table.encoding},{' '}
          {SEPARATOR_WORDS[planned.answer?.table.separator ?? ','] ?? ''}
          {plan && plan.unknown.length > 0 ? `; left out: ${plan.unknown.join(', ')}` : ''}
        </span>
      )}
    </div>
  );
}

type Plan = NonNullable<NonNullable<Planned>['plan']>;

interface LinesProps {
  readonly list: EditableList;
  /** What the columns of the table are called. */
  readonly header: readonly string[];
  readonly plan: Plan;
  readonly isTaking: boolean;
  readonly onTake: () => void;
}

function PlannedLines({ list, header, plan, isTaking, onTake }: LinesProps) {
  const [show, setShow] = useState<'all' | ImportRow['state']>('all');
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const rows = useMemo(() => plan.rows.filter((r) => show === 'all' || r.state === show), [plan, show]);
  const by = (state: ImportRow['state']) => plan.rows.filter((r) => r.state === state).length;
  const columns = useMemo(() => columnsOf(list, header), [list, header]);
  const good = plan.rows.filter(isGood);
  const line = rows.find((r) => String(r.line) === chosen.at(-1));
  return (
    <>
      <div className="flex flex-wrap items-center gap-3">
        <Radios
          label="Lines that are shown"
          value={show}
          onChange={setShow}
          options={[
            { value: 'all', label: `all ${count(plan.rows.length)}` },
            ...STATES.map((s) => ({ value: s, label: `${count(by(s))} ${STATE_WORDS[s]}` })),
          ]}
        />
        <Button variant="main" disabled={good.length === 0 || isTaking} onClick={() => onTake()}>
          {isTaking ? 'Taking them in…' : `Take in ${many(good.length, 'line')}`}
        </Button>
      </div>
      <Grid
        id={`import-${list}`}
        label="Lines of the table"
        columns={columns}
        rows={rows}
        keyOf={(r) => String(r.line)}
        chosen={chosen}
        onChoose={setChosen}
        empty="No such line."
      />
      {line && wordsOf(line) !== '' && (
        <p role="status" className="text-sm">
          <strong className="font-semibold">Line {line.line}:</strong> {wordsOf(line)}
        </p>
      )}
    </>
  );
}

const isGood = (row: ImportRow): boolean => row.state === 'new' || row.state === 'changed';
