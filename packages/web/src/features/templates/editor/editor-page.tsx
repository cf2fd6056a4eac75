/**
 * A template as one writes it: what is asked for at left, the outline in the middle, the selected folder at right; a
 * sample project over it at any time.
 */

import type { Me, TemplateRow } from '@nesting/contract';
import { type Field, NO_REGISTERS, type Registers } from '@nesting/core/name';
import {
  type Convention,
  diagnoseTemplate,
  diffTemplates,
  type FolderNode,
  findFolder,
  registersOf,
  rootOfBlock,
  type Template,
  withBlock,
} from '@nesting/core/template';
import { differenceWords, wordsFor } from '@nesting/core/words';
import { useDeferredValue, useId, useMemo, useState } from 'react';
import { Link, useNavigate, useOutletContext, useParams } from 'react-router';
import { troubleOf } from '../../../app/api';
import { DraftConflict } from '../../../app/draft-conflict';
import { useAppDispatch } from '../../../app/store';
import { useAddress } from '../../../app/use-address';
import { usePageTitle } from '../../../app/use-page-title';
import { many } from '../../../app/words';
import { Columns } from '../../../columns/columns';
import { Nest } from '../../../nest/nest';
import { nestOfTemplate } from '../../../nest/of-template';
import { Button, Confirm, Empty, Heading, Labelled, Lines, Menu, TextInput, Tick, Trouble } from '../../../ui';
import { conventionsApi } from '../../conventions/conventions-api';
import { houseApi } from '../../house/house-api';
import { FieldRow } from '../../start/fields';
import { templatesApi } from '../templates-api';
import { BlockActs } from './block-acts';
import { FieldForm } from './field-form';
import { FilesOfTemplate, pathOfStarter } from './files-of-template';
import { FolderForm } from './folder-form';
import { Outline } from './outline';
import { type Sample, sampleOf, sampleValues, useSampleValues } from './sample';
import { SettingsForm } from './settings-form';
import { templateDrafts } from './template-slice';
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
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set());
  const [said, setSaid] = useState('');
  const [values, give] = useSampleValues(row.id);
  const laid = params.get('sample') === 'yes';
  const late = useDeferredValue(template);
  const registers = useMemo(() => registersOf(late, studio), [late, studio]);
  // Resolved at each letter a moment later; the sample is worked out only where it is looked at.
  const faults = useMemo(
    () =>
      new Map(
        diagnoseTemplate(late, studio)
          .filter((d) => d.node !== null)
          .map((d) => [d.node as string, wordsFor(d.code, d.params)]),
      ),
    [late, studio],
  );
  const laidValues = useMemo(() => sampleValues(late.fields, registers, values), [late.fields, registers, values]);
  const sample = useMemo(() => (laid ? sampleOf(late, studio, laidValues) : null), [laid, late, studio, laidValues]);
  const [upload, { error: unsent }] = templatesApi.usePutStarterMutation();
  // The outline writes in the template's own hierarchy, or in one of its blocks.
  const block = template.blocks?.find((b) => b.id === params.get('block'));
  const root = useMemo(() => (block === undefined ? template.root : rootOfBlock(block)), [block, template.root]);
  const writeRoot = (next: FolderNode): Template =>
    block === undefined ? { ...template, root: next } : withBlock(template, block.id, next);
  const field = template.fields.find((f) => (f.id ?? f.key) === params.get('field'));
  const current = findFolder(root, selected.at(-1) ?? '')?.node ?? root;
  const select = (ids: readonly string[]) => {
    setSelected(ids);
    put({ line: ids.at(-1) ?? null, field: null });
  };
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
          <div className="flex flex-wrap items-center gap-3 pb-2">
            <Heading>{block === undefined ? 'Folders' : `The block ${block.name ?? block.id}`}</Heading>
            {block !== undefined && (
              <Button look="quiet" className="h-6!" onClick={() => put({ block: null, line: null })}>
                Back to the whole
              </Button>
            )}
            <span className="mr-auto text-xs text-ink2">
              {many(sizeOf(template), 'folder')}
              {sample
                ? `; the sample makes ${many(sample.expansion.folders, 'folder')}, longest path ${sample.expansion.longest} of ${sample.expansion.budget}`
                : ''}
            </span>
            <TextInput
              aria-label="Find in the hierarchy"
              placeholder="Find"
              value={params.get('find') ?? ''}
              onChange={(e) => put({ find: e.target.value })}
              className="w-32"
            />
            <Tick label="Lay a sample over it" checked={laid} onChange={(on) => put({ sample: on ? 'yes' : null })} />
          </div>
          <Outline
            template={template}
            root={root}
            selected={selected}
            onSelect={select}
            closed={closed}
            faults={sample?.faults.size ? sample.faults : faults}
            sample={sample?.rows ?? null}
            sought={params.get('find') ?? ''}
            onClose={(id, close) => setClosed(new Set(close ? [...closed, id] : [...closed].filter((c) => c !== id)))}
            onChange={(next, typing) => draft.change(writeRoot(next), typing === null ? null : `name ${typing}`)}
            onUndo={(redo) => dispatch(redo ? templateDrafts.redone(row.id) : templateDrafts.undone(row.id))}
            onSaid={setSaid}
          />
          <p role="status" className="pt-1 text-xs text-ink2">
            {said ||
              'Enter: the next folder. Tab: into the one above. Shift+Tab: out. Alt+arrows: move. Paste a list to get its tree.'}
          </p>
        </>
      }
      consequence={
        <div className="flex flex-col gap-6">
          {unsent && <Trouble message={troubleOf(unsent)} />}
          {params.get('field') === SETTINGS ? (
            <SettingsForm template={template} onChange={draft.change} />
          ) : field ? (
            <FieldForm
              key={field.id ?? field.key}
              template={template}
              field={field}
              readOnly={false}
              onChange={draft.change}
              onGone={() => put({ field: null })}
            />
          ) : (
            <FolderForm
              key={current.id}
              template={template}
              root={root}
              node={current}
              families={registers.families.map((f) => f.name)}
              readOnly={false}
              onChange={(next, what) => draft.change(writeRoot(next), what)}
              pathOf={(node, name) => pathOfStarter(template, node, name)}
              addressOf={(path) =>
                `/api/templates/${encodeURIComponent(row.id)}/starter?path=${encodeURIComponent(path)}`
              }
              onFile={(path, file) => void upload({ id: row.id, path, file })}
              registers={registers}
              values={laidValues}
            />
          )}
          {!field && params.get('field') === null && block === undefined && (
            <BlockActs
              template={template}
              node={current}
              onChange={draft.change}
              onOpen={(id) => {
                setSelected([`block:${id}`]);
                put({ block: id, line: null });
              }}
            />
          )}
          {faults.get(current.id) && <p className="text-sm text-brick">{faults.get(current.id)}</p>}
        </div>
      }
      ledger={<Ledger row={row} template={template} draft={draft} faults={faults} />}
    />
  );
}

