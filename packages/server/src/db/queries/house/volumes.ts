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
