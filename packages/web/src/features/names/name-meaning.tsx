import { nameOf } from '@nesting/core/listing';
import { useDeferredValue, useId, useMemo } from 'react';
import { Link } from 'react-router';
import { Labelled, TextInput } from '../../ui';
import { changesApi } from '../batches/changes-api';
import { TriedRow } from '../conventions/tried-row';
import { meaningOf, type ProjectNames } from './project-names';

/** Letters of a name that is looked for among former ones. */
const LEAST = 3;

/** What became of a file that was called so before a change. */
function CalledNow({ name }: { name: string }) {
  const { currentData: found = [] } = changesApi.useFormerNamesQuery(name, { skip: name.length < LEAST });
  const same = found.filter((f) => nameOf(f.before).toLowerCase() === name.toLowerCase());
  if (same.length === 0) return null;
  return (
    <ul className="flex flex-col gap-1 text-sm">
      {same.map(({ project, before, after, batch }) => (
        <li key={`${batch} ${before}`}>
          Called <span className="font-mono break-all">{nameOf(after)}</span> now:{' '}
          <Link to={`/projects/${project.id}/batches?batch=${batch}`} className="text-bottle hover:underline">
            the change in {project.number}
          </Link>
        </li>
      ))}
    </ul>
  );
}

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
      <CalledNow name={late} />
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
