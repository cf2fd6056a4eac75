import type { ConventionRow } from '@nesting/contract';
import type { Convention } from '@nesting/core/template';
import { useAppDispatch } from '../../app/store';
import { type Draft, useDraft } from '../../app/use-draft';
import { conventionsApi } from './conventions-api';
import { conventionDrafts } from './editor-slice';

/** The draft of a convention; the list knows of it too, without being asked for anew at every letter. */
export function useConventionDraft(row: ConventionRow, mayWrite: boolean): Draft<Convention> {
  const dispatch = useAppDispatch();
  const [keep] = conventionsApi.useKeepDraftMutation();
  return useDraft<Convention>({
    id: row.id,
    start: row.draft?.convention ?? row.convention,
    version: row.draft?.version ?? 0,
    mayWrite,
    actions: conventionDrafts,
    select: (state) => state.conventions[row.id],
    save: async (convention, version) => (await keep({ convention, version }).unwrap()).version,
    onSaved: (convention, version) =>
      void dispatch(
        conventionsApi.util.updateQueryData('conventions', undefined, (rows) =>
          rows.map((r) =>
            r.id === row.id
              ? {
                  ...r,
                  name: convention.name,
                  draft: { convention, version, by: r.draft?.by ?? null, changedAt: new Date().toISOString() },
                }
              : r,
          ),
        ),
      ),
  });
}
