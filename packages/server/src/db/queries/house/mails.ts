import type { MailRow } from '@nesting/contract';
import type { Client } from '../../client';

export interface NewMail {
  readonly recipient: string;
  readonly subject: string;
  readonly body: string;
}

/** Gives its id. */
export async function insertMail(client: Client, { recipient, subject, body }: NewMail): Promise<string> {
  const result = await client.query<{ id: string }>(
    'insert into mail (recipient, subject, body) values ($1, $2, $3) returning id',
    [recipient, subject, body],
  );
  return String(result.rows[0]?.id);
}

/** Tries after which a mail is given up. */
export const MOST_TRIES = 8;

/** Those that nobody tried to send yet, the oldest first. */
export async function freshMails(client: Client): Promise<string[]> {
  const result = await client.query<{ id: string }>(
    "select id from mail where state = 'waiting' and tries = 0 order by mail.id",
  );
  return result.rows.map((row) => row.id);
}

/** One that waits, locked for whoever sends it; `null` where it was sent, or somebody else sends it. */
export async function lockMail(client: Client, id: string): Promise<NewMail | null> {
  const result = await client.query<NewMail>(
    "select recipient, subject, body from mail where id = $1 and state = 'waiting' for update skip locked",
    [id],
  );
  return result.rows[0] ?? null;
}

/** `kept` stays readable in the outbox; of a sent one the text goes, for links stand in it. */
export async function settleMail(
  client: Client,
  id: string,
  outcome: { readonly state: 'sent' | 'kept' } | { readonly state: 'failed'; readonly said: string },
): Promise<void> {
  if (outcome.state === 'failed')
    await client.query(
      `update mail set tries = tries + 1, said = $2, state = case when tries + 1 >= $3 then 'failed' else 'waiting' end
         where id = $1`,
      [id, outcome.said.slice(0, 500), MOST_TRIES],
    );
  else
    await client.query("update mail set state = $2, body = case when $2 = 'sent' then '' else body end where id = $1", [
      id,
      outcome.state,
    ]);
}

export async function listMails(client: Client): Promise<MailRow[]> {
  const result = await client.query<Omit<MailRow, 'at'> & { at: Date }>(
    'select id, at, recipient, subject, body, state, said from mail order by id desc limit 200',
  );
  return result.rows.map((row) => ({ ...row, at: row.at.toISOString() }));
}
