/**
 * From names that are there to the convention they were written by: pasted, from files of a list, or from a folder on
 * this computer.
 */

import { elementAt } from '@nesting/core';
import { type LearnedConvention, NO_REGISTERS, type Registers } from '@nesting/core/name';
import type { Convention } from '@nesting/core/template';
import { useDeferredValue, useMemo, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { troubleOf } from '../../app/api';
import { backTo, giveLearned, keepNames, namesToLearn } from '../../app/learning';
import { count, many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Button, Heading, TextInput } from '../../ui';
import { useLearned } from '../../workers/rules';
import { houseApi } from '../house/house-api';
import { conventionsApi } from './conventions-api';
import { GivenNames } from './given-names';
import { Learned, Misfits } from './learned';

/** Names kept with what was learned. */
const GOOD_KEPT = 5;

export function LearnPage() {
  const { data: registers = NO_REGISTERS } = houseApi.useRegistersQuery();
  const [text, setText] = useState(namesToLearn);
  const late = useDeferredValue(text);
  const names = useMemo(() => differentLines(late), [late]);
  const { answer, waiting } = useLearned(names, registers);
  const [chosen, setChosen] = useState(0);
  const [create, { error: refused }] = conventionsApi.useNewConventionMutation();
  const go = useNavigate();
  const give = (next: string) => {
    setText(next);
    setChosen(0);
    // A heap of names can be pasted again; a few typed ones outlive a reload.
    keepNames(next);
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
  return (
    <Columns
      id="learn"
      labels={['The names', 'What they were written by', 'Names that do not fit']}
      given={<GivenNames text={text} onText={give} count={names.length} />}
      plan={
        <Conventions
          names={names}
          registers={registers}
          learned={learned}
          selected={selected}
          waiting={waiting}
          isRead={answer !== null}
          onChoose={setChosen}
        />
      }
      consequence={<Misfits names={names} misfits={answer?.misfits ?? []} learned={learned} registers={registers} />}
      ledger={
        <>
          <LedgerWords trouble={refused ? troubleOf(refused) : null} learned={learned} names={names.length} />
          {selected && (
            <TextInput
              aria-label="Name of the convention"
              value={name}
              onChange={(e) => setName(e.target.value)}
              className="w-56"
            />
          )}
          <Button variant="main" disabled={selected === undefined || name.trim() === ''} onClick={() => void take()}>
            Take it into the editor
          </Button>
          <UseForFiles selected={selected} />
        </>
      }
    />
  );
}

/** Back to the loose files whose names they are, where a page of those asked. */
function UseForFiles({ selected }: { selected: LearnedConvention | undefined }) {
  const go = useNavigate();
  const [params] = useSearchParams();
  const back = backTo(params);
  if (back === null) return null;
  const use = async () => {
    if (selected === undefined) return;
    const { pattern, fields, families } = selected;
    giveLearned({ back, pattern, fields: [...fields], ...(families && { families: [...families] }) });
    await go(back);
  };
  return (
    <Button variant="main" disabled={selected === undefined} onClick={() => void use()}>
      Use it for the files
    </Button>
  );
}

const differentLines = (text: string): string[] => [
  ...new Set(
    text
      .split(/\r?\n/)
      .map((n) => n.trim())
      .filter((n) => n !== ''),
  ),
];

interface ConventionsProps {
  readonly names: readonly string[];
  readonly registers: Registers;
  readonly learned: readonly LearnedConvention[];
  readonly selected: LearnedConvention | undefined;
  readonly waiting: boolean;
  /** The names were learned from. */
  readonly isRead: boolean;
  readonly onChoose: (index: number) => void;
}

function Conventions({ names, registers, learned, selected, waiting, isRead, onChoose }: ConventionsProps) {
  return (
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
          Give ten names or more, of one kind or of several. What they have in common is written as a convention: its
          parts, how wide its numbers are, how dates are written, which words come again and again.
        </p>
      )}
      {names.length > 0 && isRead && learned.length === 0 && (
        <p className="text-ink2">No convention was found in these names. A dozen of one kind would do.</p>
      )}
      <ul className="flex flex-col gap-3">
        {learned.map((c, i) => (
          <Learned
            key={c.pattern}
            learned={c}
            names={names}
            registers={registers}
            chosen={c === selected}
            onChoose={() => onChoose(i)}
          />
        ))}
      </ul>
    </section>
  );
}

interface LedgerWordsProps {
  readonly trouble: string | null;
  readonly learned: readonly LearnedConvention[];
  readonly names: number;
}

function LedgerWords({ trouble, learned, names }: LedgerWordsProps) {
  const read = learned.reduce((n, c) => n + c.reads.length, 0);
  return (
    <p className="flex-1" role="status">
      {trouble !== null ? (
        trouble
      ) : learned.length === 0 ? (
        <span className="text-ink2">Learning changes nothing; what is learned becomes a draft.</span>
      ) : (
        <>
          <strong className="font-semibold">
            {count(read)} of {many(names, 'name')} follow {learned.length === 1 ? 'it' : 'one of them'}.
          </strong>{' '}
          <span className="text-ink2">A draft is made of the chosen one; nothing is in force by it.</span>
        </>
      )}
    </p>
  );
}
