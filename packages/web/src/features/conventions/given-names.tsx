/** Names to learn from: pasted, from the files of a folder, or from a list. */
import { LIMITS } from '@nesting/core';
import { useId, useState } from 'react';
import { Link } from 'react-router';
import { count, many } from '../../app/words';
import { FileButton, Labelled, Lines } from '../../ui';

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
  const fromList = async (file: File) => {
    const paths = (await file.text()).split(/\r?\n/);
    onNames(
      paths.map((path) => path.replace(/^.*[\\/]/, '')).filter((name) => name !== ''),
      file.name,
    );
  };
  return (
    <div className="flex flex-wrap gap-3">
      <FileButton
        folder
        label="Names of the files in a folder"
        onFiles={(files) =>
          onNames(
            files.map((f) => f.name),
            files[0].webkitRelativePath.split('/')[0] || 'the folder',
          )
        }
      >
        From a folder…
      </FileButton>
      <FileButton label="A list of names" accept=".txt,.csv,text/plain" onFiles={([file]) => void fromList(file)}>
        From a list…
      </FileButton>
    </div>
  );
}
