/** The foot of a block's editor: its draft, and which templates take up its next edition. */
import type { BlockBody, BlockRow, TemplateRow } from '@nesting/contract';
import { deepEqual } from '@nesting/core';
import { diffTemplates } from '@nesting/core/template';
import { differenceWords } from '@nesting/core/words';
import { useState } from 'react';
import { troubleOf } from '../../app/api';
import { DraftConflict } from '../../app/draft-conflict';
import { DraftLedger, discardWords, SaidField } from '../../app/draft-ledger';
import { useAppDispatch } from '../../app/store';
import type { Draft } from '../../app/use-draft';
import { many } from '../../app/words';
import { templateOfBlock } from './as-template';
import { blockDrafts } from './block-slice';
import { blocksApi } from './blocks-api';
import { TakeUp, type Taking } from './take-up';

interface Props {
  readonly row: BlockRow;
  readonly body: BlockBody;
  readonly draft: Draft<BlockBody>;
  readonly holders: readonly TemplateRow[];
  /** The first fault in it. */
  readonly fault: string | undefined;
  readonly mayWrite: boolean;
}

export function BlockLedger({ row, body, draft, holders, fault, mayWrite }: Props) {
  const dispatch = useAppDispatch();
  const { data: editions = [] } = blocksApi.useBlockEditionsQuery(row.id);
  const [said, setSaid] = useState('');
  // All that hold it take it up, until somebody says otherwise.
  const [taking, setTaking] = useState<Taking | null>(null);
  const all = taking ?? holders.map((h) => ({ template: h.id, theirs: [] }));
  const [publish, published] = blocksApi.usePutBlockInForceMutation();
  const [discard] = blocksApi.useDiscardBlockMutation();
  const close = () => dispatch(blockDrafts.closed(row.id));
  const put = async () => {
    const result = await publish({ id: row.id, version: draft.editing?.version ?? 0, said, take: all });
    if ('data' in result) close();
  };
  return (
    <DraftLedger
      edition={row.edition}
      draft={draft}
      open={!deepEqual(body, { name: row.name, folders: row.folders })}
      conflict={<Theirs row={row} body={body} />}
      refused={published.isError ? troubleOf(published.error) : null}
      note={fault ?? heldWords(row)}
      mayPut={fault === undefined}
      discard={
        mayWrite && row.draft !== null
          ? { words: discardWords(row.edition, 'shared part'), run: () => void discard(row.id).then(close) }
          : null
      }
      putInForce={mayWrite ? () => void put() : null}
    >
      <div className="flex max-h-[55vh] flex-col gap-3 overflow-auto">
        <p>
          Each template that takes it up gets its own next edition; what it made of its copy stays. No file on any disk
          is touched.
        </p>
        <TakeUp
          block={row}
          folders={body.folders}
          editions={editions}
          holders={holders}
          taking={all}
          onTaking={setTaking}
        />
        <SaidField said={said} onSaid={setSaid} />
      </div>
    </DraftLedger>
  );
}

const heldWords = ({ usedIn: { length } }: BlockRow): string =>
  length === 0
    ? 'No template holds it.'
    : `${many(length, 'template')} ${length === 1 ? 'holds' : 'hold'} it, each with its own copy.`;

/** What somebody else has in this draft, for the same block. */
function Theirs({ row, body }: { row: BlockRow; body: BlockBody }) {
  const { refetch } = blocksApi.useBlocksQuery();
  const look = async () => {
    const theirs = (await refetch()).data?.find((b) => b.id === row.id)?.draft;
    return theirs ? { thing: theirs.body, version: theirs.version, by: theirs.by } : null;
  };
  const asTemplate = (of: BlockBody) => templateOfBlock(row.id, of, []);
  return (
    <DraftConflict
      id={row.id}
      actions={blockDrafts}
      look={look}
      differences={(theirs) => diffTemplates(asTemplate(body), asTemplate(theirs)).map(differenceWords)}
    />
  );
}
