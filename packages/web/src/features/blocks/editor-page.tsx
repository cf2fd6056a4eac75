/**
 * A block of the house: what is in it at the middle, where it is used at left, what a change means for each template
 * before it is put in force.
 */

import type { BlockBody, BlockRow, Me, TemplateRow } from '@nesting/contract';
import { deepEqual } from '@nesting/core';
import { NO_REGISTERS } from '@nesting/core/name';
import { diagnoseTemplate, diffTemplates, findFolder, registersOf } from '@nesting/core/template';
import { differenceWords, wordsFor } from '@nesting/core/words';
import { useId, useMemo, useState } from 'react';
import { Link, useOutletContext, useParams } from 'react-router';
import { troubleOf } from '../../app/api';
import { DraftConflict } from '../../app/draft-conflict';
import { useAppDispatch } from '../../app/store';
import { useAddress } from '../../app/use-address';
import { type Draft, useDraft } from '../../app/use-draft';
import { usePageTitle } from '../../app/use-page-title';
import { ago, many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Nest } from '../../nest/nest';
import { nestOfTemplate } from '../../nest/of-template';
import { Button, Confirm, Empty, Heading, Labelled, TextInput, Trouble } from '../../ui';
import { houseApi } from '../house/house-api';
import { FolderForm } from '../templates/editor/folder-form';
import { Outline } from '../templates/editor/outline';
import { sampleValues } from '../templates/editor/sample';
import { templatesApi } from '../templates/templates-api';
import { bodyOfBlock, templateOfBlock } from './as-template';
import { blockDrafts } from './block-slice';
import { blocksApi } from './blocks-api';
import { TakeUp, type Taking } from './take-up';

export function BlockPage() {
  const me = useOutletContext<Me>();
  const { id } = useParams();
  const { data: blocks, isError, error, refetch } = blocksApi.useBlocksQuery();
  const { data: templates } = templatesApi.useTemplatesQuery();
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  if (blocks === undefined || templates === undefined) return null;
  const row = blocks.find((b) => b.id === id);
  if (row === undefined)
    return (
      <Empty title="No such block">
        <Link to="/blocks" className="text-bottle underline">
          All blocks
        </Link>
      </Empty>
    );
  return (
    <Editor
      key={row.id}
      row={row}
      holders={templates.filter((t) => row.usedIn.some((u) => u.template === t.id))}
      mayWrite={me.role === 'coordinator'}
    />
  );
}

function useBlockDraft(row: BlockRow, mayWrite: boolean): Draft<BlockBody> {
  const dispatch = useAppDispatch();
  const [keep] = blocksApi.useKeepBlockMutation();
  const start = useMemo(() => bodyOfBlock(row), [row]);
  return useDraft<BlockBody>({
    id: row.id,
    start,
    version: row.draft?.version ?? 0,
    mayWrite,
    actions: blockDrafts,
    select: (state) => state.blocks[row.id],
    save: async (body, version) => (await keep({ id: row.id, body, version }).unwrap()).version,
    onSaved: (body, version) =>
      void dispatch(
        blocksApi.util.updateQueryData('blocks', undefined, (rows) =>
          rows.map((r) =>
            r.id === row.id
              ? { ...r, draft: { body, version, by: r.draft?.by ?? null, changedAt: new Date().toISOString() } }
              : r,
          ),
        ),
      ),
  });
}

