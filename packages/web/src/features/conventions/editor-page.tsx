/**
 * One convention: its parts at left, the pattern with its proof and tried names in the middle, the selected part and
 * the impact at right.
 */

import type { ConventionRow, Me, ProjectRow } from '@nesting/contract';
import { type Field, NO_REGISTERS } from '@nesting/core/name';
import type { Convention } from '@nesting/core/template';
import { useDeferredValue, useEffect, useMemo, useState } from 'react';
import { Link, useOutletContext, useParams } from 'react-router';
import { troubleOf } from '../../app/api';
import { useAddress } from '../../app/use-address';
import { useDebounced } from '../../app/use-debounced';
import { usePageTitle } from '../../app/use-page-title';
import { many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Empty, Trouble } from '../../ui';
import type { RuleInput } from '../../workers/compile-rule';
import { houseApi } from '../house/house-api';
import { projectsApi } from '../projects/projects-api';
import { templatesApi } from '../templates/templates-api';
import { ConventionLedger, isSameConvention } from './convention-ledger';
import { conventionsApi } from './conventions-api';
import { rowFor, withPattern } from './edit';
import { Examples, failingOf, keptAs } from './examples';
import { GivenConvention, type WriteConvention } from './given-convention';
import { NameImpact } from './impact';
import { PartForm } from './part-form';
import { type CureTaken, Judged, PatternField } from './pattern-field';
import { PatternRow } from './pattern-row';
import { contextOf, inputOf, type Leaning, leaningOf } from './rules';
import { TryNames } from './try-names';
import { useConventionDraft } from './use-convention-draft';
import { type Rule, useRule } from './use-rule';

export function EditorPage() {
  const { id = '' } = useParams();
  const { data: rows, isError, error, refetch } = conventionsApi.useConventionsQuery();
  const row = rows?.find((r) => r.id === id);
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  if (rows === undefined) return null;
  if (row === undefined)
    return (
      <Empty title="There is no such convention">
        <Link to="/conventions" className="text-bottle underline">
          All conventions
        </Link>
      </Empty>
    );
  return <Editor key={row.id} row={row} />;
}

function Editor({ row }: { row: ConventionRow }) {
  usePageTitle(row.name);
  const me = useOutletContext<Me>();
  const mayWrite = me.role === 'coordinator';
  const { data: templates = [] } = templatesApi.useTemplatesQuery();
  const { data: studio = NO_REGISTERS } = houseApi.useRegistersQuery();
  const { data: projects = [] } = projectsApi.useSomeProjectsQuery('');
  const [params, put] = useAddress();
  const draft = useConventionDraft(row, mayWrite);
  const { editing, change } = draft;
  const convention = editing?.now ?? row.draft?.convention ?? row.convention;
  const project = projects.find((p) => p.number === params.get('as')) ?? null;
  const leaning = useMemo(() => leaningOf(row, templates, studio), [row, templates, studio]);
  const latest = useMemo(
    () => (convention === null ? null : inputOf(convention, leaning, project)),
    [convention, leaning, project],
  );
  const input = useDeferredValue(latest);
  const rule = useRule(input);
  const chosen = params.get('part') === null ? null : Number(params.get('part'));
  if (convention === null) return null;
  const write = mayWrite ? change : null;
  return (
    <Columns
      id="convention"
      labels={['The convention', 'Its pattern and names', 'The selected part, and the impact']}
      given={
        <GivenConvention
          row={row}
          convention={convention}
          leaning={leaning}
          rule={rule}
          chosen={chosen}
          onChoose={(part) => put({ part: String(part) })}
          write={write}
        />
      }
      plan={
        <PatternPlan
          row={row}
          convention={convention}
          leaning={leaning}
          rule={rule}
          input={input}
          project={project}
          projects={projects}
          chosen={chosen}
          write={write}
        />
      }
      consequence={
        <Consequence
          row={row}
          convention={convention}
          leaning={leaning}
          chosen={chosen}
          usable={rule.compiled !== null}
          write={write}
        />
      }
      ledger={
        <ConventionLedger
          row={row}
          convention={convention}
          draft={draft}
          mayWrite={mayWrite}
          failing={failingOf(convention, rule.compiled)}
          usable={rule.compiled !== null}
        />
      }
    />
  );
}

/** Names in the address where they are few, so that they can be linked to; more of them stay in this window. */
const MOST_IN_ADDRESS = 1500;

function useTriedNames(inAddress: string, put: (text: string) => void): { text: string; set: (text: string) => void } {
  const [text, setText] = useState(inAddress);
  useEffect(
    () => setText((before) => (before.length > MOST_IN_ADDRESS && inAddress === '' ? before : inAddress)),
    [inAddress],
  );
  return {
    text,
    set: (next) => {
      setText(next);
      const shown = next.length > MOST_IN_ADDRESS ? '' : next;
      if (shown !== inAddress) put(shown);
    },
  };
}

