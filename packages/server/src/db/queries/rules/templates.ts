import type { TemplateDraft, TemplateRow } from '@nesting/contract';
import { type Convention, type Template, withConventions } from '@nesting/core/template';
import { type Client, momentOf } from '../../client';

interface Row {
  readonly id: string;
  readonly name: string;
  readonly edition: number | null;
  readonly body: Template | null;
  readonly projects: number;
  readonly archived: boolean;
  readonly conventions: Record<string, Convention> | null;
  readonly draft: TemplateDraft | null;
}

/**
 * The newest edition of each template with its conventions as they are in force, its draft, and the number of projects
 * on any edition.
 */
export async function listTemplates(client: Client): Promise<TemplateRow[]> {
  const result = await client.query<Row>(`
    select t.id, t.name, e.edition, e.body, t.archived,
      (select count(*)::int from project p where p.template_id = t.id) as projects,
      (select jsonb_object_agg(u.local_id, (select body from convention_edition where convention_id = u.convention_id order by edition desc limit 1)) from template_convention u where u.template_id = t.id) as conventions,
      case when d.template_id is null then null else json_build_object('template', d.body, 'version', d.version, 'by', who.name, 'changedAt', ${momentOf('d.changed_at')}) end as draft
    from template t
    left join lateral (select edition, body from template_edition where template_id = t.id order by edition desc limit 1) e on true
    left join template_draft d on d.template_id = t.id
    left join person who on who.id = d.person_id`);
  return result.rows
    .flatMap((row): TemplateRow[] => {
      const body = row.body === null ? row.draft?.template : withConventions(row.body, row.conventions ?? {});
      if (body === undefined) return [];
      return [
        {
          id: row.id,
          name: row.draft?.template.name ?? row.name,
          purpose: body.purpose ?? '',
          edition: row.edition ?? 0,
          projects: row.projects,
          template: body,
          draft: row.draft,
          archived: row.archived,
        },
      ];
    })
    .sort((a, b) => Number(a.archived) - Number(b.archived) || b.projects - a.projects || (a.name < b.name ? -1 : 1));
}

export async function readEdition(client: Client, template: string, edition: number): Promise<Template | null> {
  const result = await client.query<{ body: Template }>(
    'select body from template_edition where template_id = $1 and edition = $2',
    [template, edition],
  );
  return result.rows[0]?.body ?? null;
}

export async function readNewestEdition(client: Client, template: string): Promise<Template | null> {
  const result = await client.query<{ body: Template }>(
    'select body from template_edition where template_id = $1 order by edition desc limit 1',
    [template],
  );
  return result.rows[0]?.body ?? null;
}

/** Starter files of an edition by their path in the template. */
export async function readStarters(
  client: Client,
  template: string,
  edition: number,
): Promise<Map<string, Uint8Array>> {
  const result = await client.query<{ path: string; bytes: Buffer }>(
    'select path, bytes from starter_file where template_id = $1 and edition = $2',
    [template, edition],
  );
  return new Map(result.rows.map((row) => [row.path, row.bytes]));
}
