/** One template as trays: what each folder is for, how its files are called, what is made when. */

import type { Me, TemplateRow } from '@nesting/contract';
import { type Field, mergeRegisters, NO_REGISTERS, type Registers } from '@nesting/core/name';
import { ownRegisters, type Template } from '@nesting/core/template';
import { useMemo } from 'react';
import { Link, useNavigate, useOutletContext, useParams } from 'react-router';
import { troubleOf } from '../../app/api';
import { useAddress } from '../../app/use-address';
import { usePageTitle } from '../../app/use-page-title';
import { many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Nest } from '../../nest/nest';
import { nestOfTemplate } from '../../nest/of-template';
import { TrayTree } from '../../tray/tray-tree';
import { Button, CopyButton, Empty, Heading, Trouble } from '../../ui';
import { houseApi } from '../house/house-api';
import { comparedLines } from './compare';
import { EditionsOf } from './editions-of';
import { FolderFacts } from './folder-facts';
import { sizeOfTemplate } from './size';
import { templatesApi } from './templates-api';
import { linesOfTemplate, type TemplateLine } from './tree';

export function TemplatePage() {
  const { id } = useParams();
  const { data = [], isLoading, isError, error, refetch } = templatesApi.useTemplatesQuery();
  const { data: studio = NO_REGISTERS } = houseApi.useRegistersQuery();
  const row = data.find((t) => t.id === id);
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  if (isLoading) return null;
  if (row === undefined)
    return (
      <Empty title="No such template">
        <Link to="/templates" className="text-bottle underline">
          All templates
        </Link>
      </Empty>
    );
  return <OneTemplate row={row} studio={studio} />;
}

function OneTemplate({ row, studio }: { row: TemplateRow; studio: typeof NO_REGISTERS }) {
  usePageTitle(row.name);
  const me = useOutletContext<Me>();
  const { template } = row;
  const [params, put] = useAddress();
  const { data: editions = [] } = templatesApi.useEditionsQuery(row.id);
  const compared = editions.find((e) => String(e.edition) === params.get('compare')) ?? null;
  const registers = useMemo(() => mergeRegisters(ownRegisters(template), studio), [template, studio]);
  const lines = useMemo(
    () =>
      compared === null ? linesOfTemplate(template, registers) : comparedLines(compared.template, template, registers),
    [template, registers, compared],
  );
  const selected = params.get('line') ?? template.root.id;
  const line = lines.find((l) => l.tree.key === selected) ?? lines[0];
  const nest = useMemo(() => nestOfTemplate(template), [template]);
  const { folders } = sizeOfTemplate(template);
  return (
    <Columns
      id="template"
      labels={['The template', 'Its hierarchy', 'The selected folder']}
      given={
        <div className="flex flex-col gap-4">
          <div>
            <h1 className="text-xl font-semibold">{row.name}</h1>
            <p className="text-sm text-ink2">
              edition {row.edition}, {row.projects === 0 ? 'not used yet' : `used by ${row.projects}`}
            </p>
          </div>
          <Nest root={nest} width={240} height={150} label={`The shape of ${row.name}`} />
          <p className="text-sm">{row.purpose}</p>
          <Heading>Asked for when a project starts</Heading>
          <AskedFields fields={template.fields} />
          <EditionsOf
            row={row}
            mayWrite={me.role === 'coordinator'}
            compared={compared?.edition ?? null}
            onCompare={(edition) => put({ compare: edition === null ? null : String(edition) })}
          />
          <Heading>Conventions</Heading>
          <ul className="flex flex-col gap-2 text-sm">
            {template.conventions.map((c) => (
              <li key={c.id}>
                {c.name}
                <span className="block font-mono text-xs break-all text-ink2">{c.pattern}</span>
              </li>
            ))}
          </ul>
        </div>
      }
      plan={
        <>
          <div className="flex items-baseline justify-between pb-2">
            <Heading>
              {compared === null
                ? 'Folders and starter files'
                : `Edition ${row.edition} beside edition ${compared.edition}`}
            </Heading>
            <span className="text-xs text-ink2">{many(folders, 'folder')}</span>
          </div>
          <TrayTree
            label={`The hierarchy of ${row.name}`}
            nodes={lines.map((l) => l.tree)}
            selected={selected}
            onSelect={(key) => put({ line: key })}
          />
        </>
      }
      consequence={line && <SelectedLine line={line} template={template} registers={registers} />}
      ledger={<TemplateLedger row={row} mayWrite={me.role === 'coordinator'} />}
    />
  );
}

function AskedFields({ fields }: { fields: readonly Field[] }) {
  return (
    <ul className="divide-y divide-line border-y border-line text-sm">
      {fields.map((f) => (
        <li key={f.key} className="flex justify-between gap-3 py-1.5">
          <span>{f.label ?? f.key}</span>
          <span className="text-right text-ink2">{fieldWords(f)}</span>
        </li>
      ))}
    </ul>
  );
}

function fieldWords(f: Field): string {
  if (f.type === 'list') return `list${f.within ? `, within ${f.within}` : ''}`;
  return f.type === 'choice' ? (f.options ?? []).map((o) => o.code).join(' or ') : f.type;
}

interface SelectedProps {
  readonly line: TemplateLine;
  readonly template: Template;
  readonly registers: Registers;
}

function SelectedLine({ line, template, registers }: SelectedProps) {
  return (
    <div className="flex flex-col gap-4">
      <Heading>Selected</Heading>
      <div className="flex items-start gap-1 rounded-tray border border-line bg-sheet p-2 font-mono text-sm break-all">
        <span className="flex-1">{line.path || line.tree.note}</span>
        {line.path && <CopyButton text={line.path} what="the path" />}
      </div>
      {line.folder && (
        <FolderFacts
          template={template}
          registers={registers}
          node={line.folder.node}
          rules={line.folder.rules}
          values={{}}
          fields={template.fields}
          per={line.per}
        />
      )}
      {line.folder === null && <p className="text-sm text-ink2">{line.tree.note}</p>}
    </div>
  );
}

function TemplateLedger({ row, mayWrite }: { row: TemplateRow; mayWrite: boolean }) {
  const go = useNavigate();
  return (
    <>
      <span className="flex-1">
        <strong className="font-semibold">Edition {row.edition} is in force.</strong>{' '}
        <span className="text-ink2">Projects keep the edition they were started with.</span>
      </span>
      {mayWrite && (
        <Button onClick={() => void go(`/templates/${row.id}/edit`)}>
          {row.draft ? 'Go on with the draft' : 'Change it'}
        </Button>
      )}
      {mayWrite && (
        <Button variant="main" onClick={() => void go(`/start?template=${row.id}`)}>
          Start a project from it
        </Button>
      )}
    </>
  );
}
