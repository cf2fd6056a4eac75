/** Names to learn from: pasted, from the files of a folder, or from a list. */
import { LIMITS } from '@nesting/core';
import { type ChangeEvent, useId, useRef, useState } from 'react';
import { Link } from 'react-router';
import { count, many } from '../../app/words';
import { Button, Labelled, Lines } from '../../ui';

interface GivenNamesProps {
  readonly text: string;
  readonly onText: (text: string) => void;
  readonly count: number;
}

export function GivenNames({ text, onText, count: n }: GivenNamesProps) {
  const id = useId();
  const [said, setSaid] = useState('');
  const add = (names: readonly string[], from: string) => {
    onText(names.join('\n'));
    setSaid(`${many(names.length, 'name')} from ${from}. Only the names were read.`);
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
      <NameSources onNames={add} />
      <p role="status" className="text-sm text-ink2">
        {said}
      </p>
    </div>
  );
}

function NameSources({ onNames }: { onNames: (names: readonly string[], from: string) => void }) {
  const folder = useRef<HTMLInputElement>(null);
  const fromFolder = (event: ChangeEvent<HTMLInputElement>) => {
    const files = [...(event.target.files ?? [])];
    if (files.length > 0)
      onNames(
        files.map((f) => f.name),
        files[0]?.webkitRelativePath.split('/')[0] || 'the folder',
      );
    event.target.value = '';
  };
  const fromFile = async (event: ChangeEvent<HTMLInputElement>) => {
    const file = event.target.files?.[0];
    if (file)
      onNames(
        (await file.text())
          .split(/\r?\n/)
          .map((line) => line.replace(/^.*[\\/]/, ''))
          .filter((line) => line !== ''),
        file.name,
      );
    event.target.value = '';
  };
  return (
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
  );
}
