/** All activity a filter finds, as CSV, page by page: however much it is, little of it is in memory. */
import type { ActivityQuery } from '@nesting/contract';
import { csv } from '@nesting/core/text';
import { activityWords } from '@nesting/core/words';
import { readActivity } from '../../db/queries/house/activity';
import type { World } from '../world';

const PAGE = 2000;

export function activityCsv(world: World, query: ActivityQuery): ReadableStream<Uint8Array> {
  let before = query.before;
  let more = true;
  const encoder = new TextEncoder();
  return new ReadableStream({
    start: (stream) =>
      stream.enqueue(
        encoder.encode(csv([['at', 'by', 'what', 'words', 'subject', 'project', 'from', 'request', 'details']])),
      ),
    async pull(stream) {
      if (!more) return stream.close();
      const page = await readActivity(world.db, { ...query, ...(before !== undefined && { before }) }, PAGE);
      before = page.rows.at(-1)?.id;
      more = page.more;
      stream.enqueue(
        encoder.encode(
          csv(
            page.rows.map((r) => [
              r.at,
              r.by ?? '',
              r.what,
              activityWords(r.what, r.params),
              r.subject ?? '',
              r.project?.folder ?? '',
              r.from ?? '',
              r.request ?? '',
              JSON.stringify(r.params),
            ]),
          ),
        ),
      );
    },
  });
}
