/** Files of people's computers on their way to a volume. */
import type { UploadFile } from '@nesting/contract';
import type { Client } from '../../client';

export interface StoredUpload {
  readonly id: string;
  readonly person: string;
  readonly volume: string;
  readonly folder: string;
  readonly files: readonly UploadFile[];
  readonly isEnded: boolean;
}

const COLUMNS = 'id, person_id "person", volume, folder, files, ended_at is not null "isEnded"';

/** Whether it was kept: somebody may have begun the same at the same moment. */
export async function insertUpload(
  client: Client,
  { id, person, volume, folder, files }: Omit<StoredUpload, 'isEnded'>,
  fingerprint: string,
): Promise<boolean> {
  const { rowCount } = await client.query(
    `insert into upload (id, person_id, volume, folder, files, fingerprint) values ($1, $2, $3, $4, $5, $6)
       on conflict do nothing`,
    [id, person, volume, folder, JSON.stringify(files), fingerprint],
  );
  return rowCount === 1;
}

export async function readUpload(client: Client, id: string): Promise<StoredUpload | null> {
  const { rows } = await client.query<StoredUpload>(`select ${COLUMNS} from upload where id = $1`, [id]);
  return rows[0] ?? null;
}

export interface UploadOfFile extends Omit<StoredUpload, 'files'> {
  /** `null` where no file has that number. */
  readonly file: UploadFile | null;
}

/** With one of its files alone: there may be thousands, and this is asked for each piece of each. */
export async function readUploadOfFile(client: Client, id: string, index: number): Promise<UploadOfFile | null> {
  const { rows } = await client.query<UploadOfFile>(
    `select id, person_id "person", volume, folder, files -> $2::int as file, ended_at is not null "isEnded"
       from upload where id = $1`,
    [id, index],
  );
  return rows[0] ?? null;
}

/** Those of one person that are not ended. */
export async function countUnderWay(client: Client, person: string): Promise<number> {
  const { rows } = await client.query<{ count: number }>(
    'select count(*)::int as count from upload where person_id = $1 and ended_at is null',
    [person],
  );
  return rows[0]?.count ?? 0;
}

/** The same, begun before and not ended. */
export async function uploadUnderWay(
  client: Client,
  { person, volume }: Pick<StoredUpload, 'person' | 'volume'>,
  fingerprint: string,
): Promise<StoredUpload | null> {
  const { rows } = await client.query<StoredUpload>(
    `select ${COLUMNS} from upload where person_id = $1 and volume = $2 and fingerprint = $3 and ended_at is null`,
    [person, volume, fingerprint],
  );
  return rows[0] ?? null;
}

export async function endUpload(client: Client, id: string): Promise<void> {
  await client.query('update upload set ended_at = clock_timestamp() where id = $1 and ended_at is null', [id]);
}

/** Begun so many days ago and not ended since. */
export async function forgottenUploads(client: Client, days: number, most: number): Promise<readonly StoredUpload[]> {
  const { rows } = await client.query<StoredUpload>(
    `select ${COLUMNS} from upload
      where ended_at is null and begun_at < clock_timestamp() - make_interval(days => $1) order by begun_at limit $2`,
    [days, most],
  );
  return rows;
}

export interface Arriving {
  readonly volume: string;
  readonly folder: string;
  /** Initials. */
  readonly by: string;
}

/** Heaps that are still being sent. */
export async function heapsArriving(client: Client): Promise<readonly Arriving[]> {
  const { rows } = await client.query<Arriving>(
    'select u.volume, u.folder, p.initials "by" from upload u join person p on p.id = u.person_id where u.ended_at is null',
  );
  return rows;
}
