/** The state of a template that is derived: the listing, what was read from it, and the answers to its questions. */
import { NO_REGISTERS } from '@nesting/core/name';
import {
  type AnswerTo,
  expandTemplate,
  type Known,
  type Question,
  questionKey,
  settleQuestions,
  starterPath,
} from '@nesting/core/template';
import { useDeferredValue, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { troubleOf } from '../../app/api';
import { useDerived } from '../../workers/rules';
import { houseApi } from '../house/house-api';
import type { Source } from './derive-sources';
import { templatesApi } from './templates-api';
import { linesOfTemplate } from './tree';

export type Derivation = ReturnType<typeof useDerivation>;

export function useDerivation() {
  const { data: registers = NO_REGISTERS } = houseApi.useRegistersQuery();
  const [source, setSource] = useState<Source | null>(null);
  const [answers, setAnswers] = useState<Readonly<Record<string, AnswerTo>>>({});
  const [text, setText] = useState('');
  const [title, setTitle] = useState('');
  const [name, setName] = useState('Derived template');
  const [said, setSaid] = useState('');
  const late = useDeferredValue(text);
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
    if (ready === null || derivedTemplate === null) return;
    const made = await make({ template: { ...derivedTemplate, format: 'nesting/template', formatVersion: 1, name } });
    if (made.data === undefined) return;
    for (const { path, file } of await startersOf(ready.questions, answers, source))
      await putFile({ id: made.data.id, path, file });
    await go(`/templates/${made.data.id}/edit`);
  };

  return {
    text,
    title,
    setTitle,
    name,
    setName,
    said,
    setSaid,
    answers,
    ready,
    lines,
    makes,
    waiting,
    give,
    take,
    isUnreadable: derived === 'unreadable',
    trouble: refused ? troubleOf(refused) : null,
    /** A listing typed here has no content to give. */
    type: (listing: string) => {
      setText(listing);
      setSource(null);
    },
    answer: (question: Question, answer: AnswerTo) => setAnswers({ ...answers, [questionKey(question)]: answer }),
  };
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
