import { NO_REGISTERS, type Registers } from '@nesting/core/name';
import type { Client } from '../../client';

/** All house lists in one round trip. */
export async function readRegisters(client: Client): Promise<Registers> {
  const result = await client.query<{ lists: Registers }>(`
    select json_build_object(
      'clients', (select coalesce(json_agg(json_build_object('code', code, 'name', name, 'retired', retired) order by code), '[]') from client),
      'people', (select coalesce(json_agg(json_build_object('initials', initials, 'name', name, 'retired', retired) order by initials), '[]') from person),
      'families', (select coalesce(json_agg(json_strip_nulls(json_build_object('name', name, 'extensions', extensions, 'companions', companions, 'document', case when document <> '' then json_build_object(document, true) end)) order by place, name), '[]') from family),
      'abbreviations', (select coalesce(json_agg(json_build_object('short', short, 'long', long) order by long), '[]') from abbreviation),
      'banned', (select coalesce(json_agg(word order by word), '[]') from banned_word),
      'libraries', (select coalesce(json_agg(json_build_object('path', path, 'name', name) order by path), '[]') from library)
    ) as lists`);
  return result.rows[0]?.lists ?? NO_REGISTERS;
}
