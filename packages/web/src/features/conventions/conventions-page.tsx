/** Conventions: which there are and where each is used; its anatomy, the proof's verdict, and names tried against it. */
import type { ProjectRow } from '@nesting/contract';
import { CHANGE_WORDS, examplePieces, expectationOf, expectationWords, explainName, NO_REGISTERS, readName, spansOf } from '@nesting/core';
import { useDeferredValue, useId, useMemo } from 'react';

import { Anatomy, type AnatomyPart, partsOfBroken, Proposed } from '../../anatomy/anatomy';
import { api, troubleOf } from '../../app/api';
import { useAddress } from '../../app/use-address';
import { count, many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { WeightSign } from '../../ui/signs';
import { Button, CopyButton, Empty, Heading, Menu, Trouble } from '../../ui/ui';
import { Pair } from '../templates/folder-facts';
import { type ReadyRule, readyRule, type RuleRow, rulesOf } from './rules';

/** Names explained at once; more are counted, not explained, so that typing stays quick. */
const MOST_TRIED = 200;

export function ConventionsPage() {
  const { data = [], isLoading, isError, error, refetch } = api.useTemplatesQuery();
  const { data: registers = NO_REGISTERS } = api.useRegistersQuery();
  const { data: projects = [] } = api.useProjectsQuery();
  const [params, put] = useAddress();
  const rules = useMemo(() => rulesOf(data), [data]);
  const row = rules.find((r) => r.key === params.get('rule')) ?? rules[0];
  const project = projects.find((p) => p.number === params.get('as')) ?? null;
  const ready = useMemo(() => (row === undefined ? null : readyRule(row, registers, project)), [row, registers, project]);
  const names = useDeferredValue(params.get('names') ?? '');
  const tried = useMemo(() => (ready === null ? [] : tryNames(ready, names)), [ready, names]);
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  if (isLoading) return null;
  if (row === undefined) return <Empty title="No convention yet">A convention says how files are named. Templates bring them along.</Empty>;
  const passes = tried.filter((t) => t.ok).length;
  return (
    <Columns
      id="conventions"
      labels={['Conventions', 'The selected convention', 'What it is made of']}
      given={
        <div className="flex flex-col gap-3">
          <h1 className="text-xl font-semibold">Conventions</h1>
          <ul className="flex flex-col gap-1">
            {rules.map((r) => (
              <li key={r.key}>
                <button type="button" aria-pressed={r === row} onClick={() => put({ rule: r.key })} className={`w-full rounded-tray px-2 py-1.5 text-left ${r === row ? 'bg-chosen ring-1 ring-plum ring-inset' : 'hover:bg-bench'}`}>
                  <span className="block font-semibold">{r.convention.name}</span>
                  <span className="block font-mono text-xs break-all text-note">{r.convention.pattern}</span>
                  <span className="block text-xs text-note">in {r.usedIn.join(', ')}</span>
                </button>
              </li>
            ))}
          </ul>
        </div>
      }
      plan={
        <div className="flex min-h-0 flex-1 flex-col gap-4">
          <Head row={row} ready={ready} />
          {ready && <TryBox names={params.get('names') ?? ''} project={project} projects={projects} onNames={(value) => put({ names: value })} onProject={(number) => put({ as: number })} />}
          {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled by keyboard */}
          <section aria-label="Names tried" tabIndex={0} className="min-h-0 flex-1 overflow-auto">
            <ul className="divide-y divide-line">
              {tried.map((t) => (
                <li key={t.name} className="flex items-start gap-3 py-2">
                  <span className="pt-1.5">{t.ok ? <PassSign /> : <WeightSign weight="must" />}</span>
                  <span className="min-w-0 flex-1">
                    {t.ok ? <Anatomy parts={t.parts} /> : t.meant ? <Proposed found={t.name} meant={t.meant} /> : <Anatomy parts={t.parts} />}
                    {!t.ok && <span className="block text-xs text-ink2">{t.why}</span>}
                  </span>
                  <span className="shrink-0 text-xs text-ink2">{t.ok ? '' : (t.confidence ?? 'for a person')}</span>
                  {t.meant && <CopyButton text={t.meant} what="the proposed name" />}
                </li>
              ))}
            </ul>
          </section>
        </div>
      }
      consequence={<Made row={row} ready={ready} />}
      ledger={
        <p className="flex-1">
          {tried.length === 0 ? (
            <span className="text-ink2">Trying names changes nothing. A convention belongs to its template's edition.</span>
          ) : (
            <>
              <strong className="font-semibold">{count(passes)} of {many(tried.length, 'name')} follow the rule.</strong>{' '}
              <span className="text-ink2">{count(tried.filter((t) => t.confidence === 'sure').length)} could be put right for sure. Trying names changes nothing.</span>
            </>
          )}
        </p>
      }
    />
  );
}

function Head({ row, ready }: { row: RuleRow; ready: ReadyRule | null }) {
  const example = useMemo(() => (ready === null ? [] : examplePieces(ready.compiled, {}).map((p): AnatomyPart => ({ text: p.text, label: p.field, ok: true }))), [ready]);
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-lg font-semibold">{row.convention.name}</h2>
      <Anatomy parts={example} large />
      <div className="flex items-start gap-1 rounded-tray border border-line bg-sheet p-2 font-mono text-sm break-all">
        <span className="flex-1">{row.convention.pattern}</span>
        <CopyButton text={row.convention.pattern} what="the pattern" />
      </div>
      <Verdict ready={ready} />
    </div>
  );
}

