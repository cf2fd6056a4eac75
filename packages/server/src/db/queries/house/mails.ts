import type { MailRow } from '@nesting/contract';
import type { Client } from '../../client';

export interface Waiting {
  readonly id: number;
  readonly recipient: string;
  readonly subject: string;
  readonly body: string;
}

export async function insertMail(client: Client, mail: Omit<Waiting, 'id'>): Promise<void> {
  await client.query('insert into mail (recipient, subject, body) values ($1, $2, $3)', [
    mail.recipient,
    mail.subject,
    mail.body,
  ]);
}

/** Tries after which a mail is given up. */
const MOST_TRIES = 8;

/** One that waits, locked for whoever sends it. */
export async function nextMail(client: Client): Promise<Waiting | null> {
  return (
    (
      await client.query<Waiting>(
        "select id, recipient, subject, body from mail where state = 'waiting' and at + (tries * tries) * interval '30 seconds' <= clock_timestamp() order by id limit 1 for update skip locked",
      )
    ).rows[0] ?? null
  );
}

/** `kept` stays readable in the outbox; of a sent one the text goes, for links stand in it. */
export async function settleMail(
  client: Client,
  id: number,
  outcome: { readonly state: 'sent' | 'kept' } | { readonly state: 'failed'; readonly said: string },
): Promise<void> {
  if (outcome.state === 'failed')
    await client.query(
      "update mail set tries = tries + 1, said = $2, state = case when tries + 1 >= $3 then 'failed' else 'waiting' end where id = $1",
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
