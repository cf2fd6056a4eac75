import { type Prefixes, SYSTEMS, type System } from '@nesting/contract';
import type { Client } from '../../client';

export async function projectsByVolume(client: Client): Promise<Map<string, number>> {
  const result = await client.query<{ volume: string; n: number }>(
    'select volume, count(*)::int as n from project group by volume',
  );
  return new Map(result.rows.map((r) => [r.volume, r.n]));
}

export async function readPrefixes(client: Client): Promise<Map<string, Prefixes>> {
  const result = await client.query<{ volume: string; system: System; prefix: string }>(
    'select volume, system, prefix from volume_prefix',
  );
  const all = new Map<string, Prefixes>();
  for (const { volume, system, prefix } of result.rows)
    all.set(volume, { ...(all.get(volume) ?? { windows: '', macos: '', linux: '' }), [system]: prefix });
  return all;
}

export async function writePrefixes(client: Client, volume: string, prefixes: Prefixes): Promise<void> {
  await client.query('delete from volume_prefix where volume = $1', [volume]);
  for (const system of SYSTEMS) {
    const prefix = prefixes[system].trim();
    if (prefix !== '')
      await client.query('insert into volume_prefix (volume, system, prefix) values ($1, $2, $3)', [
        volume,
        system,
        prefix,
      ]);
  }
}

/** What each volume that was taken up is known by. */
export async function readIdentities(client: Client): Promise<Map<string, string>> {
  const { rows } = await client.query<{ volume: string; id: string }>('select volume, id from volume_identity');
  return new Map(rows.map((row) => [row.volume, row.id]));
}

/** Fails by constraint `volume_identity_id_key` where another volume has this identity. */
export async function writeIdentity(client: Client, volume: string, id: string): Promise<void> {
  await client.query(
    `insert into volume_identity (volume, id) values ($1, $2) on conflict (volume) do update
       set id = excluded.id, at = clock_timestamp()`,
    [volume, id],
  );
}
