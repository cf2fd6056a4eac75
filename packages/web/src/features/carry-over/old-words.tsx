/** Words of the old project that names still hold, each with its new one. */
import type { CarryPlan } from '@nesting/contract';
import { type FormEvent, useState } from 'react';
import { Button, Heading, TextInput } from '../../ui';
import type { CarryWork } from './carry-work';

/** Words of the old project in names that read by no convention, each with its new one. */
export function OldWords({ work: { plan, said, setWay } }: { work: CarryWork }) {
  const [old, setOld] = useState('');
  const [now, setNow] = useState('');
  const { words } = said.way;
  const add = (event: FormEvent) => {
    event.preventDefault();
    if (old.trim() === '') return;
    const others = words.filter((word) => word.old !== old.trim());
    setWay({ words: [...others, { old: old.trim(), new: now.trim() === '' ? null : now.trim() }] });
    setOld('');
    setNow('');
  };
  return (
    <div className="flex flex-col gap-2">
      <Heading>Old words still in names</Heading>
      {plan !== undefined && plan.words.length > 0 && (
        <table className="w-full table-fixed text-sm" aria-label="Old words still in names">
          <thead>
            <tr className="text-left text-xs text-ink2">
              <th scope="col" className="font-normal">
                Word
              </th>
              <th scope="col" className="font-normal">
                Becomes
              </th>
              <th scope="col" className="w-12 text-right font-normal">
                Names
              </th>
              <th scope="col" className="w-8">
                <span className="sr-only">Take it back</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {plan.words.map((word) => (
              <WordRow
                key={`${word.isAdded} ${word.old}`}
                word={word}
                onTakeBack={() => setWay({ words: words.filter(({ old: other }) => other !== word.old) })}
              />
            ))}
          </tbody>
        </table>
      )}
      <form className="flex items-end gap-2" onSubmit={add}>
        <TextInput
          aria-label="Another old word"
          placeholder="Another word"
          value={old}
          maxLength={255}
          className="min-w-0 flex-1 font-mono"
          onChange={(e) => setOld(e.target.value)}
        />
        <TextInput
          aria-label="Its new word; empty where it goes"
          placeholder="or it goes"
          value={now}
          maxLength={255}
          className="min-w-0 flex-1 font-mono"
          onChange={(e) => setNow(e.target.value)}
        />
        <Button type="submit" disabled={old.trim() === ''}>
          Add
        </Button>
      </form>
    </div>
  );
}

interface WordRowProps {
  readonly word: CarryPlan['words'][number];
  readonly onTakeBack: () => void;
}

/** Only words that somebody added are taken back: the project's own always change. */
function WordRow({ word, onTakeBack }: WordRowProps) {
  return (
    <tr className="h-7 border-t border-line">
      <td className="truncate font-mono" title={word.old}>
        {word.old}
      </td>
      <td className="truncate font-mono">{word.now ?? <span className="font-sans text-ink2">goes</span>}</td>
      <td className="text-right text-ink2">{word.names}</td>
      <td className="text-right">
        {word.isAdded && (
          <button
            type="button"
            aria-label={`Take ${word.old} back`}
            className="rounded-tray px-1.5 text-ink2 hover:bg-bench"
            onClick={onTakeBack}
          >
            ×
          </button>
        )}
      </td>
    </tr>
  );
}
