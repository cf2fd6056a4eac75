/**
 * One convention: its parts at left, the pattern with its proof and tried names in the middle, the selected part and
 * the impact at right.
 */

import type { ConventionRow, Me, ProjectRow } from '@nesting/contract';
import { compileConvention, examplePieces, expectationOf, NO_REGISTERS, parsePattern } from '@nesting/core/name';
import type { Convention } from '@nesting/core/template';
import { expectationWords, wordsFor } from '@nesting/core/words';
import { useDeferredValue, useEffect, useId, useMemo, useState } from 'react';
import { Link, useNavigate, useOutletContext, useParams } from 'react-router';
import { troubleOf } from '../../app/api';
import { DraftConflict } from '../../app/draft-conflict';
import { useAppDispatch } from '../../app/store';
import { useAddress } from '../../app/use-address';
import { useDebounced } from '../../app/use-debounced';
import { usePageTitle } from '../../app/use-page-title';
import { many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Button, Confirm, CopyButton, Empty, Heading, Labelled, Menu, TextInput, Trouble } from '../../ui';
import { compileRule, type RuleInput } from '../../workers/compile-rule';
import { useProof } from '../../workers/rules';
import { houseApi } from '../house/house-api';
import { projectsApi } from '../projects/projects-api';
import { templatesApi } from '../templates/templates-api';
import { conventionsApi } from './conventions-api';
import { addPart, PART_KINDS, type PartKind, rowFor, withPattern } from './edit';
import { conventionDrafts } from './editor-slice';
import { Examples, failingOf, keptAs } from './examples';
import { NameImpact } from './impact';
import { PartForm } from './part-form';
import { PatternRow } from './pattern-row';
import { contextOf, inputOf, type Leaning, leaningOf } from './rules';
import { TryNames } from './try-names';
import { useConventionDraft } from './use-convention-draft';
import { Verdict } from './verdict';

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
  const context = useMemo(() => contextOf(leaning, project), [leaning, project]);
  const names = useTriedNames(params.get('names') ?? '', (text) => put({ names: text }));
  const parts = useMemo(() => (convention === null ? null : rowFor(convention.pattern)), [convention]);
  const chosen = params.get('part') === null ? null : Number(params.get('part'));
  const item = chosen === null ? undefined : parts?.items[chosen];
  const users = projects.filter((p) => row.usedIn.some((u) => u.template === p.template.id));
  const [askNames] = conventionsApi.useLazyProjectNamesQuery();
  if (convention === null) return null;
  const write = mayWrite ? change : null;
  const take = async (from: ProjectRow) => {
    const found = await askNames({ project: from.id, convention: row.id }).unwrap();
    names.set(found.names.join('\n'));
    put({ as: from.number });
  };
  return (
    <Columns
      id="convention"
      labels={['The convention', 'Its pattern and names', 'The selected part, and the impact']}
      given={
        <Given
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
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled by keyboard
        <section tabIndex={0} aria-label="Pattern" className="flex min-h-0 flex-1 flex-col gap-4 overflow-auto">
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
          <Judged
            input={input}
            rule={rule}
            known={knownOf(convention, leaning)}
            onCure={
              write &&
              ((cure) =>
                write(
                  {
                    ...convention,
                    pattern: cure.pattern,
                    fields: cure.fields.filter(
                      (f) => (convention.fields ?? []).includes(f) || !leaning.fields.includes(f),
                    ),
                  },
                  null,
                ))
            }
          />
          <Examples
            convention={convention}
            compiled={rule.compiled}
            onChange={write && ((next) => write(next, null))}
          />
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
      }
      consequence={
        <div className="flex flex-col gap-6">
          {item && chosen !== null ? (
            <PartForm
              convention={convention}
              index={chosen}
              item={item}
              leaned={leaning.fields}
              from={leaning.from}
              readOnly={!mayWrite}
              onChange={change}
            />
          ) : (
            <p className="text-sm text-ink2">
              Choose a part to see what it may hold{mayWrite ? ', and to change it' : ''}.
            </p>
          )}
          {mayWrite && <WouldDo row={row} convention={convention} usable={rule.compiled !== null} />}
        </div>
      }
      ledger={
        <Ledger
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

interface Rule {
  readonly compiled: ReturnType<typeof compileRule>;
  readonly fault: { readonly words: string; readonly at: number; readonly length: number } | null;
  readonly example: ReturnType<typeof examplePieces>;
}

function useRule(input: RuleInput | null): Rule {
  return useMemo(() => {
    const compiled = input === null ? null : compileRule(input);
    return {
      compiled,
      fault: input === null || compiled !== null ? null : faultOf(input),
      example: compiled === null ? [] : examplePieces(compiled, {}),
    };
  }, [input]);
}

function faultOf(input: RuleInput): Rule['fault'] {
  const parsed = parsePattern(input.pattern);
  const faults = parsed.ok ? compileConvention(parsed.value, input as never) : parsed;
  const first = faults.ok ? undefined : faults.faults[0];
  return first === undefined ? null : { words: wordsFor(first.code, first.params), at: first.at, length: first.length };
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

function Judged({
  input,
  rule,
  known,
  onCure,
}: {
  input: RuleInput | null;
  rule: Rule;
  known: Readonly<Record<string, readonly string[]>>;
  onCure: Parameters<typeof Verdict>[0]['onCure'];
}) {
  const { answer, waiting } = useProof(rule.compiled === null ? null : input, known);
  return (
    <Verdict
      compiled={rule.compiled}
      fault={rule.fault?.words ?? null}
      proof={answer}
      waiting={waiting}
      onCure={onCure}
    />
  );
}

function PatternField({
  convention,
  fault,
  onChange,
}: {
  convention: Convention;
  fault: Rule['fault'];
  onChange: ((pattern: string) => void) | null;
}) {
  const id = useId();
  return (
    <div className="flex flex-col gap-1">
      <label htmlFor={id} className="text-xs font-semibold text-ink2">
        The pattern
      </label>
      <div
        className={`flex items-start gap-1 rounded-tray border bg-sheet p-1 focus-within:border-bottle focus-within:ring-2 focus-within:ring-bottle/30 ${fault ? 'border-brick' : 'border-line'}`}
      >
        <textarea
          id={id}
          value={convention.pattern}
          readOnly={onChange === null}
          rows={Math.max(1, Math.ceil(convention.pattern.length / 62))}
          spellCheck={false}
          aria-invalid={fault !== null}
          onChange={(e) => onChange?.(e.target.value.replace(/\n/g, ''))}
          className="min-w-0 flex-1 resize-none bg-clear p-1 font-mono text-sm break-all outline-none"
        />
        <CopyButton text={convention.pattern} what="the pattern" />
      </div>
      {fault && (
        <p aria-hidden className="px-2 font-mono text-sm break-all">
          <span className="text-ink2">{convention.pattern.slice(0, fault.at)}</span>
          <span className="wavy font-bold text-brick">
            {convention.pattern.slice(fault.at, fault.at + Math.max(1, fault.length)) || ' '}
          </span>
          <span className="text-ink2">{convention.pattern.slice(fault.at + Math.max(1, fault.length))}</span>
        </p>
      )}
    </div>
  );
}

interface GivenProps {
  readonly row: ConventionRow;
  readonly convention: Convention;
  readonly leaning: Leaning;
  readonly rule: Rule;
  readonly chosen: number | null;
  readonly onChoose: (part: number) => void;
  readonly write: ((convention: Convention, what: string | null) => void) | null;
}

function Given({ row, convention, leaning, rule, chosen, onChoose, write }: GivenProps) {
  const id = useId();
  const items = rowFor(convention.pattern)?.items ?? [];
  const words = (field: string) => {
    const domain = rule.compiled?.slots.find((s) => s.field === field)?.domain;
    return domain === undefined ? '' : expectationWords(expectationOf(domain));
  };
  return (
    <div className="flex flex-col gap-4">
      <Link to="/conventions" className="text-sm text-bottle hover:underline">
        All conventions
      </Link>
      {write ? (
        <Labelled id={id} label="Convention">
          <h1 className="sr-only">{convention.name}</h1>
          <TextInput
            id={id}
            value={convention.name}
            onChange={(e) => write({ ...convention, name: e.target.value }, 'name')}
            className="text-lg font-semibold"
          />
        </Labelled>
      ) : (
        <h1 className="text-xl font-semibold">{convention.name}</h1>
      )}
      <p className="text-sm text-ink2">{stateOf(row)}</p>
      <section aria-label="Parts it is made of" className="flex flex-col gap-1">
        <Heading>Parts it is made of</Heading>
        <ul className="flex flex-col">
          {items.map((item, i) => (
            <li key={`${item.slot.at}`} className="border-b border-line">
              <button
                type="button"
                aria-pressed={chosen === i}
                onClick={() => onChoose(i)}
                className={`grid w-full grid-cols-[6rem_1fr] gap-2 rounded-tray px-2 py-1.5 text-left text-sm ${chosen === i ? 'bg-chosen ring-1 ring-plum ring-inset' : 'hover:bg-bench'}`}
              >
                <span className="font-semibold break-all">{item.slot.field}</span>
                <span className="text-note">
                  {words(item.slot.field)}
                  {item.optional ? ', may be left out' : ''}
                </span>
              </button>
            </li>
          ))}
        </ul>
        {write && (
          <Menu
            trigger={
              <Button look="quiet" className="self-start">
                Add a part…
              </Button>
            }
            lines={Object.entries(PART_KINDS).map(([kind, label]) => ({
              words: label,
              run: () => write(addPart(convention, kind as PartKind), null),
            }))}
          />
        )}
      </section>
      <Families convention={convention} known={leaning.registers.families.map((f) => f.name)} write={write} />
    </div>
  );
}

function stateOf(row: ConventionRow): string {
  const what =
    row.edition === null
      ? 'a draft, never in force'
      : row.draft
        ? `draft of edition ${row.edition + 1}`
        : `edition ${row.edition}, in force`;
  const used =
    row.usedIn.length === 0 ? 'used in no template yet' : `used in ${row.usedIn.map((u) => u.name).join(', ')}`;
  return `${what} · ${used}${row.projects > 0 ? `, ${many(row.projects, 'running project')}` : ''}`;
}

function Families({
  convention,
  known,
  write,
}: {
  convention: Convention;
  known: readonly string[];
  write: GivenProps['write'];
}) {
  const chosen = convention.families ?? [];
  const toggle = (name: string) => {
    const next = chosen.includes(name) ? chosen.filter((f) => f !== name) : [...chosen, name];
    write?.({ ...convention, families: next.length === 0 ? undefined : next }, null);
  };
  return (
    <section aria-label="For files" className="flex flex-col gap-1">
      <Heading>For files of</Heading>
      <p className="text-sm">{chosen.length === 0 ? 'every family' : chosen.join(', ')}</p>
      {write && (
        <Menu
          stay
          trigger={
            <Button look="quiet" className="self-start">
              Choose…
            </Button>
          }
          lines={known.map((name) => ({ words: name, run: () => toggle(name), chosen: chosen.includes(name) }))}
        />
      )}
    </section>
  );
}

const same = (a: Convention | null, b: Convention | null): boolean => JSON.stringify(a) === JSON.stringify(b);

function WouldDo({ row, convention, usable }: { row: ConventionRow; convention: Convention; usable: boolean }) {
  const late = useDebounced(convention, 600);
  const changedSince = !same(late, row.convention);
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

/** What somebody else has in this draft, for the same convention. */
function Theirs({ row, convention }: { row: ConventionRow; convention: Convention }) {
  const { refetch } = conventionsApi.useConventionsQuery();
  const look = async () => {
    const draft = (await refetch()).data?.find((c) => c.id === row.id)?.draft;
    return draft ? { thing: draft.convention, version: draft.version, by: draft.by } : null;
  };
  const differences = (theirs: Convention) =>
    (['name', 'pattern', 'fields', 'families', 'good', 'bad'] as const)
      .filter((key) => JSON.stringify(theirs[key]) !== JSON.stringify(convention[key]))
      .map((key) => (key === 'name' || key === 'pattern' ? `the ${key} ${theirs[key]}` : `other ${key}`));
  return <DraftConflict id={row.id} actions={conventionDrafts} look={look} differences={differences} />;
}

function Ledger({
  row,
  convention,
  draft,
  mayWrite,
  failing,
  usable,
}: {
  row: ConventionRow;
  convention: Convention;
  draft: ReturnType<typeof useConventionDraft>;
  mayWrite: boolean;
  failing: number;
  usable: boolean;
}) {
  const dispatch = useAppDispatch();
  const go = useNavigate();
  const [putInForce, { error: refused }] = conventionsApi.usePutInForceMutation();
  const [discard] = conventionsApi.useDiscardDraftMutation();
  const open = !same(convention, row.convention);
  const edition = (row.edition ?? 0) + 1;
  const hindrance = !usable
    ? 'The pattern cannot be used as it stands.'
    : failing > 0
      ? `${many(failing, 'name')} kept with it ${failing === 1 ? 'does' : 'do'} not hold.`
      : null;
  if (!mayWrite)
    return <p className="flex-1 text-ink2">Only a coordinator changes conventions. Trying names changes nothing.</p>;
  const aside = async () => {
    await discard(row.id);
    dispatch(conventionDrafts.closed(row.id));
    if (row.edition === null) await go('/conventions');
  };
  const publish = async () => {
    const version = draft.editing?.version ?? 0;
    const result = await putInForce({ id: row.id, version });
    if ('data' in result) dispatch(conventionDrafts.closed(row.id));
  };
  return (
    <>
      <p className="flex-1" role="status">
        {draft.trouble !== null ? (
          <>
            {draft.trouble} <Theirs row={row} convention={convention} />
          </>
        ) : (
          ((refused ? troubleOf(refused) : null) ?? (
            <>
              <strong className="font-semibold">
                {!open ? `Edition ${row.edition} is in force.` : draft.kept ? 'Draft kept.' : 'Keeping the draft…'}
              </strong>{' '}
              <span className="text-ink2">
                {open && hindrance !== null
                  ? hindrance
                  : 'Editions of running projects stay as they are until their own plan says otherwise.'}
              </span>
            </>
          ))
        )}
      </p>
      <Link to="/conventions/learn" className="text-sm font-semibold text-bottle hover:underline">
        Learn from names…
      </Link>
      {open && (row.draft !== null || row.edition === null) && (
        <Confirm
          trigger={<Button>Put the draft aside…</Button>}
          title="Put the draft aside?"
          act="Put it aside"
          run={() => void aside()}
        >
          {row.edition === null
            ? 'The convention was never in force, and goes with its draft.'
            : `What was changed since edition ${row.edition} is gone; edition ${row.edition} stays in force.`}
        </Confirm>
      )}
      <Confirm
        trigger={
          <Button look="main" disabled={!open || hindrance !== null || !draft.kept}>
            Put edition {edition} in force…
          </Button>
        }
        title={`Put edition ${edition} in force?`}
        act={`Put edition ${edition} in force`}
        run={() => void publish()}
      >
        Projects started from now on are named by it. An edition in force never changes again. No file on any disk is
        touched.
      </Confirm>
    </>
  );
}
