/** Documents that still name an old project or old places, each with where it is to point: saved anew they are gone from here. */
import { nameOf } from '@nesting/core/listing';
import { useState } from 'react';
import { troubleOf } from '../../app/api';
import { many, tailOf } from '../../app/words';
import { Button, CopyButton, Heading } from '../../ui';
import { carryApi } from './carry-api';

interface ListWords {
  readonly title: string;
  readonly none: string;
  readonly found: (count: number) => string;
  readonly gone: string;
}

const OLD_PROJECT: ListWords = {
  title: 'To be pointed to this project',
  none: 'No document that can be searched names the old project any more.',
  found: (count) => `${many(count, 'path')} of the old project ${count === 1 ? 'stands' : 'stand'}`,
  gone: 'What it names did not come along.',
};

const OLD_PLACES: ListWords = {
  title: 'Documents that name old places',
  none: 'No document that can be searched names what was moved.',
  found: (count) => `${many(count, 'old name')} ${count === 1 ? 'stands' : 'stand'}`,
  gone: 'What it names is gone, or in several places.',
};

interface Props {
  readonly project: string;
  readonly batch: string;
  readonly isCarriedOver: boolean;
}

/** A project that was carried over is searched at once, and what a change moved only when it is asked for. */
export function RelinkList({ project, batch, isCarriedOver }: Props) {
  const [asked, setAsked] = useState<string | null>(null);
  const isAsked = isCarriedOver || asked === batch;
  const words = isCarriedOver ? OLD_PROJECT : OLD_PLACES;
  const { data, error, isFetching, refetch } = carryApi.useMentionsQuery(
    { id: project, batch },
    { refetchOnMountOrArgChange: true, skip: !isAsked },
  );
  if (!isAsked)
    return (
      <Button className="self-start" onClick={() => setAsked(batch)}>
        Look for documents that name old places
      </Button>
    );
  return (
    <section aria-label={words.title} className="flex flex-col gap-2 text-sm">
      <div className="flex items-baseline gap-2">
        <Heading>{words.title}</Heading>
        <Button variant="quiet" className="ml-auto" disabled={isFetching} onClick={() => void refetch()}>
          Look again
        </Button>
      </div>
      {error !== undefined && <p className="text-brick">{troubleOf(error)}</p>}
      {isFetching && data === undefined && <p className="text-ink2">Looking through the documents…</p>}
      {data?.length === 0 && <p className="text-ink2">{words.none}</p>}
      {data !== undefined && data.length > 0 && (
        <>
          <p className="text-ink2">
            {words.found(data.length)} in documents that only their programs write. Saved anew they are gone from this
            list.
          </p>
          <ul className="flex flex-col gap-1.5">
            {data.map(({ document, target, to }) => (
              <li
                key={`${document} ${target}`}
                className="flex items-start gap-1 rounded-tray border border-line bg-sheet px-2 py-1"
              >
                <span className="min-w-0 flex-1">
                  <span className="block truncate font-mono" title={document}>
                    {nameOf(document)}
                  </span>
                  <span className="block truncate font-mono text-xs text-ink2" title={target}>
                    {tailOf(target)}
                  </span>
                  <span className="block truncate text-xs" title={to ?? undefined}>
                    {to === null ? words.gone : <span className="font-mono">→ {tailOf(to)}</span>}
                  </span>
                </span>
                {to !== null && <CopyButton text={to} what="the new path" />}
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