function Editor({ row, holders, mayWrite }: { row: BlockRow; holders: readonly TemplateRow[]; mayWrite: boolean }) {
  usePageTitle(row.name);
  const dispatch = useAppDispatch();
  const [params, put] = useAddress();
  const { data: studio = NO_REGISTERS } = houseApi.useRegistersQuery();
  const draft = useBlockDraft(row, mayWrite);
  const body = draft.editing?.now ?? bodyOfBlock(row);
  const template = useMemo(() => templateOfBlock(row.id, body, holders), [row.id, body, holders]);
  const [selected, setSelected] = useState<readonly string[]>([params.get('line') ?? template.root.id]);
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set());
  const [said, setSaid] = useState('');
  const [upload, { error: unsent }] = blocksApi.usePutBlockStarterMutation();
  const faults = useMemo(
    () =>
      new Map(
        diagnoseTemplate(template, studio)
          .filter((d) => d.node !== null)
          .map((d) => [d.node as string, wordsFor(d.code, d.params)]),
      ),
    [template, studio],
  );
  const current = findFolder(template.root, selected.at(-1) ?? '')?.node ?? template.root;
  const change = (root: typeof template.root, what: string | null) =>
    draft.change({ name: root.name ?? body.name, folders: root.folders ?? [] }, what);
  return (
    <Columns
      id="block"
      labels={['The block', 'What is in it', 'The selected folder']}
      given={
        <Given
          row={row}
          body={body}
          template={template}
          mayWrite={mayWrite}
          onName={(name) => draft.change({ ...body, name }, 'name')}
        />
      }
      plan={
        <>
          <div className="flex items-center gap-3 pb-2">
            <Heading>Folders</Heading>
            <TextInput
              aria-label="Find in the hierarchy"
              placeholder="Find"
              value={params.get('find') ?? ''}
              onChange={(e) => put({ find: e.target.value })}
              className="ml-auto w-32"
            />
          </div>
          <Outline
            template={template}
            root={template.root}
            selected={selected}
            closed={closed}
            faults={faults}
            sample={null}
            sought={params.get('find') ?? ''}
            onSelect={(ids) => {
              setSelected(ids);
              put({ line: ids.at(-1) ?? null });
            }}
            onClose={(id, close) => setClosed(new Set(close ? [...closed, id] : [...closed].filter((c) => c !== id)))}
            onChange={mayWrite ? (next, typing) => change(next, typing === null ? null : `name ${typing}`) : null}
            onUndo={(redo) => dispatch(redo ? blockDrafts.redone(row.id) : blockDrafts.undone(row.id))}
            onSaid={setSaid}
          />
          <p role="status" className="pt-1 text-xs text-ink2">
            {said || 'Enter: the next folder. Tab: into the one above. Shift+Tab: out. Alt+arrows: move.'}
          </p>
        </>
      }
      consequence={
        <div className="flex flex-col gap-6">
          {unsent && <Trouble message={troubleOf(unsent)} />}
          {current.id === template.root.id ? (
            <p className="text-sm text-ink2">
              Choose a folder to say what it is for and what may be in it. Numbers are given by the template that holds
              the block.
            </p>
          ) : (
            // Editions of a block share their files: each lies under the block's own name, and a changed one under a
            // name of its own.
            <FolderForm
              key={current.id}
              template={template}
              root={template.root}
              node={current}
              families={registersOf(template, studio).families.map((f) => f.name)}
              readOnly={!mayWrite}
              onChange={change}
              pathOf={(_node, name) => `starters/${row.id}/${Date.now().toString(36)}-${name}`}
              addressOf={(path) => `/api/blocks/${encodeURIComponent(row.id)}/starter?path=${encodeURIComponent(path)}`}
              onFile={(path, file) => void upload({ id: row.id, path, file })}
              registers={registersOf(template, studio)}
              values={sampleValues(template.fields, registersOf(template, studio), {})}
            />
          )}
          {faults.get(current.id) && <p className="text-sm text-brick">{faults.get(current.id)}</p>}
        </div>
      }
      ledger={<Ledger row={row} body={body} draft={draft} holders={holders} faults={faults} mayWrite={mayWrite} />}
    />
  );
}

function Given({
  row,
  body,
  template,
  mayWrite,
  onName,
}: {
  row: BlockRow;
  body: BlockBody;
  template: ReturnType<typeof templateOfBlock>;
  mayWrite: boolean;
  onName: (name: string) => void;
}) {
  const id = useId();
  const { data: editions = [] } = blocksApi.useBlockEditionsQuery(row.id);
  return (
    <div className="flex flex-col gap-4">
      <Link to="/blocks" className="text-sm text-bottle hover:underline">
        All blocks
      </Link>
      <h1 className="sr-only">{body.name}</h1>
      <Labelled id={id} label="Block">
        <TextInput
          id={id}
          value={body.name}
          readOnly={!mayWrite}
          onChange={(e) => onName(e.target.value)}
          className="text-lg font-semibold"
        />
      </Labelled>
      <Nest root={nestOfTemplate(template)} width={200} height={110} label={`The shape of ${body.name}`} />
      <section aria-label="Where it is used" className="flex flex-col gap-1 text-sm">
        <Heading>Where it is used</Heading>
        {row.usedIn.length === 0 && (
          <p className="text-ink2">In no template yet: open one, choose a folder, and put it in.</p>
        )}
        <ul>
          {row.usedIn.map((u) => (
            <li key={u.template} className="flex justify-between gap-3 border-b border-line py-1">
              <Link to={`/templates/${encodeURIComponent(u.template)}`} className="text-bottle hover:underline">
                {u.name}
              </Link>
              <span className="text-note">{u.edition === row.edition ? 'as it is now' : `edition ${u.edition}`}</span>
            </li>
          ))}
        </ul>
      </section>
      <section aria-label="Editions" className="flex flex-col gap-1 text-sm">
        <Heading>Editions</Heading>
        <ul>
          {editions.map((e, i) => {
            const before = editions[i + 1];
            const words =
              before === undefined
                ? []
                : diffTemplates(templateOfBlock(row.id, before, []), templateOfBlock(row.id, e, [])).map(
                    differenceWords,
                  );
            return (
              <li key={e.edition} className="border-b border-line py-1">
                <span className="font-semibold">{e.edition}</span> {e.said}{' '}
                <span className="text-xs text-ink2">
                  {ago(e.at)}
                  {e.by ? `, ${e.by}` : ''}
                </span>
                {words.length > 0 && (
                  <details className="text-xs">
                    <summary className="cursor-pointer text-bottle">{many(words.length, 'difference')}</summary>
                    <ul className="list-inside list-disc">
                      {words.slice(0, 60).map((w) => (
                        <li key={w}>{w}</li>
                      ))}
                    </ul>
                  </details>
                )}
              </li>
            );
          })}
        </ul>
      </section>
    </div>
  );
}

