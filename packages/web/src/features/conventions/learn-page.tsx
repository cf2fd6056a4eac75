/**
 * From names that are there to the convention they were written by: pasted, from files of a list, or from a folder on
 * this computer.
 */

import { elementAt, LIMITS } from '@nesting/core';
import { examplePieces, type LearnedConvention, NO_CONTEXT, NO_REGISTERS, type Registers } from '@nesting/core/name';
import type { Convention } from '@nesting/core/template';
import { type ChangeEvent, useDeferredValue, useId, useMemo, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { Anatomy } from '../../anatomy/anatomy';
import { troubleOf } from '../../app/api';
import { count, many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Button, Heading, Labelled, Lines, TextInput } from '../../ui';
import { compileRule } from '../../workers/compile-rule';
import { useLearned } from '../../workers/rules';
import { houseApi } from '../house/house-api';
import { conventionsApi } from './conventions-api';
import { type Tried, tryName } from './tried';
import { TriedRow } from './tried-row';

/** Names kept with what was learned. */
const GOOD_KEPT = 5;
const MISFITS_SHOWN = 60;
const KEPT = 'nesting-learn';

export function LearnPage() {
  const { data: registers = NO_REGISTERS } = houseApi.useRegistersQuery();
  const [text, setText] = useState(() => sessionStorage.getItem(KEPT) ?? '');
  const late = useDeferredValue(text);
  const names = useMemo(
    () => [
      ...new Set(
        late
          .split(/\r?\n/)
          .map((n) => n.trim())
          .filter((n) => n !== ''),
      ),
    ],
    [late],
  );
  const { answer, waiting } = useLearned(names, registers);
  const [chosen, setChosen] = useState(0);
  const [create, { error: refused }] = conventionsApi.useNewConventionMutation();
  const go = useNavigate();
  const give = (next: string) => {
    setText(next);
    setChosen(0);
    // A heap of names can be pasted again; a few typed ones outlive a reload.
    if (next.length < 200_000) sessionStorage.setItem(KEPT, next);
  };
  const learned = answer?.conventions ?? [];
  const selected = learned[Math.min(chosen, learned.length - 1)];
  const [name, setName] = useState('Learned from names');
  const take = async () => {
    if (selected === undefined) return;
    const convention: Omit<Convention, 'id'> = {
      name,
      pattern: selected.pattern,
      fields: selected.fields,
      ...(selected.families && { families: selected.families }),
      good: selected.reads.slice(0, GOOD_KEPT).map((i) => elementAt(names, i)),
    };
    const made = await create(convention).unwrap();
    await go(`/conventions/${made.id}`);
  };
  const read = learned.reduce((n, c) => n + c.reads.length, 0);
  return (
    <Columns
      id="learn"
      labels={['The names', 'What they were written by', 'Names that do not fit']}
      given={<GivenNames text={text} onText={give} count={names.length} />}
      plan={
        <section
          // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled by keyboard
          tabIndex={0}
          aria-label="Conventions found"
          className={`flex min-h-0 flex-1 flex-col gap-3 overflow-auto ${waiting ? 'opacity-70' : ''}`}
        >
          <Heading>
            {learned.length === 0 ? 'What they were written by' : `${many(learned.length, 'convention')} found`}
          </Heading>
          {names.length === 0 && (
            <p className="max-w-prose text-ink2">
              Give ten names or more, of one kind or of several. What they have in common is written as a convention:
              its parts, how wide its numbers are, how dates are written, which words come again and again.
            </p>
          )}
          {names.length > 0 && answer !== null && learned.length === 0 && (
            <p className="text-ink2">No convention was found in these names. A dozen of one kind would do.</p>
          )}
          <ul className="flex flex-col gap-3">
            {learned.map((c, i) => (
              <Found
                key={c.pattern}
                learned={c}
                names={names}
                registers={registers}
                chosen={c === selected}
                onChoose={() => setChosen(i)}
              />
            ))}
          </ul>
        </section>
      }
      consequence={<Misfits names={names} misfits={answer?.misfits ?? []} learned={learned} registers={registers} />}
      ledger={
        <>
          <p className="flex-1" role="status">
            {refused ? (
              troubleOf(refused)
            ) : learned.length === 0 ? (
              <span className="text-ink2">Learning changes nothing; what is learned becomes a draft.</span>
            ) : (
              <>
                <strong className="font-semibold">
                  {count(read)} of {many(names.length, 'name')} follow {learned.length === 1 ? 'it' : 'one of them'}.
                </strong>{' '}
                <span className="text-ink2">A draft is made of the chosen one; nothing is in force by it.</span>
              </>
            )}
          </p>
          {selected && (
            <TextInput
              aria-label="Name of the convention"
              value={name}
              onChange={(e) => setName(e.target.value)}
              className="w-56"
            />
          )}
          <Button look="main" disabled={selected === undefined || name.trim() === ''} onClick={() => void take()}>
            Take it into the editor
          </Button>
        </>
      }
    />
  );
}

function GivenNames({ text, onText, count: n }: { text: string; onText: (text: string) => void; count: number }) {
  const id = useId();
  const folder = useRef<HTMLInputElement>(null);
  const [said, setSaid] = useState('');
  const add = (names: readonly string[], from: string) => {
    onText(names.join('\n'));
    setSaid(`${many(names.length, 'name')} from ${from}. Only the names were read.`);
  };
  const fromFolder = (event: ChangeEvent<HTMLInputElement>) => {
    const files = [...(event.target.files ?? [])];
    if (files.length > 0)
      add(
        files.map((f) => f.name),
        files[0]?.webkitRelativePath.split('/')[0] || 'the folder',
      );
    event.target.value = '';
  };
  const fromFile = async (event: ChangeEvent<HTMLInputElement>) => {
    const file = event.target.files?.[0];
    if (file)
      add(
        (await file.text())
          .split(/\r?\n/)
          .map((line) => line.split(/[\\/]/).at(-1) as string)
          .filter((line) => line !== ''),
        file.name,
      );
    event.target.value = '';
  };
  return (
    <div className="flex h-full flex-col gap-3">
      <Link to="/conventions" className="text-sm text-bottle hover:underline">
        All conventions
      </Link>
      <h1 className="text-xl font-semibold">Learn from names</h1>
      <Labelled
        id={id}
        label="Names, one a line"
        help={
          n === 0
            ? undefined
            : `${many(n, 'different name')}${n > LIMITS.learnNames ? `; the first ${count(LIMITS.learnNames)} are learned from` : ''}`
        }
      >
        <Lines
          id={id}
          value={text}
          onChange={(e) => onText(e.target.value)}
          rows={16}
          placeholder="Paste names here"
          className="w-full"
        />
      </Labelled>
      <div className="flex flex-wrap gap-3">
        <Button onClick={() => folder.current?.click()}>From a folder…</Button>
        <input
          ref={folder}
          type="file"
          aria-label="Names of the files in a folder"
          className="sr-only"
          tabIndex={-1}
          onChange={fromFolder}
          {...{ webkitdirectory: '' }}
        />
        <label className="flex h-9 cursor-pointer items-center rounded-tray border border-rule bg-sheet px-3.5 text-sm font-semibold focus-within:ring-2 focus-within:ring-bottle/30 hover:border-ink">
          From a list…
          <input type="file" accept=".txt,.csv,text/plain" className="sr-only" onChange={(e) => void fromFile(e)} />
        </label>
      </div>
      <p role="status" className="text-sm text-ink2">
        {said}
      </p>
    </div>
  );
}

const ruleOf = (c: LearnedConvention, registers: Registers) =>
  compileRule({ pattern: c.pattern, fields: c.fields, registers, families: c.families, number: undefined });

function Found({
  learned,
  names,
  registers,
  chosen,
  onChoose,
}: {
  learned: LearnedConvention;
  names: readonly string[];
  registers: Registers;
  chosen: boolean;
  onChoose: () => void;
}) {
  const parts = useMemo(() => {
    const compiled = ruleOf(learned, registers);
    return compiled === null
      ? []
      : examplePieces(compiled, {}).map((p) => ({ text: p.text, label: p.field, ok: true }));
  }, [learned, registers]);
  const lists = learned.fields.flatMap((f) =>
    f.type === 'choice' && f.options
      ? [`${f.key}: ${f.options.map((o) => o.code).join(', ')}`]
      : f.type === 'text' && f.like
        ? [`${f.key}: ${f.like}`]
        : [],
  );
  return (
    <li>
      <button
        type="button"
        aria-pressed={chosen}
        onClick={onChoose}
        className={`flex w-full flex-col items-start gap-1.5 rounded-tray border p-3 text-left ${chosen ? 'border-plum bg-chosen' : 'border-line bg-sheet hover:border-rule'}`}
      >
        <Anatomy parts={parts} large />
        <span className="font-mono text-xs break-all text-note">{learned.pattern}</span>
        {lists.length > 0 && <span className="text-xs text-note">{lists.join(' · ')}</span>}
        <span className="text-sm">
          <strong className="font-semibold">
            {many(learned.reads.length, 'name')} of {count(names.length)}
          </strong>
          , such as <span className="font-mono break-all">{names[elementAt(learned.reads, 0)]}</span>
          {learned.oneWay ? '' : '. Some names could be misread: the editor shows which.'}
        </span>
      </button>
    </li>
  );
}

/** Most of its parts are what they should be. */
const isNear = (t: Tried): boolean =>
  t.parts.filter((p) => p.label !== null && p.ok).length > 2 * t.parts.filter((p) => !p.ok).length;

const strange = (name: string): Tried => ({
  name,
  ok: false,
  parts: [{ text: name, label: null, ok: true }],
  meant: null,
  confidence: null,
  why: 'like none of them',
});

function Misfits({
  names,
  misfits,
  learned,
  registers,
}: {
  names: readonly string[];
  misfits: readonly number[];
  learned: readonly LearnedConvention[];
  registers: Registers;
}) {
  const rows = useMemo(() => {
    const rules = learned.flatMap((c) => ruleOf(c, registers) ?? []);
    const context = { ...NO_CONTEXT, abbreviations: registers.abbreviations, banned: registers.banned };
    return misfits.slice(0, MISFITS_SHOWN).map((i) => {
      const all = rules.map((rule) => tryName(rule, context, elementAt(names, i)));
      return (
        all.find((t) => t.confidence === 'sure') ??
        all.find((t) => t.meant !== null) ??
        all.find(isNear) ??
        strange(elementAt(names, i))
      );
    });
  }, [names, misfits, learned, registers]);
  if (names.length === 0) return null;
  return (
    <div className="flex flex-col gap-2">
      <Heading>
        {misfits.length === 0
          ? 'Every name fits'
          : `${many(misfits.length, 'name')} that fit${misfits.length === 1 ? 's' : ''} none`}
      </Heading>
      <ul className="divide-y divide-line">
        {rows.map((t) => (
          <li key={t.name}>
            <TriedRow tried={t} />
          </li>
        ))}
      </ul>
      {misfits.length > MISFITS_SHOWN && (
        <p className="text-sm text-ink2">and {count(misfits.length - MISFITS_SHOWN)} more</p>
      )}
    </div>
  );
}
