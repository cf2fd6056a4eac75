/**
 * One click more of what a project has: the entry that comes next in each of its lists. What it makes is shown before
 * it is made.
 */
import type { ProjectPage } from '@nesting/contract';
import { nextEntry } from '@nesting/core/lists';
import type { ListField } from '@nesting/core/name';
import { isKeyed } from '@nesting/core/name';
import { Link } from 'react-router';
import { Heading } from '../../ui';
import { entriesIn } from '../reshape/reshape-slice';

export function Grow({ project, isArtist }: { project: ProjectPage; isArtist: boolean }) {
  const today = new Date().toISOString().slice(0, 10);
  const lists = project.body.fields.filter(
    (f): f is ListField => f.type === 'list' && (!isArtist || f.artistsMayAdd === true),
  );
  // A list within another has its own entries for each: which one is meant is said on the page of the change.
  const offers = lists.flatMap((f) => {
    const value = project.values[f.key];
    if (isKeyed(value)) return [];
    const next = nextEntry(f.of, entriesIn(value, null), today);
    return next === null ? [] : [{ field: f, next }];
  });
  if (offers.length === 0) return null;
  return (
    <section aria-label="More of what it has" className="flex flex-col gap-1">
      <Heading>One more</Heading>
      <p className="flex flex-wrap gap-x-4 gap-y-1 text-sm">
        {offers.map(({ field, next }) => (
          <Link
            key={field.key}
            to={`/projects/${project.id}/change?add=${encodeURIComponent(`${field.key}:${next}`)}`}
            className="text-bottle hover:underline"
            aria-label={`Add ${next} to ${field.label ?? field.key}`}
          >
            {field.label ?? field.key} <span className="font-mono">+ {next}</span>
          </Link>
        ))}
      </p>
    </section>
  );
}
