import type { TemplateRow } from '@nesting/contract';
import type { Template } from '@nesting/core/template';
import { useAppDispatch } from '../../../app/store';
import { type Draft, useDraft } from '../../../app/use-draft';
import { templatesApi } from '../templates-api';
import { templateDrafts } from './template-slice';

/** The draft of a template; the gallery knows of it too, without being asked for anew at every letter. */
export function useTemplateDraft(row: TemplateRow, mayWrite: boolean): Draft<Template> {
  const dispatch = useAppDispatch();
  const [keep] = templatesApi.useKeepTemplateMutation();
  return useDraft<Template>({
    id: row.id,
    start: row.draft?.template ?? row.template,
    version: row.draft?.version ?? 0,
    mayWrite,
    actions: templateDrafts,
    select: (state) => state.templates[row.id],
    save: async (template, version) => (await keep({ template, version }).unwrap()).version,
    onSaved: (template, version) =>
      void dispatch(
        templatesApi.util.updateQueryData('templates', undefined, (rows) =>
          rows.map((r) =>
            r.id === row.id
              ? {
                  ...r,
                  name: template.name,
                  ...(r.edition === 0 && { template }),
                  draft: { template, version, by: r.draft?.by ?? null, changedAt: new Date().toISOString() },
                }
              : r,
          ),
        ),
      ),
  });
}