/** Values a field is known to take, for a list that would cure a pattern. */
const knownOf = (convention: Convention, leaning: Leaning): Readonly<Record<string, readonly string[]>> =>
  Object.fromEntries(
    [...(convention.fields ?? []), ...leaning.fields].flatMap((f) =>
      f.type === 'choice' && f.options ? [[f.key, f.options.map((o) => o.code)]] : [],
    ),
  );

function WouldDo({ row, convention, usable }: { row: ConventionRow; convention: Convention; usable: boolean }) {
  const late = useDebounced(convention, 600);
  const changedSince = !isSameConvention(late, row.convention);
  const { data, isFetching, error } = conventionsApi.useConventionImpactQuery(late, { skip: !usable || !changedSince });
  if (!changedSince)
    return (
      <p className="text-sm text-ink2">
        This is what is in force{row.projects > 0 ? ` in ${many(row.projects, 'running project')}` : ''}.
      </p>
    );
  return (
    <NameImpact
      impact={usable ? (data ?? null) : null}
      edition={(row.edition ?? 0) + 1}
      waiting={isFetching}
      trouble={error ? troubleOf(error) : null}
    />
  );
}

interface PatternPlanProps {
  readonly row: ConventionRow;
  readonly convention: Convention;
  readonly leaning: Leaning;
  readonly rule: Rule;
  readonly input: RuleInput | null;
  /** Whose values the names are tried with. */
  readonly project: ProjectRow | null;
  readonly projects: readonly ProjectRow[];
  readonly chosen: number | null;
  readonly write: WriteConvention | null;
}

function PatternPlan({ row, convention, leaning, rule, input, project, projects, chosen, write }: PatternPlanProps) {
  const [params, put] = useAddress();
  const parts = useMemo(() => rowFor(convention.pattern), [convention.pattern]);
  const context = useMemo(() => contextOf(leaning, project), [leaning, project]);
  const names = useTriedNames(params.get('names') ?? '', (text) => put({ names: text }));
  const users = projects.filter((p) => row.usedIn.some((u) => u.template === p.template.id));
  const [askNames] = conventionsApi.useLazyProjectNamesQuery();
  const take = async (from: ProjectRow) => {
    const found = await askNames({ project: from.id, convention: row.id }).unwrap();
    names.set(found.names.join('\n'));
    put({ as: from.number });
  };
  const isOwn = (field: Field) => (convention.fields ?? []).includes(field) || !leaning.fields.includes(field);
  const cure: CureTaken = ({ pattern, fields }) =>
    write?.({ ...convention, pattern, fields: fields.filter(isOwn) }, null);
  return (
    <section
      // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled by keyboard
      tabIndex={0}
      aria-label="Pattern"
      className="flex min-h-0 flex-1 flex-col gap-4 overflow-auto"
    >
      {parts && (
        <PatternRow
          row={parts}
          example={rule.example}
          selected={chosen}
          onSelect={(part) => put({ part: String(part) })}
          onMove={write && ((next) => write(withPattern(convention, next), null))}
        />
      )}
      <PatternField
        convention={convention}
        fault={rule.fault}
        onChange={write && ((pattern) => write({ ...convention, pattern }, 'pattern'))}
      />
      <Judged input={input} rule={rule} known={knownOf(convention, leaning)} onCure={write && cure} />
      <Examples convention={convention} compiled={rule.compiled} onChange={write && ((next) => write(next, null))} />
      <TryNames
        input={input}
        compiled={rule.compiled}
        context={context}
        names={names.text}
        onNames={names.set}
        projects={users}
        project={project}
        onProject={(number) => put({ as: number })}
        onTake={users.length > 0 ? (p) => void take(p) : null}
        onKeep={write && ((name, good) => write(keptAs(convention, name, good), null))}
      />
    </section>
  );
}

interface ConsequenceProps {
  readonly row: ConventionRow;
  readonly convention: Convention;
  readonly leaning: Leaning;
  readonly chosen: number | null;
  readonly usable: boolean;
  readonly write: WriteConvention | null;
}

/** The selected part, and what the convention would do where it is used. */
function Consequence({ row, convention, leaning, chosen, usable, write }: ConsequenceProps) {
  const item = chosen === null ? undefined : rowFor(convention.pattern)?.items[chosen];
  return (
    <div className="flex flex-col gap-6">
      {item && chosen !== null ? (
        <PartForm
          convention={convention}
          index={chosen}
          item={item}
          leaned={leaning.fields}
          from={leaning.from}
          readOnly={write === null}
          onChange={(next, what) => write?.(next, what)}
        />
      ) : (
        <p className="text-sm text-ink2">Choose a part to see what it may hold{write ? ', and to change it' : ''}.</p>
      )}
      {write && <WouldDo row={row} convention={convention} usable={usable} />}
    </div>
  );
}
