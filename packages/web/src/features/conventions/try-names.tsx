/**
 * Trying names: typed, pasted by the hundred thousand, or those that are there in a project; read in a worker,
 * explained where they are seen.
 */

import type { ProjectRow } from '@nesting/contract';
import { elementAt } from '@nesting/core';
import type { CompiledConvention, NameContext } from '@nesting/core/name';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type ClipboardEvent, useDeferredValue, useId, useMemo, useRef, useState } from 'react';
import { count, many } from '../../app/words';
import { Button, Choose, Lines, Menu, Radios } from '../../ui';
import type { RuleInput } from '../../workers/compile-rule';
import { useRead } from '../../workers/rules';
import { tryName } from './tried';
import { TriedRow } from './tried-row';

/** A text longer than this is kept beside the page, not in a field to write in. */
const MOST_TYPED = 20_000;

interface Props {
  readonly input: RuleInput | null;
  readonly compiled: CompiledConvention | null;
  readonly context: NameContext;
  readonly names: string;
  readonly onNames: (names: string) => void;
  readonly projects: readonly ProjectRow[];
  readonly project: ProjectRow | null;
  readonly onProject: (number: string) => void;
  /** Puts the names that are there in a project into the field; nothing where none uses this convention. */
  readonly onTake: ((project: ProjectRow) => void) | null;
  readonly onKeep: ((name: string, good: boolean) => void) | null;
}

export function TryNames({
  input,
  compiled,
  context,
  names,
  onNames,
  projects,
  project,
  onProject,
  onTake,
  onKeep,
}: Props) {
  const id = useId();
  const heap = names.length > MOST_TYPED;
  const { answer, waiting } = useRead(input, names);
  const [show, setShow] = useState<Shown>('all');
  // The counts first; laying out a hundred thousand rows is a frame of its own.
  const listed = useDeferredValue(answer);
  const lines = useMemo(
    () => (listed === null || show === 'all' ? null : linesThat(listed.ok, show === 'follow' ? 1 : 0)),
    [listed, show],
  );
  const paste = (event: ClipboardEvent) => {
    const text = event.clipboardData.getData('text/plain');
    if (text.length <= MOST_TYPED) return;
    event.preventDefault();
    onNames(text);
  };
  return (
    <section aria-label="Trying names" className="flex min-h-60 flex-1 flex-col gap-2">
      <TryHead fieldId={id} projects={projects} project={project} onProject={onProject} onTake={onTake} />
      {heap ? (
        <div className="flex items-center gap-3 rounded-tray border border-line bg-sheet px-3 py-2">
          <span className="flex-1">{answer === null ? 'Reading…' : `${many(answer.ok.length, 'name')} pasted`}</span>
          <Button variant="quiet" className="h-6!" onClick={() => onNames('')}>
            Put them aside
          </Button>
        </div>
      ) : (
        <Lines
          id={id}
          value={names}
          onChange={(e) => onNames(e.target.value)}
          onPaste={paste}
          rows={2}
          placeholder="Type or paste names, one a line"
        />
      )}
      {answer !== null && answer.ok.length > 0 && (
        <Passes answer={answer} waiting={waiting} show={show} onShow={setShow} />
      )}
      {compiled && listed && (
        <Results
          compiled={compiled}
          context={context}
          text={listed.text}
          starts={listed.starts}
          ends={listed.ends}
          lines={lines}
          onKeep={onKeep}
        />
      )}
    </section>
  );
}

function linesThat(ok: Uint8Array, wanted: number): Uint32Array {
  const lines = new Uint32Array(ok.length);
  let n = 0;
  for (let i = 0; i < ok.length; i++) if (ok[i] === wanted) lines[n++] = i;
  return lines.subarray(0, n);
}

interface ResultsProps {
  readonly compiled: CompiledConvention;
  readonly context: NameContext;
  readonly text: string;
  readonly starts: Uint32Array;
  readonly ends: Uint32Array;
  /** Which lines are shown; `null` for all of them. */
  readonly lines: Uint32Array | null;
  readonly onKeep: ((name: string, good: boolean) => void) | null;
}

