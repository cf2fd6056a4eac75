/** What others renamed of one's own, old → new: whoever looks for a file under its old name finds what became of it. */
import { nameOf, parentOf } from '@nesting/core/listing';
import { Link } from 'react-router';
import { ago } from '../../app/words';
import { Heading } from '../../ui';
import { changesApi } from '../batches/changes-api';

export function RenamedLately() {
  const { data: renamed = [] } = changesApi.useMyFormerNamesQuery();
  if (renamed.length === 0) return null;
  return (
    <section className="flex flex-col gap-2">
      <Heading>Renamed lately by others</Heading>
      <ul>
        {renamed.map(({ project, before, after, batch, at }) => (
          <li key={`${batch} ${before}`} className="flex gap-3 border-b border-line py-2">
            <div className="min-w-0 flex-1">
              <p className="font-mono text-sm break-all text-ink2">{nameOf(before)}</p>
              <p className="font-mono break-all">{nameOf(after)}</p>
              <p className="font-mono text-xs break-all text-ink2">{parentOf(after) || 'the project’s root'}</p>
            </div>
            <Link
              to={`/projects/${project.id}/batches?batch=${batch}`}
              className="shrink-0 text-sm text-bottle hover:underline"
            >
              {project.number}, {ago(at)}
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
