/**
 * A block of the house: what is in it at the middle, where it is used at left, what a change means for each template
 * before it is put in force.
 */

import type { BlockBody, BlockRow, Me, TemplateRow } from '@nesting/contract';
import { NO_REGISTERS, type Registers } from '@nesting/core/name';
import { type FolderNode, findFolder, registersOf, type Template } from '@nesting/core/template';
import { useMemo, useState } from 'react';
import { Link, useOutletContext, useParams } from 'react-router';
import { troubleOf } from '../../app/api';
import { addressFor } from '../../app/endpoints';
import { useAppDispatch } from '../../app/store';
import { useAddress } from '../../app/use-address';
import { type Draft, useDraft } from '../../app/use-draft';
import { usePageTitle } from '../../app/use-page-title';
import { Columns } from '../../columns/columns';
import { Empty, Heading, Trouble } from '../../ui';
import { houseApi } from '../house/house-api';
import { FolderForm } from '../templates/editor/folder-form';
import { FindInHierarchy, OutlinePlan } from '../templates/editor/outline-plan';
import { sampleValues } from '../templates/editor/sample';
import { useFaults } from '../templates/editor/use-faults';
import { templatesApi } from '../templates/templates-api';
import { bodyOfBlock, templateOfBlock } from './as-template';
import { BlockLedger } from './block-ledger';
import { blockDrafts } from './block-slice';
import { blocksApi } from './blocks-api';
import { GivenBlock } from './given-block';

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
      <Empty title="No such shared part">
        <Link to="/blocks" className="text-bottle underline">
          All shared parts
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
  const faults = useFaults(template, studio);
  const current = findFolder(template.root, selected.at(-1) ?? '')?.node ?? template.root;
  const change = (root: typeof template.root, what: string | null) =>
    draft.change({ name: root.name ?? body.name, folders: root.folders ?? [] }, what);
  return (
    <Columns
      id="block"
      labels={['The shared part', 'What is in it', 'The selected folder']}
      given={
        <GivenBlock
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
            <FindInHierarchy className="ml-auto w-32" />
          </div>
          <OutlinePlan
            template={template}
            root={template.root}
            selected={selected}
            faults={faults}
            sample={null}
            onSelect={(ids) => {
              setSelected(ids);
              put({ line: ids.at(-1) ?? null });
            }}
            onChange={mayWrite ? (next, typing) => change(next, typing === null ? null : `name ${typing}`) : null}
            onUndo={(redo) => dispatch(redo ? blockDrafts.redone(row.id) : blockDrafts.undone(row.id))}
            hint="Enter: the next folder. Tab: into the one above. Shift+Tab: out. Alt+arrows: move."
          />
        </>
      }
      consequence={
        <Selected
          row={row}
          template={template}
          node={current}
          fault={faults.get(current.id)}
          studio={studio}
          mayWrite={mayWrite}
          onChange={change}
        />
      }
      ledger={
        <BlockLedger
          row={row}
          body={body}
          draft={draft}
          holders={holders}
          fault={[...faults.values()][0]}
          mayWrite={mayWrite}
        />
      }
    />
  );
}

interface SelectedProps {
  readonly row: BlockRow;
  readonly template: Template;
  readonly node: FolderNode;
  readonly fault: string | undefined;
  readonly studio: Registers;
  readonly mayWrite: boolean;
  readonly onChange: (root: FolderNode, what: string | null) => void;
}

function Selected({ row, template, node, fault, studio, mayWrite, onChange }: SelectedProps) {
  const [upload, { error: unsent }] = blocksApi.usePutBlockStarterMutation();
  const registers = useMemo(() => registersOf(template, studio), [template, studio]);
  return (
    <div className="flex flex-col gap-6">
      {unsent && <Trouble message={troubleOf(unsent)} />}
      {node.id === template.root.id ? (
        <p className="text-sm text-ink2">
          Choose a folder to say what it is for and what may be in it. Numbers are given by the template that holds the
          shared part.
        </p>
      ) : (
        // Editions of a block share their files: each lies under the block's own name, and a changed one under a
        // name of its own.
        <FolderForm
          key={node.id}
          template={template}
          root={template.root}
          node={node}
          families={registers.families.map((f) => f.name)}
          readOnly={!mayWrite}
          onChange={onChange}
          pathOf={(_node, name) => `starters/${row.id}/${Date.now().toString(36)}-${name}`}
          addressOf={(path) => addressFor('readBlockStarter', { id: row.id, query: { path } })}
          onFile={(path, file) => void upload({ id: row.id, path, file })}
          registers={registers}
          values={sampleValues(template.fields, registers, {})}
        />
      )}
      {fault && <p className="text-sm text-brick">{fault}</p>}
    </div>
  );
}
