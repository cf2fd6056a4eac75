/**
 * Rules of another house as a file: what is new here, the same, or otherwise, and what is done about each before
 * anything is.
 */

import {
  type RuleAct,
  type RuleChoices,
  type RuleKind,
  type RuleSetRow,
  type RulesTaken,
  ruleKeyOf,
} from '@nesting/contract';
import { elementAt } from '@nesting/core';
import { type DragEvent, useRef, useState } from 'react';
import { Link } from 'react-router';
import { troubleOf } from '../../app/api';
import { many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Button, Choose, Heading, Trouble } from '../../ui';
import { ruleSetsApi } from './rule-set-api';

const KIND_WORDS: Readonly<Record<RuleKind, string>> = {
  template: 'template',
  block: 'block',
  convention: 'convention',
  list: 'list',
};
const STATE_WORDS: Readonly<Record<RuleSetRow['state'], string>> = {
  new: 'new here',
  same: 'the same here',
  differs: 'otherwise here',
};

/** What an act means for one row: new things come in force, others as drafts. */
function actWords(row: RuleSetRow, act: RuleAct): string {
  if (act === 'leave') return row.state === 'same' ? 'nothing to do' : 'leave it out';
  if (act === 'beside') return 'beside ours, as a draft';
  if (row.kind === 'list') return row.state === 'new' ? 'add what is new' : 'add, and take theirs';
  return row.state === 'new' ? 'take it in force' : 'as a draft of ours';
}

/** Shape before colour: new is a solid square, otherwise a bar, the same a ring. */
function StateSign({ state }: { state: RuleSetRow['state'] }) {
  return (
    <svg width="12" height="12" viewBox="0 0 12 12" role="img" aria-label={STATE_WORDS[state]} className="shrink-0">
      {state === 'new' && <path d="M6 1v10M1 6h10" stroke="var(--bottle)" strokeWidth="2.400" />}
      {state === 'differs' && <path d="M1 4h10M1 8h6" stroke="var(--plum)" strokeWidth="2.400" />}
      {state === 'same' && <circle cx="6" cy="6" r="4.500" fill="none" stroke="var(--slate)" strokeWidth="1.600" />}
    </svg>
  );
}

