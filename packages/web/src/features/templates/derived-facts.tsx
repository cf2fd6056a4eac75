import { ANSWERS, type AnswerTo, type Question, questionKey } from '@nesting/core/template';
import { QUESTION_WORDS } from '@nesting/core/words';
import { many } from '../../app/words';
import { Choose, Heading } from '../../ui';
import type { Derivation } from './use-derivation';

interface Props {
  readonly ready: NonNullable<Derivation['ready']>;
  readonly answers: Derivation['answers'];
  readonly onAnswer: Derivation['answer'];
}

export function DerivedFacts({ ready, answers, onAnswer }: Props) {
  return (
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
              onAnswer={(answer) => onAnswer(q, answer)}
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
  );
}

const ANSWER_WORDS: Readonly<Record<Question['code'], Partial<Record<AnswerTo, string>>>> = {
  'folder-rare': { 'as-is': 'it belongs to all of them', optional: 'it may be there', 'leave-out': 'leave it out' },
  'number-twice': {
    'as-is': 'the second keeps it in its name',
    renumber: 'the second takes the next free number',
    'leave-out': 'leave the second out',
  },
  'file-alone': { 'as-is': 'no, leave them out', starters: 'yes, each project starts with them' },
  'names-unlike': { 'as-is': 'they are slips', 'any-name': 'they are right: no convention there' },
};

interface AskedProps {
  readonly question: Question;
  readonly answer: AnswerTo;
  readonly onAnswer: (answer: AnswerTo) => void;
}

function Asked({ question, answer, onAnswer }: AskedProps) {
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
        onChange={onAnswer}
      />
    </li>
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