function Results({ compiled, context, text, starts, ends, lines, onKeep }: ResultsProps) {
  const box = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: lines?.length ?? starts.length,
    getScrollElement: () => box.current,
    estimateSize: () => 60,
    overscan: 6,
  });
  // Names are explained as they come into sight, once for each rule and project.
  const tried = useMemo(() => {
    const seen = new Map<string, ReturnType<typeof tryName>>();
    return (name: string) => {
      const known = seen.get(name) ?? tryName(compiled, context, name);
      seen.set(name, known);
      return known;
    };
  }, [compiled, context]);
  return (
    <section
      ref={box}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled by keyboard
      tabIndex={0}
      aria-label="Names tried"
      className="min-h-40 flex-1 overflow-auto border-t border-line"
    >
      <ul style={{ height: rows.getTotalSize() }} className="relative">
        {rows.getVirtualItems().map((row) => {
          const line = lines === null ? row.index : elementAt(lines, row.index);
          const name = text.slice(starts[line], ends[line]);
          const result = tried(name);
          return (
            <li
              key={row.key}
              data-index={row.index}
              ref={rows.measureElement}
              style={{ transform: `translateY(${row.start}px)` }}
              className="absolute inset-x-0 top-0 border-b border-line"
            >
              <TriedRow tried={result}>{onKeep && <Keep name={name} onKeep={onKeep} />}</TriedRow>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

function Keep({ name, onKeep }: { name: string; onKeep: (name: string, good: boolean) => void }) {
  return (
    <Menu
      trigger={
        <Button variant="quiet" className="h-6! text-xs!" aria-label={`Keep ${name}`}>
          Keep…
        </Button>
      }
      lines={[
        { words: 'Keep as a good name', run: () => onKeep(name, true) },
        { words: 'Keep as a bad name', run: () => onKeep(name, false) },
      ]}
    />
  );
}

function TryHead({
  fieldId,
  projects,
  project,
  onProject,
  onTake,
}: Pick<Props, 'projects' | 'project' | 'onProject' | 'onTake'> & { readonly fieldId: string }) {
  return (
    <div className="flex flex-wrap items-center gap-2">
      <label htmlFor={fieldId} className="mr-auto text-xs font-semibold text-ink2">
        Try names
      </label>
      {onTake && (
        <Menu
          trigger={<Button className="h-7! px-2!">From a project…</Button>}
          lines={projects.map((p) => ({ words: `${p.number} ${p.title}`, run: () => onTake(p) }))}
        />
      )}
      <div className="w-52">
        <Choose
          label="As in a project"
          value={project?.number ?? 'any'}
          options={[
            { value: 'any', label: 'as in any project' },
            ...projects.map((p) => ({ value: p.number, label: `as in ${p.number} ${p.title}` })),
          ]}
          onChange={(value) => onProject(value === 'any' ? '' : value)}
        />
      </div>
    </div>
  );
}

type Shown = 'all' | 'break' | 'follow';

interface PassesProps {
  readonly answer: NonNullable<ReturnType<typeof useRead>['answer']>;
  readonly waiting: boolean;
  readonly show: Shown;
  readonly onShow: (show: Shown) => void;
}

function Passes({ answer, waiting, show, onShow }: PassesProps) {
  return (
    <div className="flex items-center gap-4 text-sm">
      <p role="status" className={waiting ? 'opacity-70' : ''}>
        <strong className="font-semibold">
          {count(answer.passes)} of {many(answer.ok.length, 'name')} follow the rule.
        </strong>
      </p>
      {answer.ok.length > 10 && (
        <Radios
          label="Shown"
          value={show}
          options={[
            { value: 'all', label: 'all' },
            { value: 'break', label: 'that break it' },
            { value: 'follow', label: 'that follow it' },
          ]}
          onChange={onShow}
        />
      )}
    </div>
  );
}
