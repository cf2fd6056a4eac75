import { useDeferredValue, useId, useMemo } from 'react';
import { Labelled, TextInput } from '../../ui';
import { TriedRow } from '../conventions/tried-row';
import { meaningOf, type ProjectNames } from './project-names';

interface NameMeaningProps {
  readonly names: ProjectNames | null;
  readonly name: string;
  readonly onName: (name: string) => void;
}

export function NameMeaning({ names, name, onName }: NameMeaningProps) {
  const id = useId();
  const late = useDeferredValue(name.trim());
  const meaning = useMemo(() => (names === null || late === '' ? null : meaningOf(names, late)), [names, late]);
  return (
    <div className="flex flex-col gap-3">
      <Labelled id={id} label="A name you have" help="Its parts, and the right name where it breaks the rule">
        <TextInput
          id={id}
          value={name}
          onChange={(e) => onName(e.target.value)}
          placeholder="Paste a name"
          autoComplete="off"
          spellCheck={false}
          className="font-mono"
        />
      </Labelled>
      {late !== '' && names === null && <p className="text-sm text-ink2">Choose the project first.</p>}
      {meaning && (
        <>
          <TriedRow tried={meaning.tried} />
          <p className="text-sm">
            {meaning.tried.ok ? 'It follows' : 'Looked at as'}{' '}
            <strong className="font-semibold">{meaning.convention.name}</strong>
            {meaning.folders.length > 0 && (
              <>
                ; it belongs in <span className="font-mono break-all">{meaning.folders.slice(0, 3).join(', ')}</span>
                {meaning.folders.length > 3 ? ` and ${meaning.folders.length - 3} more` : ''}
              </>
            )}
            .
          </p>
        </>
      )}
    </div>
  );
}
