/**
 * A template from what is there: a pasted listing, a list in a file, or a folder on this computer, of which only the
 * names are read.
 */

import { NO_REGISTERS } from '@nesting/core/name';
import {
  ANSWERS,
  type AnswerTo,
  expandTemplate,
  type Known,
  type Question,
  questionKey,
  settleQuestions,
  starterPath,
} from '@nesting/core/template';
import { useDeferredValue, useId, useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { troubleOf } from '../../app/api';
import { many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { TrayTree } from '../../tray/tray-tree';
import { Button, Choose, Heading, Labelled, Lines, TextInput } from '../../ui';
import { useDerived } from '../../workers/rules';
import { houseApi } from '../house/house-api';
import { DeriveSources, type Source } from './derive-sources';
import { templatesApi } from './templates-api';
import { linesOfTemplate } from './tree';

const QUESTION_WORDS: Readonly<Record<Question['code'], string>> = {
  'folder-rare': 'is in one of several alike folders only: does it belong to all of them?',
  'file-alone': 'stand at the root: are they starter files?',
  'names-unlike': 'are called otherwise than the rest',
};

export function DerivePage() {
  const { data: registers = NO_REGISTERS } = houseApi.useRegistersQuery();
  const id = useId();
  const [source, setSource] = useState<Source | null>(null);
  const [answers, setAnswers] = useState<Readonly<Record<string, AnswerTo>>>({});
  const [text, setText] = useState('');
  const [title, setTitle] = useState('');
  const [name, setName] = useState('Derived template');
  const [said, setSaid] = useState('');
  const late = useDeferredValue(text);
  const [selected, setSelected] = useState('root');
  const [make, { error: refused }] = templatesApi.useNewTemplateMutation();
  const [putFile] = templatesApi.usePutStarterMutation();
  const go = useNavigate();
  const known = useMemo(
    (): Known => ({
      ...(title !== '' && { title }),
      ...(source?.project && { fields: source.project.body.fields, values: source.project.values }),
    }),
    [title, source],
  );
  const { answer: derived, waiting } = useDerived(late, known, registers, 'Derived template');
  const ready = derived === null || derived === 'unreadable' ? null : derived;
  const derivedTemplate = ready === null ? null : settleQuestions(ready.template, ready.questions, answers);
  const lines = useMemo(
    () => (derivedTemplate === null ? [] : linesOfTemplate(derivedTemplate, registers)),
    [ready, answers, registers],
  );
  const makes = useMemo(
    () => (derivedTemplate === null ? 0 : expandTemplate(derivedTemplate, ready?.values ?? {}, registers).folders),
    [ready, answers, registers],
  );
  const give = (from: Source) => {
    setSource(from);
    setAnswers({});
    setText(from.listing);
    if (from.title !== undefined) setTitle(from.title);
    if (from.name !== undefined) setName(from.name);
    setSaid(from.said);
  };
  const take = async () => {
    if (ready === null) return;
    const made = await make({ template: { ...derivedTemplate, name } });
    if (made.data === undefined) return;
    for (const { path, file } of await startersOf(ready.questions, answers, source))
      await putFile({ id: made.data.id, path, file });
    await go(`/templates/${made.data.id}/edit`);
  };
  return (
    <Columns
      id="derive"
      labels={['What is there', 'The template of it', 'Questions']}
      given={
        <div className="flex flex-col gap-3">
          <Link to="/templates" className="text-sm text-bottle hover:underline">
            All templates
          </Link>
          <h1 className="text-xl font-semibold">Derive a template</h1>
          <Labelled
            id={id}
            label="A listing"
            help="Paths as find prints them, an indented outline, a drawn tree, CSV or JSON"
          >
            <Lines
              id={id}
              rows={14}
              value={text}
              onChange={(e) => {
                setText(e.target.value);
                setSource(null);
              }}
              placeholder="Paste a listing here"
            />
          </Labelled>
          <DeriveSources onSource={give} onTrouble={setSaid} />
          <p role="status" className="text-sm text-ink2">
            {said}
          </p>
          <Labelled id={`${id}t`} label="The project's title, where its folder does not say it">
            <TextInput id={`${id}t`} value={title} onChange={(e) => setTitle(e.target.value)} />
          </Labelled>
        </div>
      }
      plan={
        ready === null ? (
          <p className="max-w-prose text-ink2">
            {derived === 'unreadable'
              ? 'This listing cannot be understood.'
              : 'Give a project that worked: its number, client and title become what is asked for; folders that are alike become one, made once for each entry of a list; numbers in front keep their gaps; file names become conventions.'}
          </p>
        ) : (
          <TrayTree
            label="The derived hierarchy"
            nodes={lines.map((l) => l.tree)}
            selected={selected}
            onSelect={setSelected}
          />
        )
      }
      consequence={
        ready && (
          <div className="flex flex-col gap-5 text-sm">
            <section aria-label="Questions" className="flex flex-col gap-1">
              <Heading>
                {ready.questions.length === 0 ? 'No question is left' : many(ready.questions.length, 'question')}
              </Heading>
              <ul className="flex flex-col gap-3">
                {ready.questions.slice(0, 40).map((q) => (
                  <Asked
                    key={questionKey(q)}
                    question={q}
                    answer={answers[questionKey(q)] ?? 'as-is'}
                    onAnswer={(answer) => setAnswers({ ...answers, [questionKey(q)]: answer })}
                  />
                ))}
              </ul>
            </section>
            <section aria-label="Asked for" className="flex flex-col gap-1">
              <Heading>Asked for</Heading>
              <ul>
                {ready.template.fields.map((f) => (
                  <li key={f.key} className="flex justify-between gap-3 border-b border-line py-1">
                    <span className="font-semibold">{f.label ?? f.key}</span>
                    <span className="min-w-0 text-right font-mono text-xs break-all text-note">
                      {valueWords(ready.values[f.key])}
                    </span>
                  </li>
                ))}
              </ul>
            </section>
            <section aria-label="Conventions found" className="flex flex-col gap-1">
              <Heading>Conventions found</Heading>
              {ready.template.conventions.length === 0 && <p className="text-ink2">None: give file names too.</p>}
              <ul className="flex flex-col gap-1">
                {ready.template.conventions.map((c) => (
                  <li key={c.id}>
                    {c.name}
                    <span className="block font-mono text-xs break-all text-note">{c.pattern}</span>
                  </li>
                ))}
              </ul>
            </section>
          </div>
        )
      }
      ledger={
        <>
          <p className="flex-1" role="status">
            {refused ? (
              troubleOf(refused)
            ) : ready ? (
              <>
                <strong className="font-semibold">With its own values it makes {many(makes, 'folder')}.</strong>{' '}
                <span className="text-ink2">It becomes a draft; nothing is in force by it.</span>
              </>
            ) : (
              <span className="text-ink2">{waiting ? 'Looking at the listing…' : 'Deriving changes nothing.'}</span>
            )}
          </p>
          {ready && (
            <TextInput
              aria-label="Name of the template"
              value={name}
              onChange={(e) => setName(e.target.value)}
              className="w-56"
            />
          )}
          <Button look="main" disabled={ready === null || name.trim() === ''} onClick={() => void take()}>
            Take it into the editor
          </Button>
        </>
      }
    />
  );
}

const ANSWER_WORDS: Readonly<Record<Question['code'], Partial<Record<AnswerTo, string>>>> = {
  'folder-rare': { 'as-is': 'it belongs to all of them', optional: 'it may be there', 'leave-out': 'leave it out' },
  'file-alone': { 'as-is': 'no, leave them out', starters: 'yes, each project starts with them' },
  'names-unlike': { 'as-is': 'they are slips', 'any-name': 'they are right: no convention there' },
};

function Asked({
  question,
  answer,
  onAnswer,
}: {
  question: Question;
  answer: AnswerTo;
  onAnswer: (answer: AnswerTo) => void;
}) {
  const subject = question.code === 'folder-rare' ? question.path : question.names.slice(0, 4).join(', ');
  return (
    <li className="flex flex-col gap-1 border-b border-line pb-2">
      <span>
        <span className="font-mono text-xs break-all">{subject}</span> {QUESTION_WORDS[question.code]}
      </span>
      <Choose
        label={`Answer for ${subject}`}
        value={answer}
        options={ANSWERS[question.code].map((value) => ({ value, label: ANSWER_WORDS[question.code][value] ?? value }))}
        onChange={(value) => onAnswer(value as AnswerTo)}
      />
    </li>
  );
}

/** Files that were said to be starter files, with their content where the source can give it; else they begin empty. */
async function startersOf(
  questions: readonly Question[],
  answers: Readonly<Record<string, AnswerTo>>,
  source: Source | null,
): Promise<{ path: string; file: File }[]> {
  const names = questions.filter((q) => answers[questionKey(q)] === 'starters').flatMap((q) => q.names);
  const paths = source?.listing.split('\n') ?? [];
  return Promise.all(
    names.map(async (name) => {
      const [found] = paths.filter((p) => p.endsWith(`/${name}`) || p === name).sort((a, b) => a.length - b.length);
      const bytes = (found === undefined ? null : await source?.contentOf?.(found)) ?? new Uint8Array();
      return { path: starterPath(name), file: new File([Uint8Array.from(bytes)], name) };
    }),
  );
}

function valueWords(value: unknown): string {
  if (Array.isArray(value))
    return value.length > 6 ? `${value.slice(0, 6).join(', ')} … (${value.length})` : value.join(', ');
  if (value !== null && typeof value === 'object')
    return Object.entries(value)
      .map(([key, inner]) => `${key}: ${valueWords(inner)}`)
      .join('; ');
  return String(value ?? '');
}
