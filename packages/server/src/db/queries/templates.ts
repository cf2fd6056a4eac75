import type { TemplateRow } from '@nesting/contract';
import { type Convention, type Template, withConventions } from '@nesting/core';
import type { Client } from '../client';

/** The newest edition of each template with its conventions as they are in force, and the number of projects on any edition. */
export async function listTemplates(client: Client): Promise<TemplateRow[]> {
  const result = await client.query<{ id: string; name: string; edition: number; body: Template; projects: number; conventions: Record<string, Convention> | null }>(`
    select distinct on (t.id) t.id, t.name, e.edition, e.body,
      (select count(*)::int from project p where p.template_id = t.id) as projects,
      (select jsonb_object_agg(u.local_id, (select body from convention_edition where convention_id = u.convention_id order by edition desc limit 1)) from template_convention u where u.template_id = t.id) as conventions
    from template t join template_edition e on e.template_id = t.id
    order by t.id, e.edition desc`);
  return result.rows.map((row) => ({ id: row.id, name: row.name, purpose: row.body.purpose ?? '', edition: row.edition, projects: row.projects, template: withConventions(row.body, row.conventions ?? {}) })).sort((a, b) => b.projects - a.projects || (a.name < b.name ? -1 : 1));
}

export async function readEdition(client: Client, template: string, edition: number): Promise<Template | null> {
  const result = await client.query<{ body: Template }>('select body from template_edition where template_id = $1 and edition = $2', [template, edition]);
  return result.rows[0]?.body ?? null;
}

/** Starter files of an edition by their path in the template. */
export async function readStarters(client: Client, template: string, edition: number): Promise<Map<string, Uint8Array>> {
  const result = await client.query<{ path: string; bytes: Buffer }>('select path, bytes from starter_file where template_id = $1 and edition = $2', [template, edition]);
  return new Map(result.rows.map((row) => [row.path, row.bytes]));
}