function Verdict({ ready }: { ready: ReadyRule | null }) {
  if (ready === null) return <p className="text-brick">This pattern cannot be used as it stands.</p>;
  if (ready.verdict === 'one-way') return <p className="flex items-center gap-2"><PassSign /> <strong className="font-semibold">No name can be misread.</strong> <span className="text-ink2">Proved for every name.</span></p>;
  if (ready.verdict === null) return <p className="flex items-center gap-2"><WeightSign weight="note" /> Not decided in time whether a name could be misread.</p>;
  return (
    <p className="flex items-start gap-2">
      <span className="pt-1"><WeightSign weight="should" /></span>
      <span>
        <span className="font-mono">{ready.verdict.name}</span> can be read in two ways: {ready.verdict.readings.map((r) => Object.entries(r).map(([k, v]) => `${k}=${v}`).join(', ')).join(', or ')}.
      </span>
    </p>
  );
}

function TryBox({ names, project, projects, onNames, onProject }: { names: string; project: ProjectRow | null; projects: readonly ProjectRow[]; onNames: (value: string) => void; onProject: (number: string) => void }) {
  const id = useId();
  return (
    <div className="flex flex-col gap-1">
      <div className="flex items-center justify-between">
        <label htmlFor={id} className="text-xs font-semibold text-ink2">Try names</label>
        <Menu
          trigger={<Button className="h-7!">{project ? `As in ${project.number} ${project.title}` : 'As in any project'}</Button>}
          lines={[{ words: 'As in any project', run: () => onProject(''), chosen: project === null }, ...projects.map((p) => ({ words: `${p.number} ${p.title}`, run: () => onProject(p.number), chosen: p === project }))]}
        />
      </div>
      <textarea id={id} value={names} onChange={(e) => onNames(e.target.value)} rows={3} spellCheck={false} placeholder="Type or paste names, one a line" className="resize-y rounded-tray border border-line bg-sheet px-2 py-1.5 font-mono text-sm outline-none placeholder:text-ink2 focus:border-bottle focus:ring-2 focus:ring-bottle/30" />
    </div>
  );
}

function Made({ row, ready }: { row: RuleRow; ready: ReadyRule | null }) {
  if (ready === null) return null;
  return (
    <div className="flex flex-col gap-4">
      <Heading>Parts it is made of</Heading>
      <dl className="grid grid-cols-[5.5rem_1fr] gap-x-3 gap-y-1.5 text-sm">
        {ready.compiled.slots.map((s) => (
          <Pair key={s.slot.at} what={s.field} words={expectationWords(expectationOf(s.form))} />
        ))}
        {row.convention.families && <Pair what="For files" words={row.convention.families.join(', ')} />}
        <Pair what="Used in" words={row.usedIn.join(', ')} />
      </dl>
    </div>
  );
}

interface Tried {
  readonly name: string;
  readonly ok: boolean;
  readonly parts: readonly AnatomyPart[];
  readonly meant: string | null;
  readonly confidence: string | null;
  readonly why: string;
}

function tryNames({ compiled, context }: ReadyRule, text: string): Tried[] {
  const names = [...new Set(text.split('\n').map((n) => n.trim()).filter((n) => n !== ''))].slice(0, MOST_TRIED);
  return names.map((name): Tried => {
    if (readName(compiled, name, context.bound) !== null) {
      const spans = spansOf(compiled, name, 1, context.bound)[0] ?? [];
      return { name, ok: true, parts: partsOfBroken(name, spans.map((s) => ({ part: s.field, at: s.at, end: s.end, ok: true })), []), meant: null, confidence: null, why: '' };
    }
    const { problems, stretches, suggestions } = explainName(compiled, name, context);
    const best = suggestions[0];
    const why = [...new Set(problems.map((p) => (p.part === null || p.change === 'order' || !/[A-Za-z]/.test(p.part) ? CHANGE_WORDS[p.change] : `${p.part}: ${expectationWords(p.expected)}`)))].join('; ');
    return { name, ok: false, parts: partsOfBroken(name, stretches, problems), meant: best?.name ?? null, confidence: best?.confidence ?? null, why };
  });
}

function PassSign() {
  return (
    <svg width="12" height="12" viewBox="0 0 12 12" role="img" aria-label="follows the rule" className="shrink-0">
      <path d="M0 3a3 3 0 0 1 3-3h6a3 3 0 0 1 3 3v6a3 3 0 0 1-3 3H3a3 3 0 0 1-3-3z" fill="var(--bottle)" />
      <path d="M3 6.200l2.200 2.200L9 4" stroke="var(--on-bottle)" strokeWidth="1.600" fill="none" />
    </svg>
  );
}
