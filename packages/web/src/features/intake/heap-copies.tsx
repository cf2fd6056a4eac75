/** Whether what lies in a heap may be erased there: how much of it stands elsewhere, on which volumes, since when. */
import type { HeapCopiesTold, HeapPlace } from '@nesting/contract';
import { troubleOf } from '../../app/api';
import { many, moment } from '../../app/words';
import { Heading, Refused } from '../../ui';
import { intakeApi } from './intake-api';

interface Props {
  readonly project: string;
  readonly place: HeapPlace;
}

export function HeapCopies({ project, place }: Props) {
  const asked = { id: project, query: place };
  const { data, error } = intakeApi.useHeapCopiesQuery(asked, { refetchOnMountOrArgChange: true });
  if (error) return <Refused words={troubleOf(error)} />;
  if (data === undefined || data.last === null) return null;
  return (
    <section aria-label="Copies of these files" className="flex flex-col gap-1 text-sm">
      <Heading>May they be erased?</Heading>
      <Verdict told={data} last={data.last} place={place} />
    </section>
  );
}

type Last = NonNullable<HeapCopiesTold['last']>;

function Verdict({ told: { copies }, last, place }: { told: HeapCopiesTold; last: Last; place: HeapPlace }) {
  if (copies === null)
    return <p>Nobody can say: some of it cannot be looked at, or what was brought is not known any more.</p>;
  const { files, inTwo, inOne, inNone, volumes, unproved, alone } = copies;
  const where = place.folder === '' ? place.volume : place.folder;
  if (files === 0) return <p>Nothing lies there any more.</p>;
  if (inTwo === files)
    return (
      <p>
        <strong className="font-semibold text-bottle">Yes.</strong> {files === 1 ? 'The file' : `All ${files} files`} of{' '}
        <span className="font-mono">{where}</span> {files === 1 ? 'stands' : 'stand'} in two places,{' '}
        <span className="font-mono">{volumes.join(', ')}</span>, each read back and proved {moment(last.at)} by{' '}
        {last.by}: {files === 1 ? 'it' : 'they'} may be erased.
      </p>
    );
  return (
    <>
      <p>
        <strong className="font-semibold text-brick">Not yet.</strong> {many(files, 'file')}:{' '}
        {countsOf([
          [inTwo, 'in two places'],
          [inOne, 'in one'],
          [inNone, 'in none'],
        ])}
        .
      </p>
      {unproved.length > 0 && (
        <p className="text-ink2">
          Copies on <span className="font-mono">{unproved.join(', ')}</span> do not count: what is written there can be
          read back from memory only.
        </p>
      )}
      <details>
        <summary className="cursor-pointer text-ink2">Which are not in two places</summary>
        <ul className="max-h-48 overflow-auto font-mono text-xs">
          {alone.map((path) => (
            <li key={path} className="break-all">
              {path}
            </li>
          ))}
          {inOne + inNone > alone.length && <li className="text-ink2">and {inOne + inNone - alone.length} more</li>}
        </ul>
      </details>
    </>
  );
}

const countsOf = (counts: readonly (readonly [number, string])[]): string =>
  counts.flatMap(([count, words]) => (count === 0 ? [] : [`${count} ${words}`])).join(', ');