/** Stands in the address where a field would: what holds for the whole template. */
const SETTINGS = ':settings';

function sizeOf(template: Template): number {
  let n = 0;
  const walk = (node: Template['root']): void => {
    n++;
    node.folders?.forEach(walk);
  };
  walk(template.root);
  return n;
}

interface GivenProps {
  readonly row: TemplateRow;
  readonly template: Template;
  readonly registers: Registers;
  readonly laid: boolean;
  readonly sample: Sample | null;
  readonly values: Parameters<typeof sampleValues>[2];
  readonly chosen: string | null;
  readonly onField: (key: string) => void;
  readonly onChange: (template: Template, what: string | null) => void;
  readonly onValue: ReturnType<typeof useSampleValues>[1];
}

function Given({ row, template, registers, laid, sample, values, chosen, onField, onChange, onValue }: GivenProps) {
  const id = useId();
  const nest = useMemo(() => nestOfTemplate(template), [template]);
  const addField = () => {
    // A field keeps its id when it is renamed: neither is given twice.
    const taken = new Set(template.fields.flatMap((f) => [f.key, f.id ?? f.key]));
    let key = 'field';
    for (let n = 2; taken.has(key); n++) key = `field${n}`;
    const field: Field = { id: key, key, type: 'text', label: '', max: 24 };
    onChange({ ...template, fields: [...template.fields, field] }, null);
    onField(key);
  };
  return (
    <div className="flex flex-col gap-4">
      <Link to="/templates" className="text-sm text-bottle hover:underline">
        All templates
      </Link>
      <h1 className="sr-only">{template.name}</h1>
      <Labelled id={`${id}n`} label="Template">
        <TextInput
          id={`${id}n`}
          value={template.name}
          onChange={(e) => onChange({ ...template, name: e.target.value }, 'name')}
          className="text-lg font-semibold"
        />
      </Labelled>
      <p className="text-sm text-ink2">
        {row.edition === 0
          ? 'a draft, never in force'
          : row.draft
            ? `draft of edition ${row.edition + 1}`
            : `edition ${row.edition}, in force`}
        {row.projects > 0 ? `, ${many(row.projects, 'project')}` : ''}
      </p>
      <Nest root={nest} width={200} height={110} label={`The shape of ${template.name}`} />
      <Labelled id={`${id}p`} label="What it is for">
        <Lines
          id={`${id}p`}
          rows={2}
          value={template.purpose ?? ''}
          onChange={(e) => onChange({ ...template, purpose: e.target.value || undefined }, 'purpose')}
          className="font-sans"
        />
      </Labelled>
      {laid && sample ? (
        <section aria-label="The sample project" className="flex flex-col gap-2">
          <Heading>The sample project</Heading>
          {template.fields.map((f) => (
            <FieldRow
              key={f.key}
              field={f}
              value={sampleValues(template.fields, registers, values)[f.key]}
              registers={registers}
              expansion={sample.expansion}
              onGive={(value) => onValue(f.key, value)}
            />
          ))}
        </section>
      ) : (
        <section aria-label="Asked for when a project starts" className="flex flex-col gap-1">
          <Heading>Asked for when a project starts</Heading>
          <ul>
            {template.fields.map((f) => (
              <li key={f.id ?? f.key} className="border-b border-line">
                <button
                  type="button"
                  aria-pressed={chosen === (f.id ?? f.key)}
                  onClick={() => onField(f.id ?? f.key)}
                  className={`flex w-full justify-between gap-3 rounded-tray px-2 py-1.5 text-left text-sm ${chosen === (f.id ?? f.key) ? 'bg-chosen ring-1 ring-plum ring-inset' : 'hover:bg-bench'}`}
                >
                  <span className="font-semibold">{f.label || f.key}</span>
                  <span className="text-note">
                    {f.type === 'list' ? `list${f.within ? `, within ${f.within}` : ''}` : f.type}
                  </span>
                </button>
              </li>
            ))}
          </ul>
          <Button look="quiet" className="self-start" onClick={addField}>
            Ask for something more…
          </Button>
        </section>
      )}
      <Conventions template={template} onChange={onChange} />
      <FilesOfTemplate template={template} />
      <Button look="quiet" className="self-start" onClick={() => onField(SETTINGS)}>
        Checks, paths and setup sheet…
      </Button>
    </div>
  );
}

