/** Conventions that were found in names, and the names that fit none of them. */
import { elementAt } from '@nesting/core';
import { examplePieces, type LearnedConvention, NO_CONTEXT, type Registers } from '@nesting/core/name';
import { useMemo } from 'react';
import { Anatomy } from '../../anatomy/anatomy';
import { count, many } from '../../app/words';
import { Heading } from '../../ui';
import { compileRule } from '../../workers/compile-rule';
import { type Tried, tryName } from './tried';
import { TriedRow } from './tried-row';

const ruleOf = (c: LearnedConvention, registers: Registers) =>
  compileRule({ pattern: c.pattern, fields: c.fields, registers, families: c.families, number: undefined });

interface LearnedProps {
  readonly learned: LearnedConvention;
  readonly names: readonly string[];
  readonly registers: Registers;
  readonly chosen: boolean;
  readonly onChoose: () => void;
}

export function Learned({ learned, names, registers, chosen, onChoose }: LearnedProps) {
  const parts = useMemo(() => {
    const compiled = ruleOf(learned, registers);
    return compiled === null
      ? []
      : examplePieces(compiled, {}).map((p) => ({ text: p.text, label: p.field, ok: true }));
  }, [learned, registers]);
  const lists = learned.fields.flatMap((f) =>
    f.type === 'choice' && f.options
      ? [`${f.key}: ${f.options.map((o) => o.code).join(', ')}`]
      : f.type === 'text' && f.like
        ? [`${f.key}: ${f.like}`]
        : [],
  );
  return (
    <li>
      <button
        type="button"
        aria-pressed={chosen}
        onClick={onChoose}
        className={`flex w-full flex-col items-start gap-1.5 rounded-tray border p-3 text-left ${chosen ? 'border-plum bg-chosen' : 'border-line bg-sheet hover:border-rule'}`}
      >
        <Anatomy parts={parts} large />
        <span className="font-mono text-xs break-all text-note">{learned.pattern}</span>
        {lists.length > 0 && <span className="text-xs text-note">{lists.join(' · ')}</span>}
        <span className="text-sm">
          <strong className="font-semibold">
            {many(learned.reads.length, 'name')} of {count(names.length)}
          </strong>
          , such as <span className="font-mono break-all">{names[elementAt(learned.reads, 0)]}</span>
          {learned.oneWay ? '' : '. Some names could be misread: the editor shows which.'}
        </span>
      </button>
    </li>
  );
}

/** Most of its parts are what they should be. */
const isNear = (t: Tried): boolean =>
  t.parts.filter((p) => p.label !== null && p.ok).length > 2 * t.parts.filter((p) => !p.ok).length;

const strange = (name: string): Tried => ({
  name,
  ok: false,
  parts: [{ text: name, label: null, ok: true }],
  meant: null,
  confidence: null,
  why: 'like none of them',
});

interface MisfitsProps {
  readonly names: readonly string[];
  readonly misfits: readonly number[];
  readonly learned: readonly LearnedConvention[];
  readonly registers: Registers;
}

export function Misfits({ names, misfits, learned, registers }: MisfitsProps) {
  const rows = useMemo(() => {
    const rules = learned.flatMap((c) => ruleOf(c, registers) ?? []);
    const context = { ...NO_CONTEXT, abbreviations: registers.abbreviations, banned: registers.banned };
    return misfits.slice(0, MISFITS_SHOWN).map((i) => {
      const all = rules.map((rule) => tryName(rule, context, elementAt(names, i)));
      return (
        all.find((t) => t.confidence === 'sure') ??
        all.find((t) => t.meant !== null) ??
        all.find(isNear) ??
        strange(elementAt(names, i))
      );
    });
  }, [names, misfits, learned, registers]);
  if (names.length === 0) return null;
  return (
    <div className="flex flex-col gap-2">
      <Heading>
        {misfits.length === 0
          ? 'Every name fits'
          : `${many(misfits.length, 'name')} that fit${misfits.length === 1 ? 's' : ''} none`}
      </Heading>
      <ul className="divide-y divide-line">
        {rows.map((t) => (
          <li key={t.name}>
            <TriedRow tried={t} />
          </li>
        ))}
      </ul>
      {misfits.length > MISFITS_SHOWN && (
        <p className="text-sm text-ink2">and {count(misfits.length - MISFITS_SHOWN)} more</p>
      )}
    </div>
  );
}

const MISFITS_SHOWN = 60;
