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
import { type DragEvent, useState } from 'react';
import { Link } from 'react-router';
import { troubleOf } from '../../app/api';
import { many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Button, FileButton, Heading, Trouble } from '../../ui';
import { KIND_WORDS, RuleRow, STATE_WORDS } from './rule-rows';
import { ruleSetsApi } from './rule-set-api';

export function TakeInPage() {
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
  const done = taken.data;
  return (
    <Columns
      id="take-in"
      labels={['The file', 'What is in it', 'What is otherwise']}
      given={<GivenFile file={file} onFile={give} />}
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
              {rows.map((r) => (
                <RuleRow
                  key={ruleKeyOf(r)}
                  row={r}
                  act={actOf(r)}
                  isSelected={ruleKeyOf(r) === selected}
                  onSelect={() => setSelected(ruleKeyOf(r))}
                  onAct={(act) => setChoices({ ...choices, [ruleKeyOf(r)]: act })}
                />
              ))}
            </ul>
          )}
        </div>
      }
      consequence={<SelectedRow row={row} done={done} />}
      ledger={
        <>
          <LedgerWords
            trouble={taken.isError ? troubleOf(taken.error) : null}
            done={done}
            rows={rows}
            doing={doing.length}
          />
          <Button
            variant="main"
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

function GivenFile({ file, onFile }: { file: File | null; onFile: (file: File | undefined) => void }) {
  const drop = (event: DragEvent) => {
    event.preventDefault();
    onFile(event.dataTransfer.files[0]);
  };
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the button does the same by keyboard
    <div className="flex flex-col gap-3" onDragOver={(e) => e.preventDefault()} onDrop={drop}>
      <Link to="/templates" className="text-sm text-bottle hover:underline">
        All templates
      </Link>
      <h1 className="text-xl font-semibold">Take in rules</h1>
      <p className="text-ink2">
        A template, a convention, a shared part, lists, or all the rules of a house: a{' '}
        <span className="font-mono text-sm">.nest.json</span>, another JSON file of ours, or a zip with starter files.
      </p>
      <FileButton
        className="self-start"
        label="A file with rules"
        accept=".json,.zip,application/zip,application/json"
        onFiles={([chosen]) => onFile(chosen)}
      >
        {file === null ? 'Choose a file…' : 'Choose another file…'}
      </FileButton>
      {file && (
        <p className="text-sm">
          <span className="font-mono break-all">{file.name}</span>
        </p>
      )}
      <p className="text-sm text-ink2">It can also be dropped here. Looking at it changes nothing.</p>
    </div>
  );
}

function SelectedRow({ row, done }: { row: RuleSetRow | undefined; done: RulesTaken | undefined }) {
  return (
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
  );
}

interface LedgerProps {
  readonly trouble: string | null;
  readonly done: RulesTaken | undefined;
  readonly rows: readonly RuleSetRow[];
  /** How many of them are taken in. */
  readonly doing: number;
}

function LedgerWords({ trouble, done, rows, doing }: LedgerProps) {
  const same = rows.filter((r) => r.state === 'same').length;
  return (
    <p role="status" className="flex-1">
      {trouble !== null ? (
        trouble
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
            {doing === 0 ? 'Nothing would be taken in.' : `Takes in ${many(doing, 'thing')}.`}
          </strong>{' '}
          <span className="text-ink2">
            {many(same, 'thing')} the same, {rows.length - doing - same} left out.
          </span>
        </>
      )}
    </p>
  );
}