export function TakeInPage() {
  const input = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File | null>(null);
  const [choices, setChoices] = useState<RuleChoices>({});
  const [selected, setSelected] = useState<string | null>(null);
  const [look, looked] = ruleSetsApi.useLookAtRulesMutation();
  const [take, taken] = ruleSetsApi.useTakeRulesMutation();
  const rows = file === null ? [] : (looked.data ?? []);
  const row = rows.find((r) => ruleKeyOf(r) === selected);
  const actOf = (r: RuleSetRow): RuleAct => choices[ruleKeyOf(r)] ?? r.acts[0] ?? 'leave';
  const doing = rows.filter((r) => actOf(r) !== 'leave');
  const give = (given: File | undefined) => {
    if (given === undefined) return;
    setFile(given);
    setChoices({});
    setSelected(null);
    taken.reset();
    void look(given);
  };
  const drop = (event: DragEvent) => {
    event.preventDefault();
    give(event.dataTransfer.files[0]);
  };
  const done = taken.data;
  return (
    <Columns
      id="take-in"
      labels={['The file', 'What is in it', 'What is otherwise']}
      given={
        // biome-ignore lint/a11y/noStaticElementInteractions: the button does the same by keyboard
        <div className="flex flex-col gap-3" onDragOver={(e) => e.preventDefault()} onDrop={drop}>
          <Link to="/templates" className="text-sm text-bottle hover:underline">
            All templates
          </Link>
          <h1 className="text-xl font-semibold">Take in rules</h1>
          <p className="text-ink2">
            A template, a convention, a block, lists, or all the rules of a house: a{' '}
            <span className="font-mono text-sm">.nest.json</span>, another JSON file of ours, or a zip with starter
            files.
          </p>
          <Button className="self-start" onClick={() => input.current?.click()}>
            {file === null ? 'Choose a file…' : 'Choose another file…'}
          </Button>
          <input
            ref={input}
            type="file"
            aria-label="A file with rules"
            accept=".json,.zip,application/zip,application/json"
            className="sr-only"
            tabIndex={-1}
            onChange={(e) => {
              give(e.target.files?.[0]);
              e.target.value = '';
            }}
          />
          {file && (
            <p className="text-sm">
              <span className="font-mono break-all">{file.name}</span>
            </p>
          )}
          <p className="text-sm text-ink2">It can also be dropped here. Looking at it changes nothing.</p>
        </div>
      }
      plan={
        <div className="flex min-h-0 flex-1 flex-col gap-2 overflow-auto">
          {looked.isError && <Trouble message={troubleOf(looked.error)} />}
          {rows.length === 0 && !looked.isError && (
            <p className="max-w-prose text-ink2">
              {looked.isLoading
                ? 'Reading the file…'
                : 'What is new here, the same, or otherwise is told for each thing in the file, and what is to be done with it is chosen line by line. What is ours never changes unseen: what is otherwise comes as a draft, or stays out.'}
            </p>
          )}
          {rows.length > 0 && (
            <ul aria-label="What is in the file" className="flex flex-col">
              {rows.map((r) => {
                const key = ruleKeyOf(r);
                return (
                  <li
                    key={key}
                    className={`grid grid-cols-[minmax(0,1fr)_13rem] items-center gap-3 border-b border-line py-1 pl-2 ${key === selected ? 'rounded-tray bg-chosen ring-1 ring-plum ring-inset' : ''}`}
                  >
                    <button
                      type="button"
                      aria-pressed={key === selected}
                      onClick={() => setSelected(key)}
                      className="flex min-w-0 items-center gap-2 text-left"
                    >
                      <StateSign state={r.state} />
                      <span className="truncate font-semibold">{r.name}</span>
                      <span className="shrink-0 text-xs text-note">
                        {KIND_WORDS[r.kind]}, {STATE_WORDS[r.state]}
                      </span>
                    </button>
                    {r.acts.length === 1 ? (
                      <span className="px-2 text-sm text-ink2">{actWords(r, elementAt(r.acts, 0))}</span>
                    ) : (
                      <Choose
                        label={`What is done with ${r.name}`}
                        value={actOf(r)}
                        options={r.acts.map((act) => ({ value: act, label: actWords(r, act) }))}
                        onChange={(act) => setChoices({ ...choices, [key]: act as RuleAct })}
                      />
                    )}
                  </li>
                );
              })}
            </ul>
          )}
        </div>
      }
      consequence={
        <div className="flex flex-col gap-3">
          <Heading>{row ? `${row.name}, ${STATE_WORDS[row.state]}` : 'Selected'}</Heading>
          {row === undefined && <p className="text-sm text-ink2">Choose a line to see what is otherwise in it.</p>}
          {row?.state === 'same' && <p className="text-sm">Word for word as ours.</p>}
          {row && row.words.length > 0 && (
            <ul className="flex flex-col gap-1 text-sm">
              {row.words.map((w) => (
                <li key={w} className="border-b border-line pb-1 break-words">
                  {w}
                </li>
              ))}
            </ul>
          )}
          {done && <Done taken={done} />}
        </div>
      }
      ledger={
        <>
          <p role="status" className="flex-1">
            {taken.isError ? (
              troubleOf(taken.error)
            ) : done ? (
              <>
                <strong className="font-semibold">
                  {done.taken.length === 0 ? 'Nothing was taken in.' : `${many(done.taken.length, 'thing')} taken in.`}
                </strong>{' '}
                <span className="text-ink2">What came as a draft waits to be put in force.</span>
              </>
            ) : rows.length === 0 ? (
              <span className="text-ink2">No rule changes by looking.</span>
            ) : (
              <>
                <strong className="font-semibold">
                  {doing.length === 0 ? 'Nothing would be taken in.' : `Takes in ${many(doing.length, 'thing')}.`}
                </strong>{' '}
                <span className="text-ink2">
                  {many(rows.filter((r) => r.state === 'same').length, 'thing')} the same,{' '}
                  {rows.length - doing.length - rows.filter((r) => r.state === 'same').length} left out.
                </span>
              </>
            )}
          </p>
          <Button
            look="main"
            disabled={file === null || doing.length === 0 || done !== undefined || taken.isLoading}
            onClick={() => file && void take({ file, choices })}
          >
            Take them in
          </Button>
        </>
      }
    />
  );
}

const PLACES: Readonly<Record<RuleKind, (id: string, draft: boolean) => string>> = {
  template: (id, draft) => `/templates/${encodeURIComponent(id)}${draft ? '/edit' : ''}`,
  convention: (id) => `/conventions/${encodeURIComponent(id)}`,
  block: (id) => `/blocks/${encodeURIComponent(id)}`,
  list: (id) => `/registers/${id}`,
};
const AS_WORDS: Readonly<Record<RulesTaken['taken'][number]['as'], string>> = {
  'in-force': 'in force',
  draft: 'as a draft',
  added: 'added',
};

function Done({ taken }: { taken: RulesTaken }) {
  return (
    <section aria-label="What was taken in" className="flex flex-col gap-1">
      <Heading>Taken in</Heading>
      <ul className="text-sm">
        {taken.taken.map((t) => (
          <li key={`${t.kind} ${t.id}`}>
            <Link to={PLACES[t.kind](t.id, t.as === 'draft')} className="text-bottle underline">
              {t.id}
            </Link>{' '}
            <span className="text-ink2">
              {KIND_WORDS[t.kind]}, {AS_WORDS[t.as]}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