/** Conventions of the house that this template uses; a house convention is taken in by its id. */
function Conventions({ template, onChange }: { template: Template; onChange: GivenProps['onChange'] }) {
  const { data: house = [] } = conventionsApi.useConventionsQuery();
  const taken = new Set(template.conventions.map((c) => c.id));
  const free = house.filter(
    (h) => h.convention !== null && !taken.has(h.id) && !h.usedIn.some((u) => u.template === template.id),
  );
  const add = (convention: Convention) =>
    onChange({ ...template, conventions: [...template.conventions, convention] }, null);
  return (
    <section aria-label="Conventions" className="flex flex-col gap-1">
      <Heading>Conventions it uses</Heading>
      <ul className="flex flex-col gap-1.5 text-sm">
        {template.conventions.map((c) => (
          <li key={c.id}>
            <span className="font-semibold">{c.name}</span>
            <span className="block font-mono text-xs break-all text-ink2">{c.pattern}</span>
          </li>
        ))}
      </ul>
      {free.length > 0 && (
        <Menu
          trigger={
            <Button look="quiet" className="self-start">
              Take in another…
            </Button>
          }
          lines={free.map((h) => ({
            words: `${h.name}  ${h.convention?.pattern}`,
            run: () => add(h.convention as Convention),
          }))}
        />
      )}
    </section>
  );
}

