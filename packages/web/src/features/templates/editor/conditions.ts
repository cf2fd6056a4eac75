/** *Only when* as one line of a list: a choice field and one of its options. */
import type { OnlyWhen, Template } from '@nesting/core/template';

export const ALWAYS = 'none';

export const conditions = (template: Template): { value: string; label: string }[] => [
  { value: ALWAYS, label: 'always' },
  ...template.fields.flatMap((f) =>
    f.type === 'choice'
      ? (f.options ?? []).map((o) => ({
          value: `${f.key}=${o.code}`,
          label: `${f.label ?? f.key} is ${o.label ?? o.code}`,
        }))
      : [],
  ),
];

export const wordOfCondition = (when: OnlyWhen | undefined): string =>
  when === undefined ? ALWAYS : `${when.field}=${[when.is].flat()[0]}`;

export const conditionOf = (word: string): OnlyWhen | undefined =>
  word === ALWAYS ? undefined : { field: word.slice(0, word.indexOf('=')), is: word.slice(word.indexOf('=') + 1) };

/** `surfaces` → each is a `surface`. */
export const entryName = (list: string): string =>
  list.endsWith('ies') ? `${list.slice(0, -3)}y` : list.replace(/s$/, '');
