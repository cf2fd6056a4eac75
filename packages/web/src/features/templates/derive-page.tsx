/** A template from what is there: a pasted listing, a list in a file, or a folder on this computer, of which only the names are read. */
import type { ProjectRow } from '@nesting/contract';
import { expandTemplate, NO_REGISTERS, type Question } from '@nesting/core';
import { type ChangeEvent, useDeferredValue, useId, useMemo, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, troubleOf } from '../../app/api';
import { many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { TrayTree } from '../../tray/tray-tree';
import { Button, Heading, Labelled, Line, Lines, Menu } from '../../ui/ui';
import { useDerived } from '../../workers/rules';
import { linesOfTemplate } from './tree';

const QUESTION_WORDS: Readonly<Record<Question['code'], string>> = {
  'folder-rare': 'is in one of several alike folders only: does it belong to all of them?',
  'file-alone': 'stand at the root: are they starter files?',
  'names-unlike': 'are called otherwise than the rest',
};

export function DerivePage() {
  const { data: registers = NO_REGISTERS } = api.useRegistersQuery();
  const { data: projects = [] } = api.useProjectsQuery();
  const [ask] = api.useLazyProjectListingQuery();
  const id = useId();
  const folder = useRef<HTMLInputElement>(null);
  const [text, setText] = useState('');
  const [title, setTitle] = useState('');
  const [name, setName] = useState('Derived template');
  const [said, setSaid] = useState('');
  const late = useDeferredValue(text);
  const [selected, setSelected] = useState('root');
  const [make, { error: refused }] = api.useNewTemplateMutation();
  const go = useNavigate();
  const { answer: derived, waiting } = useDerived(late, title, registers, 'Derived template');
  const ready = derived === null || derived === 'unreadable' ? null : derived;
  const lines = useMemo(() => (ready === null ? [] : linesOfTemplate(ready.template, registers)), [ready, registers]);
  const makes = useMemo(() => (ready === null ? 0 : expandTemplate(ready.template, ready.values, registers).folders), [ready, registers]);
  const fromFolder = (event: ChangeEvent<HTMLInputElement>) => {
    const files = [...(event.target.files ?? [])];
    setText(files.map((f) => f.webkitRelativePath).join('\n'));
    setSaid(`${many(files.length, 'name')} read. Nothing was uploaded; folders without files are not told by the browser.`);
    event.target.value = '';
  };
  const fromProject = async (project: ProjectRow) => {
    const { listing, whole } = await ask(project.id).unwrap();
    setText(listing);
    setTitle(project.title);
    setName(`Like ${project.title}`);
    setSaid(`${project.folder} was listed${whole ? '' : ' in part: it is very large'}. Nothing in it was changed.`);
  };
  const take = async () => {
    if (ready === null) return;
    const made = await make({ template: { ...ready.template, name } }).unwrap();
    await go(`/templates/${made.id}/edit`);
  };
  return (
    <Columns
      id="derive"
      labels={['What is there', 'The template of it', 'Questions']}
      given={
        <div className="flex flex-col gap-3">
          <Link to="/templates" className="text-sm text-bottle hover:underline">All templates</Link>
          <h1 className="text-xl font-semibold">Derive a template</h1>
          <Labelled id={id} label="A listing" help="Paths as find prints them, an indented outline, a drawn tree, CSV or JSON">
            <Lines id={id} rows={16} value={text} onChange={(e) => setText(e.target.value)} placeholder="Paste a listing here" />
          </Labelled>
          <div className="flex flex-wrap gap-3">
            <Menu trigger={<Button>From a project…</Button>} lines={projects.map((p) => ({ words: `${p.number} ${p.title}`, run: () => void fromProject(p) }))} />
            <Button onClick={() => folder.current?.click()}>From a folder…</Button>
          </div>
          <input ref={folder} type="file" aria-label="The names in a folder" className="sr-only" tabIndex={-1} onChange={fromFolder} {...{ webkitdirectory: '' }} />
          <p role="status" className="text-sm text-ink2">{said}</p>
          <Labelled id={`${id}t`} label="The project's title, where its folder does not say it">
            <Line id={`${id}t`} value={title} onChange={(e) => setTitle(e.target.value)} />
          </Labelled>
        </div>
      }
      plan={
        ready === null ? (
          <p className="max-w-prose text-ink2">{derived === 'unreadable' ? 'This listing cannot be understood.' : 'Give a project that worked: its number, client and title become what is asked for; folders that are alike become one, made once for each entry of a list; numbers in front keep their gaps; file names become conventions.'}</p>
        ) : (
          <TrayTree label="The derived hierarchy" nodes={lines.map((l) => l.tree)} selected={selected} onSelect={setSelected} />
        )
      }
      consequence={
        ready && (
          <div className="flex flex-col gap-5 text-sm">
            <section aria-label="Asked for" className="flex flex-col gap-1">
              <Heading>Asked for</Heading>
              <ul>{ready.template.fields.map((f) => <li key={f.key} className="flex justify-between gap-3 border-b border-line py-1"><span className="font-semibold">{f.label ?? f.key}</span><span className="min-w-0 text-right font-mono text-xs break-all text-note">{valueWords(ready.values[f.key])}</span></li>)}</ul>
            </section>
            <section aria-label="Conventions found" className="flex flex-col gap-1">
              <Heading>Conventions found</Heading>
              {ready.template.conventions.length === 0 && <p className="text-ink2">None: give file names too.</p>}
              <ul className="flex flex-col gap-1">{ready.template.conventions.map((c) => <li key={c.id}>{c.name}<span className="block font-mono text-xs break-all text-note">{c.pattern}</span></li>)}</ul>
            </section>
            <section aria-label="Questions" className="flex flex-col gap-1">
              <Heading>{ready.questions.length === 0 ? 'No question is left' : many(ready.questions.length, 'question')}</Heading>
              <ul className="flex flex-col gap-2">{ready.questions.slice(0, 40).map((q) => <li key={`${q.code} ${q.path} ${q.names[0]}`}><span className="font-mono text-xs break-all">{q.code === 'folder-rare' ? q.path : q.names.slice(0, 4).join(', ')}</span> {QUESTION_WORDS[q.code]}</li>)}</ul>
            </section>
          </div>
        )
      }
      ledger={
        <>
          <p className="flex-1" role="status">{refused ? troubleOf(refused) : ready ? <><strong className="font-semibold">With its own values it makes {many(makes, 'folder')}.</strong> <span className="text-ink2">It becomes a draft; nothing is in force by it.</span></> : <span className="text-ink2">{waiting ? 'Looking at the listing…' : 'Deriving changes nothing.'}</span>}</p>
          {ready && <Line aria-label="Name of the template" value={name} onChange={(e) => setName(e.target.value)} className="w-56" />}
          <Button look="main" disabled={ready === null || name.trim() === ''} onClick={() => void take()}>Take it into the editor</Button>
        </>
      }
    />
  );
}

function valueWords(value: unknown): string {
  if (Array.isArray(value)) return value.length > 6 ? `${value.slice(0, 6).join(', ')} … (${value.length})` : value.join(', ');
  if (value !== null && typeof value === 'object') return Object.entries(value).map(([key, inner]) => `${key}: ${valueWords(inner)}`).join('; ');
  return String(value ?? '');
}
