/** The foot of a convention's editor: its draft, discarded or put in force. */
import type { ConventionRow } from '@nesting/contract';
import type { Convention } from '@nesting/core/template';
import { Link, useNavigate } from 'react-router';
import { troubleOf } from '../../app/api';
import { DraftConflict } from '../../app/draft-conflict';
import { DraftLedger, discardWords } from '../../app/draft-ledger';
import { useAppDispatch } from '../../app/store';
import { many } from '../../app/words';
import { conventionsApi } from './conventions-api';
import { conventionDrafts } from './editor-slice';
import type { useConventionDraft } from './use-convention-draft';

/** What somebody else has in this draft, for the same convention. */
function Theirs({ row, convention }: { row: ConventionRow; convention: Convention }) {
  const { refetch } = conventionsApi.useConventionsQuery();
  const look = async () => {
    const draft = (await refetch()).data?.find((c) => c.id === row.id)?.draft;
    return draft ? { thing: draft.convention, version: draft.version, by: draft.by } : null;
  };
  const differences = (theirs: Convention) =>
    (['name', 'pattern', 'fields', 'families', 'good', 'bad'] as const)
      .filter((key) => JSON.stringify(theirs[key]) !== JSON.stringify(convention[key]))
      .map((key) => (key === 'name' || key === 'pattern' ? `the ${key} ${theirs[key]}` : `other ${key}`));
  return <DraftConflict id={row.id} actions={conventionDrafts} look={look} differences={differences} />;
}

export const isSameConvention = (a: Convention | null, b: Convention | null): boolean =>
  JSON.stringify(a) === JSON.stringify(b);

interface Props {
  readonly row: ConventionRow;
  readonly convention: Convention;
  readonly draft: ReturnType<typeof useConventionDraft>;
  readonly mayWrite: boolean;
  /** How many of the names kept with it do not hold. */
  readonly failing: number;
  readonly usable: boolean;
}

export function ConventionLedger({ row, convention, draft, mayWrite, failing, usable }: Props) {
  const dispatch = useAppDispatch();
  const go = useNavigate();
  const [putInForce, { error: refused }] = conventionsApi.usePutInForceMutation();
  const [discard] = conventionsApi.useDiscardDraftMutation();
  if (!mayWrite)
    return <p className="flex-1 text-ink2">Only a coordinator changes conventions. Trying names changes nothing.</p>;
  const edition = row.edition ?? 0;
  const open = !isSameConvention(convention, row.convention);
  const hindrance = hindranceOf(usable, failing);
  const putAside = async () => {
    await discard(row.id);
    dispatch(conventionDrafts.closed(row.id));
    if (row.edition === null) await go('/conventions');
  };
  const publish = async () => {
    const result = await putInForce({ id: row.id, version: draft.editing?.version ?? 0 });
    if ('data' in result) dispatch(conventionDrafts.closed(row.id));
  };
  return (
    <DraftLedger
      edition={edition}
      draft={draft}
      open={open}
      conflict={<Theirs row={row} convention={convention} />}
      refused={refused ? troubleOf(refused) : null}
      note={
        open && hindrance !== null
          ? hindrance
          : 'Editions of running projects stay as they are until their own plan says otherwise.'
      }
      mayPut={hindrance === null}
      more={
        <Link to="/conventions/learn" className="text-sm font-semibold text-bottle hover:underline">
          Learn from names…
        </Link>
      }
      discard={
        open && (row.draft !== null || row.edition === null)
          ? { words: discardWords(edition, 'convention'), run: () => void putAside() }
          : null
      }
      putInForce={() => void publish()}
    >
      Projects started from now on are named by it. An edition in force never changes again. No file on any disk is
      touched.
    </DraftLedger>
  );
}

function hindranceOf(usable: boolean, failing: number): string | null {
  if (!usable) return 'The pattern cannot be used as it stands.';
  if (failing > 0) return `${many(failing, 'name')} kept with it ${failing === 1 ? 'does' : 'do'} not hold.`;
  return null;
}
