/** The foot of a template's editor: its draft, discarded or put in force with what that means. */
import type { TemplateRow } from '@nesting/contract';
import { type Difference, diffTemplates, type Template } from '@nesting/core/template';
import { differenceWords } from '@nesting/core/words';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { troubleOf } from '../../../app/api';
import { DraftConflict } from '../../../app/draft-conflict';
import { DraftLedger, discardWords, SaidField } from '../../../app/draft-ledger';
import { useAppDispatch } from '../../../app/store';
import { many } from '../../../app/words';
import { templatesApi } from '../templates-api';
import { templateDrafts } from './template-slice';
import type { useTemplateDraft } from './use-template-draft';

const same = (a: Template, b: Template): boolean =>
  JSON.stringify({ ...a, edition: 0 }) === JSON.stringify({ ...b, edition: 0 });
const SHOWN = 14;

interface Props {
  readonly row: TemplateRow;
  readonly template: Template;
  readonly draft: ReturnType<typeof useTemplateDraft>;
  /** The first fault in it. */
  readonly fault: string | undefined;
}

export function TemplateLedger({ row, template, draft, fault }: Props) {
  const dispatch = useAppDispatch();
  const go = useNavigate();
  const [said, setSaid] = useState('');
  const [publish, { error: refused }] = templatesApi.usePutTemplateInForceMutation();
  const [discard] = templatesApi.useDiscardTemplateMutation();
  const open = row.edition === 0 || !same(template, row.template);
  const differences = useMemo(
    () => (open && row.edition > 0 ? diffTemplates(row.template, template) : []),
    [open, row, template],
  );
  const putAside = async () => {
    await discard(row.id);
    dispatch(templateDrafts.closed(row.id));
    if (row.edition === 0) await go('/templates');
  };
  const put = async () => {
    const result = await publish({ id: row.id, version: draft.editing?.version ?? 0, said });
    if ('data' in result) {
      dispatch(templateDrafts.closed(row.id));
      await go(`/templates/${row.id}`);
    }
  };
  const note =
    differences.length > 0
      ? `${many(differences.length, 'difference')} from edition ${row.edition}.`
      : 'Projects keep the edition they were started with.';
  return (
    <DraftLedger
      edition={row.edition}
      draft={draft}
      open={open}
      conflict={<Theirs row={row} template={template} />}
      refused={refused ? troubleOf(refused) : null}
      note={fault ?? note}
      mayPut={fault === undefined}
      discard={
        open && (row.draft !== null || row.edition === 0)
          ? { words: discardWords(row.edition, 'template'), run: () => void putAside() }
          : null
      }
      putInForce={() => void put()}
    >
      <div className="flex flex-col gap-3">
        <p>
          Projects started from now on are made by it. An edition in force never changes again. No file on any disk is
          touched.
        </p>
        <Differences differences={differences} />
        {row.projects > 0 && open && <NameImpact template={template} />}
        <SaidField said={said} onSaid={setSaid} />
      </div>
    </DraftLedger>
  );
}

function Differences({ differences }: { differences: readonly Difference[] }) {
  if (differences.length === 0) return null;
  return (
    <ul className="max-h-40 list-inside list-disc overflow-auto text-sm">
      {differences.slice(0, SHOWN).map((d) => (
        <li key={JSON.stringify(d)}>{differenceWords(d)}</li>
      ))}
      {differences.length > SHOWN && <li>and {differences.length - SHOWN} more</li>}
    </ul>
  );
}

/** What somebody else has in this draft, for the same template. */
function Theirs({ row, template }: { row: TemplateRow; template: Template }) {
  const { refetch } = templatesApi.useTemplatesQuery();
  const look = async () => {
    const draft = (await refetch()).data?.find((t) => t.id === row.id)?.draft;
    return draft ? { thing: draft.template, version: draft.version, by: draft.by } : null;
  };
  return (
    <DraftConflict
      id={row.id}
      actions={templateDrafts}
      look={look}
      differences={(theirs) => diffTemplates(template, theirs).map(differenceWords)}
    />
  );
}

/** What it would mean for every running project on an earlier edition. */
function NameImpact({ template }: { template: Template }) {
  const { data } = templatesApi.useTemplateImpactQuery(template);
  if (data === undefined) return <p className="text-sm text-ink2">Looking what it would mean for running projects…</p>;
  return (
    <ul className="flex max-h-40 flex-col gap-1 overflow-auto text-sm">
      {data.map((r) => (
        <li key={r.project.id}>
          <span className="font-mono">{r.project.folder}</span> on edition {r.project.edition}:{' '}
          {r.gains + r.loses + r.renames === 0
            ? 'nothing would be otherwise'
            : `would gain ${r.gains}, have ${r.renames} named otherwise, and ${r.loses} not planned any more`}
        </li>
      ))}
    </ul>
  );
}
