/** Documents that still name the old project, each with where it is to point: saved anew they are gone from here. */
import { nameOf } from '@nesting/core/listing';
import { troubleOf } from '../../app/api';
import { many, tailOf } from '../../app/words';
import { Button, CopyButton, Heading } from '../../ui';
import { carryApi } from './carry-api';

export function RelinkList({ project, batch }: { project: string; batch: string }) {
  const { data, error, isFetching, refetch } = carryApi.useMentionsQuery(
    { id: project, batch },
    { refetchOnMountOrArgChange: true },
  );
  return (
    <section aria-label="To be pointed to this project" className="flex flex-col gap-2 text-sm">
      <div className="flex items-baseline gap-2">
        <Heading>To be pointed to this project</Heading>
        <Button variant="quiet" className="ml-auto" disabled={isFetching} onClick={() => void refetch()}>
          Look again
        </Button>
      </div>
      {error !== undefined && <p className="text-brick">{troubleOf(error)}</p>}
      {data?.length === 0 && (
        <p className="text-ink2">No document that can be searched names the old project any more.</p>
      )}
      {data !== undefined && data.length > 0 && (
        <>
          <p className="text-ink2">
            {many(data.length, 'path')} of the old project {data.length === 1 ? 'stands' : 'stand'} in documents that
            only their programs write. Saved anew they are gone from this list.
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
                    {to === null ? (
                      'What it names did not come along.'
                    ) : (
                      <span className="font-mono">→ {tailOf(to)}</span>
                    )}
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
