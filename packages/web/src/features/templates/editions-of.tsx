/** The editions of a template: what changed in each, one beside another, an earlier one as the next draft. */
import type { TemplateRow } from '@nesting/contract';
import { diffTemplates, type Template } from '@nesting/core/template';
import { differenceWords } from '@nesting/core/words';
import { useNavigate } from 'react-router';
import { api, troubleOf } from '../../app/api';
import { useAppDispatch } from '../../app/store';
import { ago, many } from '../../app/words';
import { Button, Heading } from '../../ui';
import { templateDrafts } from './editor/template-slice';
import { templatesApi } from './templates-api';

interface EditionsOfProps {
  readonly row: TemplateRow;
  readonly mayWrite: boolean;
  readonly compared: number | null;
  readonly onCompare: (edition: number | null) => void;
}

export function EditionsOf({ row, mayWrite, compared, onCompare }: EditionsOfProps) {
  const { data = [] } = templatesApi.useEditionsQuery(row.id);
  const [keep, { error }] = templatesApi.useKeepTemplateMutation();
  const dispatch = useAppDispatch();
  const go = useNavigate();
  // An earlier edition is never in force again: it becomes the draft of the next one.
  const restore = async (template: Template) => {
    await keep({ template, version: row.draft?.version ?? 0 }).unwrap();
    dispatch(templateDrafts.closed(row.id));
    dispatch(api.util.invalidateTags(['templates']));
    await go(`/templates/${row.id}/edit`);
  };
  if (data.length < 2 && !data[0]?.said) return null;
  return (
    <section aria-label="Editions" className="flex flex-col gap-1">
      <Heading>Editions</Heading>
      {error && <p className="text-sm text-brick">{troubleOf(error)}</p>}
      <ul className="flex flex-col gap-1 text-sm">
        {data.map((e, i) => {
          const before = data[i + 1];
          const differences = before === undefined ? [] : diffTemplates(before.template, e.template);
          return (
            <li key={e.edition}>
              <span className="font-semibold">{e.edition}</span> {e.said}{' '}
              <span className="text-xs text-ink2">
                {ago(e.at)}
                {e.by ? `, ${e.by}` : ''}
              </span>
              {differences.length > 0 && (
                <details className="text-xs">
                  <summary className="cursor-pointer text-bottle">
                    {many(differences.length, 'difference')} from edition {before?.edition}
                  </summary>
                  <ul className="list-inside list-disc">
                    {differences.slice(0, 60).map((d) => (
                      <li key={JSON.stringify(d)}>{differenceWords(d)}</li>
                    ))}
                  </ul>
                </details>
              )}
              {i > 0 && (
                <Button
                  variant="quiet"
                  className="mr-3 h-6!"
                  aria-pressed={compared === e.edition}
                  onClick={() => onCompare(compared === e.edition ? null : e.edition)}
                >
                  {compared === e.edition ? 'Show it as it is' : 'Compare as a tree'}
                </Button>
              )}
              {mayWrite && i > 0 && (
                <Button variant="quiet" className="h-6!" onClick={() => void restore(e.template)}>
                  {row.draft ? 'Put it in the draft’s place' : 'Make it the draft'}
                </Button>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
