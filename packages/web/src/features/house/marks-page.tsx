/** The house's marks: eight trays, and what each of them means. */
import type { Me } from '@nesting/contract';
import { MARKS, type Mark } from '@nesting/core/template';
import { type FormEvent, useContext, useState } from 'react';
import { useOutletContext } from 'react-router';
import { troubleOf } from '../../app/api';
import { many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Button, Refused, TextInput } from '../../ui';
import { MeaningsContext } from '../../ui/meanings';
import { TraySign } from '../../ui/signs';
import { HouseNav } from './house-nav';
import { marksApi } from './marks-api';

export function MarksPage() {
  const me = useOutletContext<Me>();
  const meanings = useContext(MeaningsContext);
  const free = MARKS.filter((mark) => meanings[mark] === undefined).length;
  return (
    <Columns
      id="house"
      labels={['The house’s lists', 'Marks', 'About marks']}
      given={<HouseNav />}
      plan={
        <>
          <h1 className="pb-2 text-xl font-semibold">Marks</h1>
          <ul className="flex max-w-xl flex-col gap-2">
            {MARKS.map((mark, i) => (
              <MarkRow
                key={`${mark} ${meanings[mark] ?? ''}`}
                mark={mark}
                place={i + 1}
                mayWrite={me.role === 'coordinator'}
              />
            ))}
          </ul>
        </>
      }
      consequence={
        <p className="text-sm text-ink2">
          A folder's mark says what the folder is for. Everything in the folder carries the mark too. A template file
          carries the meanings of its marks; when it is taken in, its marks become the house's marks of the same
          meaning.
        </p>
      }
      ledger={<p className="flex-1 text-ink2">{many(free, 'mark')} free.</p>}
    />
  );
}

interface RowProps {
  readonly mark: Mark;
  readonly place: number;
  readonly mayWrite: boolean;
}

function MarkRow({ mark, place, mayWrite }: RowProps) {
  const was = useContext(MeaningsContext)[mark] ?? '';
  const [words, setWords] = useState(was);
  const [save, { error }] = marksApi.useSaveMeaningMutation();
  const isChanged = words.trim() !== was;
  const keep = (e: FormEvent) => {
    e.preventDefault();
    if (isChanged) void save({ mark, words: words.trim(), was });
  };
  return (
    <li>
      <form onSubmit={keep} className="grid grid-cols-[1.5rem_1fr_6rem] items-center gap-2">
        <span aria-hidden>
          <TraySign mark={mark} state="there" />
        </span>
        <TextInput
          aria-label={`Meaning of mark ${place}`}
          value={words}
          readOnly={!mayWrite}
          maxLength={40}
          placeholder="free"
          onChange={(e) => setWords(e.target.value)}
        />
        {isChanged && <Button type="submit">{words.trim() === '' ? 'Free it' : 'Save'}</Button>}
      </form>
      <Refused words={error && troubleOf(error)} />
    </li>
  );
}