interface LedgerProps {
  readonly row: BlockRow;
  readonly body: BlockBody;
  readonly draft: Draft<BlockBody>;
  readonly holders: readonly TemplateRow[];
  readonly faults: ReadonlyMap<string, string>;
  readonly mayWrite: boolean;
}

function Ledger({ row, body, draft, holders, faults, mayWrite }: LedgerProps) {
  const dispatch = useAppDispatch();
  const id = useId();
  const { data: editions = [] } = blocksApi.useBlockEditionsQuery(row.id);
  const { refetch } = blocksApi.useBlocksQuery();
  const [said, setSaid] = useState('');
  // All that hold it take it up, until somebody says otherwise.
  const [taking, setTaking] = useState<Taking | null>(null);
  const all = taking ?? holders.map((h) => ({ template: h.id, theirs: [] }));
  const [publish, published] = blocksApi.usePutBlockInForceMutation();
  const [discard] = blocksApi.useDiscardBlockMutation();
  const open = !deepEqual(body, { name: row.name, folders: row.folders });
  const [first] = faults.values();
  const look = async () => {
    const theirs = (await refetch()).data?.find((b) => b.id === row.id)?.draft;
    return theirs ? { thing: theirs.body, version: theirs.version, by: theirs.by } : null;
  };
  const close = () => dispatch(blockDrafts.closed(row.id));
  const put = async () => {
    const result = await publish({ id: row.id, version: draft.editing?.version ?? 0, said, take: all });
    if ('data' in result) close();
  };
  return (
    <>
      <p className="flex-1" role="status">
        {draft.trouble !== null ? (
          <>
            {draft.trouble}{' '}
            <DraftConflict
              id={row.id}
              actions={blockDrafts}
              look={look}
              differences={(theirs) =>
                diffTemplates(templateOfBlock(row.id, body, []), templateOfBlock(row.id, theirs, [])).map(
                  differenceWords,
                )
              }
            />
          </>
        ) : published.isError ? (
          troubleOf(published.error)
        ) : (
          <>
            <strong className="font-semibold">
              {!open ? `Edition ${row.edition} is in force.` : draft.kept ? 'Draft kept.' : 'Keeping the draft…'}
            </strong>{' '}
            <span className="text-ink2">
              {first ??
                (row.usedIn.length === 0
                  ? 'No template holds it.'
                  : `${many(row.usedIn.length, 'template')} ${row.usedIn.length === 1 ? 'holds' : 'hold'} it, each with its own copy.`)}
            </span>
          </>
        )}
      </p>
      {mayWrite && row.draft !== null && (
        <Confirm
          trigger={<Button>Put the draft aside…</Button>}
          title="Put the draft aside?"
          act="Put it aside"
          run={() => void discard(row.id).then(close)}
        >
          What was changed since edition {row.edition} is gone; edition {row.edition} stays in force.
        </Confirm>
      )}
      {mayWrite && (
        <Confirm
          trigger={
            <Button look="main" disabled={!open || first !== undefined || !draft.kept}>
              Put edition {row.edition + 1} in force…
            </Button>
          }
          title={`Put edition ${row.edition + 1} in force?`}
          act={`Put edition ${row.edition + 1} in force`}
          run={() => void put()}
        >
          <div className="flex max-h-[55vh] flex-col gap-3 overflow-auto">
            <p>
              Each template that takes it up gets its own next edition; what it made of its copy stays. No file on any
              disk is touched.
            </p>
            <TakeUp
              block={row}
              folders={body.folders}
              editions={editions}
              holders={holders}
              taking={all}
              onTaking={setTaking}
            />
            <Labelled id={id} label="What changed, in a sentence">
              <TextInput id={id} value={said} maxLength={200} onChange={(e) => setSaid(e.target.value)} />
            </Labelled>
          </div>
        </Confirm>
      )}
    </>
  );
}
