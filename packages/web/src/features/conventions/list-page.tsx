/** All conventions: each with its anatomy, whether it can be misread, and where it is used. */

import type { ConventionRow, Me, TemplateRow } from '@nesting/contract';
import { examplePieces, NO_REGISTERS, proveOneWay, type Registers } from '@nesting/core/name';
import { useMemo } from 'react';
import { Link, useNavigate, useOutletContext } from 'react-router';
import { Anatomy } from '../../anatomy/anatomy';
import { troubleOf } from '../../app/api';
import { useAddress } from '../../app/use-address';
import { ago, many } from '../../app/words';
import { Button, Empty, TextInput, Trouble } from '../../ui';
import { compileRule } from '../../workers/compile-rule';
import { houseApi } from '../house/house-api';
import { templatesApi } from '../templates/templates-api';
import { conventionsApi } from './conventions-api';
import { inputOf, leaningOf } from './rules';

export function ConventionsPage() {
  const me = useOutletContext<Me>();
  const { data, isError, error, refetch } = conventionsApi.useConventionsQuery();
  const { data: templates = [] } = templatesApi.useTemplatesQuery();
  const { data: registers = NO_REGISTERS } = houseApi.useRegistersQuery();
  const [params, put] = useAddress();
  const [create, { error: refused }] = conventionsApi.useNewConventionMutation();
  const go = useNavigate();
  const sought = (params.get('find') ?? '').toLowerCase();
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  if (data === undefined) return null;
  const mayWrite = me.role === 'coordinator';
  const make = async () => {
    const made = await create({
      name: 'New convention',
      pattern: '{number}_{title:kebab}_v{version:000}.{ext}',
    }).unwrap();
    await go(`/conventions/${made.id}`);
  };
  const shown = data.filter((r) =>
    `${r.name} ${r.id} ${(r.draft?.convention ?? r.convention)?.pattern} ${r.usedIn.map((u) => u.name).join(' ')}`
      .toLowerCase()
      .includes(sought),
  );
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled by keyboard
    <section tabIndex={0} aria-label="All conventions" className="min-h-0 flex-1 overflow-auto px-6 py-5">
      <div className="flex flex-wrap items-center gap-3 pb-4">
        <h1 className="mr-auto text-xl font-semibold">Conventions</h1>
        <TextInput
          aria-label="Find a convention"
          placeholder="Find a convention"
          value={params.get('find') ?? ''}
          onChange={(e) => put({ find: e.target.value })}
          className="w-60"
        />
        {mayWrite && (
          <Link
            to="/conventions/learn"
            className="flex h-9 items-center rounded-tray border border-rule bg-sheet px-3.5 text-sm font-semibold hover:border-ink"
          >
            Learn from names…
          </Link>
        )}
        {mayWrite && (
          <Button variant="main" onClick={() => void make()}>
            New convention
          </Button>
        )}
      </div>
      {refused && <Trouble message={troubleOf(refused)} />}
      {data.length === 0 && (
        <Empty title="No convention yet">
          A convention says how files are named.{' '}
          {mayWrite && (
            <Link to="/conventions/learn" className="text-bottle underline">
              Learn one from names that are there
            </Link>
          )}
        </Empty>
      )}
      <ul className="flex flex-col">
        {shown.map((row) => (
          <Row key={row.id} row={row} templates={templates} registers={registers} />
        ))}
      </ul>
    </section>
  );
}

interface RowProps {
  readonly row: ConventionRow;
  readonly templates: readonly TemplateRow[];
  readonly registers: Registers;
}

function Row({ row, templates, registers }: RowProps) {
  const convention = row.draft?.convention ?? row.convention;
  const compiled = useMemo(
    () => (convention === null ? null : compileRule(inputOf(convention, leaningOf(row, templates, registers), null))),
    [convention, row, templates, registers],
  );
  const example = useMemo(
    () =>
      compiled === null ? [] : examplePieces(compiled, {}).map((p) => ({ text: p.text, label: p.field, ok: true })),
    [compiled],
  );
  const misread = useMemo(() => {
    const verdict = compiled === null ? null : proveOneWay(compiled);
    return verdict === 'one-way' ? null : verdict;
  }, [compiled]);
  const state =
    row.edition === null
      ? 'draft, never in force'
      : row.draft
        ? `edition ${row.edition}, and a draft changed ${ago(row.draft.changedAt)}`
        : `edition ${row.edition}`;
  return (
    <li className="grid grid-cols-[14rem_1fr_13rem] items-start gap-4 border-t border-line py-3 max-[899px]:grid-cols-1">
      <div>
        <Link to={`/conventions/${encodeURIComponent(row.id)}`} className="font-semibold hover:underline">
          {row.name}
        </Link>
        <p className={`text-xs ${row.draft ? 'font-semibold text-plum' : 'text-ink2'}`}>{state}</p>
      </div>
      <div className="min-w-0">
        {compiled === null ? (
          <span className="font-mono break-all">{convention?.pattern}</span>
        ) : (
          <Anatomy parts={example} />
        )}
        {misread && (
          <p className="pt-1 text-xs text-ochre">
            Some names can be misread, such as <span className="font-mono">{misread.name}</span>.
          </p>
        )}
        {compiled === null && <p className="text-xs text-brick">This pattern cannot be used as it stands.</p>}
      </div>
      <p className="text-sm text-note">
        {row.usedIn.length === 0 ? 'in no template yet' : row.usedIn.map((u) => u.name).join(', ')}
        <span className="block text-xs text-ink2">
          {row.projects > 0 ? many(row.projects, 'running project') : 'no running project'}
        </span>
      </p>
    </li>
  );
}