const same = (a: Template, b: Template): boolean =>
  JSON.stringify({ ...a, edition: 0 }) === JSON.stringify({ ...b, edition: 0 });
const SHOWN = 14;

function Ledger({
  row,
  template,
  draft,
  faults,
}: {
  row: TemplateRow;
  template: Template;
  draft: ReturnType<typeof useTemplateDraft>;
  faults: ReadonlyMap<string, string>;
}) {
  const dispatch = useAppDispatch();
  const go = useNavigate();
  const id = useId();
  const [said, setSaid] = useState('');
  const [publish, { error: refused }] = templatesApi.usePutTemplateInForceMutation();
  const [discard] = templatesApi.useDiscardTemplateMutation();
  const open = row.edition === 0 || !same(template, row.template);
  const differences = useMemo(
    () => (open && row.edition > 0 ? diffTemplates(row.template, template) : []),
    [open, row, template],
  );
  const edition = row.edition + 1;
  const [first] = faults.values();
  const aside = async () => {
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
  return (
    <>
      <p className="flex-1" role="status">
        {draft.trouble !== null ? (
          <>
            {draft.trouble} <Theirs row={row} template={template} />
          </>
        ) : (
          ((refused ? troubleOf(refused) : null) ?? (
            <>
              <strong className="font-semibold">
                {!open ? `Edition ${row.edition} is in force.` : draft.kept ? 'Draft kept.' : 'Keeping the draft…'}
              </strong>{' '}
              <span className="text-ink2">
                {first ??
                  (differences.length > 0
                    ? `${many(differences.length, 'difference')} from edition ${row.edition}.`
                    : 'Projects keep the edition they were started with.')}
              </span>
            </>
          ))
        )}
      </p>
      {open && (row.draft !== null || row.edition === 0) && (
        <Confirm
          trigger={<Button>Put the draft aside…</Button>}
          title="Put the draft aside?"
          act="Put it aside"
          run={() => void aside()}
        >
          {row.edition === 0
            ? 'The template was never in force, and goes with its draft.'
            : `What was changed since edition ${row.edition} is gone; edition ${row.edition} stays in force.`}
        </Confirm>
      )}
      <Confirm
        trigger={
          <Button look="main" disabled={!open || first !== undefined || !draft.kept}>
            Put edition {edition} in force…
          </Button>
        }
        title={`Put edition ${edition} in force?`}
        act={`Put edition ${edition} in force`}
        run={() => void put()}
      >
        <div className="flex flex-col gap-3">
          <p>
            Projects started from now on are made by it. An edition in force never changes again. No file on any disk is
            touched.
          </p>
          {differences.length > 0 && (
            <ul className="max-h-40 list-inside list-disc overflow-auto text-sm">
              {differences.slice(0, SHOWN).map((d) => (
                <li key={JSON.stringify(d)}>{differenceWords(d)}</li>
              ))}
              {differences.length > SHOWN && <li>and {differences.length - SHOWN} more</li>}
            </ul>
          )}
          {row.projects > 0 && open && <NameImpact template={template} />}
          <Labelled id={id} label="What changed, in a sentence">
            <TextInput id={id} value={said} maxLength={200} onChange={(e) => setSaid(e.target.value)} />
          </Labelled>
        </div>
      </Confirm>
    </>
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
