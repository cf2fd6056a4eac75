/**
 * A template as one writes it: what is asked for at left, the outline in the middle, the selected folder at right; a
 * sample project over it at any time.
 */

import type { Me, TemplateRow } from '@nesting/contract';
import { type Field, NO_REGISTERS, type Registers, type Values } from '@nesting/core/name';
import {
  type Block,
  type FolderNode,
  findFolder,
  registersOf,
  rootOfBlock,
  type Template,
  withBlock,
} from '@nesting/core/template';
import { useDeferredValue, useMemo, useState } from 'react';
import { Link, useOutletContext, useParams } from 'react-router';
import { troubleOf } from '../../../app/api';
import { addressFor } from '../../../app/endpoints';
import { useAppDispatch } from '../../../app/store';
import { useAddress } from '../../../app/use-address';
import { usePageTitle } from '../../../app/use-page-title';
import { many } from '../../../app/words';
import { Columns } from '../../../columns/columns';
import { Button, Empty, Heading, Tick, Trouble } from '../../../ui';
import { houseApi } from '../../house/house-api';
import { templatesApi } from '../templates-api';
import { BlockActs } from './block-acts';
import { FieldForm } from './field-form';
import { pathOfStarter } from './files-of-template';
import { FolderForm } from './folder-form';
import { Given, SETTINGS } from './given';
import { FindInHierarchy, OutlinePlan } from './outline-plan';
import { type Sample, sampleOf, sampleValues, useSampleValues } from './sample';
import { SettingsForm } from './settings-form';
import { TemplateLedger } from './template-ledger';
import { templateDrafts } from './template-slice';
import { useFaults } from './use-faults';
import { useTemplateDraft } from './use-template-draft';

export function TemplateEditorPage() {
  const me = useOutletContext<Me>();
  const { id } = useParams();
  const { data, isError, error, refetch } = templatesApi.useTemplatesQuery();
  const { data: studio } = houseApi.useRegistersQuery();
  const row = data?.find((t) => t.id === id);
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  if (data === undefined || studio === undefined) return null;
  if (row === undefined)
    return (
      <Empty title="No such template">
        <Link to="/templates" className="text-bottle underline">
          All templates
        </Link>
      </Empty>
    );
  if (me.role !== 'coordinator')
    return (
      <Empty title="Only a coordinator changes templates">
        <Link to={`/templates/${row.id}`} className="text-bottle underline">
          Look at {row.name}
        </Link>
      </Empty>
    );
  return <Editor key={row.id} row={row} studio={studio ?? NO_REGISTERS} />;
}

function Editor({ row, studio }: { row: TemplateRow; studio: Registers }) {
  usePageTitle(`Change ${row.name}`);
  const dispatch = useAppDispatch();
  const [params, put] = useAddress();
  const draft = useTemplateDraft(row, true);
  const template = draft.editing?.now ?? row.draft?.template ?? row.template;
  const [selected, setSelected] = useState<readonly string[]>([params.get('line') ?? template.root.id]);
  const [values, give] = useSampleValues(row.id);
  const laid = params.get('sample') === 'yes';
  const { registers, faults, laidValues, sample } = useJudged(template, studio, values, laid);
  // The outline writes in the template's own hierarchy, or in one of its blocks.
  const block = template.blocks?.find((b) => b.id === params.get('block'));
  const root = useMemo(() => (block === undefined ? template.root : rootOfBlock(block)), [block, template.root]);
  const changeRoot = (next: FolderNode, what: string | null) =>
    draft.change(block === undefined ? { ...template, root: next } : withBlock(template, block.id, next), what);
  const field = template.fields.find((f) => (f.id ?? f.key) === params.get('field'));
  const current = findFolder(root, selected.at(-1) ?? '')?.node ?? root;
  return (
    <Columns
      id="template-editor"
      labels={['The template', 'Its hierarchy', field ? 'The selected field' : 'The selected folder']}
      given={
        <Given
          row={row}
          template={template}
          registers={registers}
          laid={laid}
          sample={sample}
          values={values}
          chosen={params.get('field')}
          onField={(key) => put({ field: key })}
          onChange={draft.change}
          onValue={give}
        />
      }
      plan={
        <>
          <OutlineHead template={template} block={block} sample={sample} laid={laid} />
          <OutlinePlan
            template={template}
            root={root}
            selected={selected}
            onSelect={(ids) => {
              setSelected(ids);
              put({ line: ids.at(-1) ?? null, field: null });
            }}
            faults={sample?.faults.size ? sample.faults : faults}
            sample={sample?.rows ?? null}
            onChange={(next, typing) => changeRoot(next, typing === null ? null : `name ${typing}`)}
            onUndo={(redo) => dispatch(redo ? templateDrafts.redone(row.id) : templateDrafts.undone(row.id))}
            hint="Enter: the next folder. Tab: into the one above. Shift+Tab: out. Alt+arrows: move. Paste a list to get its tree."
          />
        </>
      }
      consequence={
        <Selected
          row={row}
          template={template}
          block={block}
          root={root}
          node={current}
          field={field}
          fault={faults.get(current.id)}
          registers={registers}
          values={laidValues}
          onRoot={changeRoot}
          onChange={draft.change}
          onBlock={(id) => {
            setSelected([`block:${id}`]);
            put({ block: id, line: null });
          }}
        />
      }
      ledger={<TemplateLedger row={row} template={template} draft={draft} fault={[...faults.values()][0]} />}
    />
  );
}

