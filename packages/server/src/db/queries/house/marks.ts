import type { Mark, Meanings } from '@nesting/core/template';
import type { Client } from '../../client';

/** What each mark means; `lock` keeps others from changing it until the transaction ends. */
export async function readMeanings(client: Client, lock = false): Promise<Meanings> {
  const { rows } = await client.query<{ mark: Mark; words: string }>(
    `select mark, words from mark_meaning ${lock ? 'for update' : 'where words is not null'}`,
  );
  return Object.fromEntries(rows.flatMap((r) => (r.words === null ? [] : [[r.mark, r.words]])));
}

/** False where the mark no longer means `was`; empty words free it. */
export async function writeMeaning(client: Client, mark: Mark, words: string, was: string): Promise<boolean> {
  const result = await client.query(
    "update mark_meaning set words = nullif($2, '') where mark = $1 and coalesce(words, '') = $3",
    [mark, words, was],
  );
  return (result.rowCount ?? 0) > 0;
}
