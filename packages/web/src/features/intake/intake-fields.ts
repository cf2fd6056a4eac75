/** What a person may say of loose files: entries of lists, days, and fields of names, each with what is known for it. */
import type { ProjectPage } from '@nesting/contract';
import type { Field, Registers } from '@nesting/core/name';
import { ProjectRules } from '@nesting/core/project';

export interface SayField {
  /** As it is sent. */
  readonly key: string;
  readonly label: string;
  readonly isDay: boolean;
  readonly known: readonly string[];
}

const MOST_KNOWN = 500;

export function fieldsToSay(project: Pick<ProjectPage, 'body' | 'values'>, registers: Registers): readonly SayField[] {
  const rules = new ProjectRules({ template: project.body, values: project.values, registers });
  const lists = project.body.fields.flatMap((field): SayField[] =>
    field.type === 'list'
      ? [
          {
            ...{ key: field.key, label: field.label ?? field.key, isDay: field.of.type === 'date' },
            known: (rules.expansion.values.lists.get(field.key)?.all ?? []).slice(0, MOST_KNOWN),
          },
        ]
      : [],
  );
  const named = project.body.conventions.flatMap(({ fields = [] }) => fields);
  const person: SayField = {
    ...{ key: 'person', label: 'Person', isDay: false },
    known: registers.people.map(({ initials }) => initials),
  };
  return [...lists, ...unique(named.map(fieldOfName)).filter((field) => !isEntryOf(field.key, lists)), person];
}

function fieldOfName(field: Field): SayField {
  const known = field.type === 'choice' ? (field.options ?? []).map(({ code }) => code) : [];
  return { key: field.key, label: field.label ?? wordsOf(field.key), isDay: field.type === 'date', known };
}

/** `stand` is an entry of *Stands*: that is said by the list. */
const isEntryOf = (key: string, lists: readonly SayField[]): boolean =>
  lists.some((list) => list.key === `${key}s` || list.key === key);

const unique = (fields: readonly SayField[]): readonly SayField[] => [
  ...new Map(fields.map((field) => [field.key, field])).values(),
];

export const wordsOf = (key: string): string => key.replace(/^./, (c) => c.toUpperCase()).replaceAll('-', ' ');