function sizeOf(template: Template): number {
  let n = 0;
  const walk = (node: Template['root']): void => {
    n++;
    node.folders?.forEach(walk);
  };
  walk(template.root);
  return n;
}

/** What follows from the template. Resolved at each letter a moment later; the sample only where it is looked at. */
function useJudged(template: Template, studio: Registers, values: Values, laid: boolean) {
  const late = useDeferredValue(template);
  const registers = useMemo(() => registersOf(late, studio), [late, studio]);
  const faults = useFaults(late, studio);
  const laidValues = useMemo(() => sampleValues(late.fields, registers, values), [late.fields, registers, values]);
  const sample = useMemo(() => (laid ? sampleOf(late, studio, laidValues) : null), [laid, late, studio, laidValues]);
  return { registers, faults, laidValues, sample };
}

interface OutlineHeadProps {
  readonly template: Template;
  readonly block: Block | undefined;
  readonly sample: Sample | null;
  readonly laid: boolean;
}

function OutlineHead({ template, block, sample, laid }: OutlineHeadProps) {
  const [, put] = useAddress();
  return (
    <div className="flex flex-wrap items-center gap-3 pb-2">
      <Heading>{block === undefined ? 'Folders' : `The shared part ${block.name ?? block.id}`}</Heading>
      {block !== undefined && (
        <Button variant="quiet" className="h-6!" onClick={() => put({ block: null, line: null })}>
          Back to the whole
        </Button>
      )}
      <span className="mr-auto text-xs text-ink2">
        {many(sizeOf(template), 'folder')}
        {sample
          ? `; the sample makes ${many(sample.expansion.folders, 'folder')}, longest path ${sample.expansion.longest} of ${sample.expansion.budget}`
          : ''}
      </span>
      <FindInHierarchy className="w-32" />
      <Tick label="Lay a sample over it" checked={laid} onChange={(on) => put({ sample: on ? 'yes' : null })} />
    </div>
  );
}

interface SelectedProps {
  readonly row: TemplateRow;
  readonly template: Template;
  /** The block whose hierarchy is written; absent for the template's own. */
  readonly block: Block | undefined;
  readonly root: FolderNode;
  readonly node: FolderNode;
  readonly field: Field | undefined;
  readonly fault: string | undefined;
  readonly registers: Registers;
  readonly values: Values;
  readonly onRoot: (next: FolderNode, what: string | null) => void;
  readonly onChange: (template: Template, what: string | null) => void;
  readonly onBlock: (id: string) => void;
}

function Selected(props: SelectedProps) {
  const { row, template, block, root, node, field, fault, registers, values, onRoot, onChange, onBlock } = props;
  const [params, put] = useAddress();
  const [upload, { error: unsent }] = templatesApi.usePutStarterMutation();
  return (
    <div className="flex flex-col gap-6">
      {unsent && <Trouble message={troubleOf(unsent)} />}
      {params.get('field') === SETTINGS ? (
        <SettingsForm template={template} onChange={onChange} />
      ) : field ? (
        <FieldForm
          key={field.id ?? field.key}
          template={template}
          field={field}
          readOnly={false}
          onChange={onChange}
          onGone={() => put({ field: null })}
        />
      ) : (
        <FolderForm
          key={node.id}
          template={template}
          root={root}
          node={node}
          families={registers.families.map((f) => f.name)}
          readOnly={false}
          onChange={onRoot}
          pathOf={(of, name) => pathOfStarter(template, of, name)}
          addressOf={(path) => addressFor('readStarter', { id: row.id, query: { path } })}
          onFile={(path, file) => void upload({ id: row.id, path, file })}
          registers={registers}
          values={values}
        />
      )}
      {!field && params.get('field') === null && block === undefined && (
        <BlockActs template={template} node={node} onChange={onChange} onOpen={onBlock} />
      )}
      {fault && <p className="text-sm text-brick">{fault}</p>}
    </div>
  );
}
