/** Two names of one thing, one under the other, with what differs marked; in another folder that is named too. */
import { nameOf, parentOf } from '@nesting/core/listing';
import { compareNames } from '../anatomy/compare';

interface Props {
  readonly before: string;
  readonly after: string;
  readonly isFolder?: boolean;
}

export function BeforeAfter({ before: from, after: to, isFolder = false }: Props) {
  const { before, after } = compareNames(nameOf(from), nameOf(to));
  const isMoved = parentOf(from) !== parentOf(to);
  return (
    <>
      <span className="block truncate font-mono text-sm leading-5 whitespace-pre text-ink2">
        {before.map((p) => p.text).join('')}
      </span>
      <span className="block truncate font-mono text-sm leading-5 whitespace-pre">
        {isMoved && <span className="text-ink2">{parentOf(to)}/</span>}
        {after.map((p) =>
          p.same ? (
            <span key={p.at}>{p.text}</span>
          ) : (
            <mark key={p.at} className="rounded bg-sheet font-bold text-bottle">
              {p.text}
            </mark>
          ),
        )}
        {isFolder ? '/' : ''}
      </span>
    </>
  );
}
