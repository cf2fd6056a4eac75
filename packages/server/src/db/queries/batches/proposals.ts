/** Plans handed in by those who may not carry them out. */
import type { ProposalPage, ProposalRow, RepairAsked } from '@nesting/contract';
import type { Client } from '../../client';

export interface NewProposal {
  readonly id: string;
  readonly project: string;
  readonly person: string;
  readonly asked: RepairAsked;
  readonly findings: number;
  readonly note: string;
}

export async function insertProposal(client: Client, p: NewProposal): Promise<void> {
  await client.query(
    'insert into proposal (id, project_id, person_id, asked, findings, note) values ($1, $2, $3, $4, $5, $6)',
    [p.id, p.project, p.person, JSON.stringify(p.asked), p.findings, p.note],
  );
}

const ROW = `p.id, json_build_object('id', j.id, 'number', j.number, 'title', j.title) project, a.name "by", a.id person, p.findings, p.note,
   p.state, coalesce(s.name, '') "settledBy", p.word, p.batch_id batch, p.at, p.settled_at "settledAt"
   from proposal p join project j on j.id = p.project_id join person a on a.id = p.person_id left join person s on s.id = p.settled_by`;

type Row = Omit<ProposalRow, 'at' | 'settledAt'> & { readonly at: Date; readonly settledAt: Date | null };

const rowOf = ({ at, settledAt, ...row }: Row): ProposalRow => ({
  ...row,
  at: at.toISOString(),
  settledAt: settledAt?.toISOString() ?? null,
});

/** Proposals that are looked through at once. */
const MOST_LISTED = 500;

/** Open ones first, the oldest of them first; of one person alone where that is given. */
export async function listProposals(client: Client, person: string | null): Promise<ProposalRow[]> {
  const { rows } = await client.query<Row>(
    `select ${ROW} where $1::text is null or p.person_id = $1
       order by (p.state = 'open') desc, case when p.state = 'open' then p.at end, p.at desc limit $2`,
    [person, MOST_LISTED],
  );
  return rows.map(rowOf);
}

export async function readProposal(client: Client, id: string): Promise<ProposalPage | null> {
  const { rows } = await client.query<Row & { readonly asked: RepairAsked }>(`select p.asked, ${ROW} where p.id = $1`, [
    id,
  ]);
  const [row] = rows;
  if (row === undefined) return null;
  const { asked, ...rest } = row;
  return { ...rowOf(rest), asked };
}

export interface Settled {
  readonly state: 'taken' | 'refused';
  readonly by: string | null;
  readonly word: string;
  readonly batch: string | null;
}

/** Whether it was open still. */
export async function settleProposal(
  client: Client,
  id: string,
  { state, by, word, batch }: Settled,
): Promise<boolean> {
  const { rowCount } = await client.query(
    `update proposal set state = $2, settled_by = $3, word = $4, batch_id = $5, settled_at = clock_timestamp()
       where id = $1 and state = 'open'`,
    [id, state, by, word, batch],
  );
  return rowCount === 1;
}
