/** Lists, numbers, people, marks: what is refused of them. */
import type { Coded } from '../../result';
import { wordsFor } from '../findings';

interface Named {
  readonly name: string;
}
interface Numbered {
  readonly number: string;
}
interface Keyed {
  readonly key: string;
}
const three = (names: readonly string[]): string => names.slice(0, 3).join(', ');
const because = ({ code, params }: Coded): string => wordsFor(code, params);

export const HOUSE_REFUSALS = {
  'cell-refused': (p: { readonly because: Coded }) => `${because(p.because)} Nothing was changed.`,
  'entry-there': (p: { readonly column: string; readonly text: string }) =>
    `${p.column} ${p.text} is in the list already. Nothing was changed.`,
  'short-there': (p: { readonly text: string }) =>
    `The abbreviation ${p.text} stands for another word already. Nothing was changed.`,
  'entry-changed': (p: Keyed) =>
    `Somebody else changed ${p.key} since you opened it. Nothing was changed; look at it anew.`,
  'entry-in-names': (p: Keyed & { readonly projects: number }) =>
    `${p.key} stands in the names of ${p.projects} projects: the code stays. Add another, and retire this one. Nothing was changed.`,
  'entry-used': (p: Keyed & { readonly by: readonly string[]; readonly canRetire: boolean }) =>
    `${p.key} is used${p.by.length > 0 ? ` by ${three(p.by)}` : ''}: what is used is never deleted${p.canRetire ? '; retire it' : ''}. Nothing was changed.`,
  'entry-named': (p: Keyed & { readonly by: readonly string[] }) =>
    `${p.key} is named in ${three(p.by)}: change it there first. Nothing was changed.`,
  'entry-retired': (p: Keyed) => `${p.key} is retired itself. Nothing was changed.`,
  'no-entry': (p: Keyed) => `${p.key} is not in the list any more. Nothing was changed.`,
  'two-entries': () => 'Two different entries are needed. Nothing was changed.',
  'no-merge': () => 'Entries of this list are not merged: delete one of them. Nothing was changed.',
  'table-refused': (p: { readonly line: number | null; readonly because: Coded }) =>
    `${p.line === null ? '' : `Line ${p.line}: `}${because(p.because)} Nothing was changed.`,
  'meaning-changed': () => 'Somebody else gave this mark another meaning since. Nothing was changed; look at it anew.',
  'meaning-taken': (p: { readonly words: string }) => `Another mark means “${p.words}” already. Nothing was changed.`,

  'series-refused': (p: { readonly because: Coded }) => `${because(p.because)} Nothing was changed.`,
  'series-value-missing': (p: { readonly because: Coded }) => because(p.because),
  'series-changed': () => 'Somebody else changed the series since. Nothing was changed; look at it anew.',
  'number-held': (p: Numbered & { readonly by: string }) =>
    `${p.number} is held for ${p.by} just now. Nothing was written; take the next number.`,
  'number-reserved': (p: Numbered & { readonly why: string }) =>
    `${p.number} is reserved: ${p.why}. Nothing was written; take the next number, or release this one first.`,
  'number-taken': (p: Numbered) =>
    `${p.number} belongs to a project, is held, or is reserved already. Nothing was changed; take the next number.`,
  'number-missing': () => 'A project needs a number. Nothing was written.',
  'not-reserved': (p: Numbered) => `${p.number} is not reserved.`,

  'person-there': (p: { readonly by: 'email' | 'initials' }) =>
    `${p.by === 'email' ? 'This e-mail address belongs' : 'These initials belong'} to somebody already. Nothing was changed.`,
  'person-left': (p: Named) => `${p.name} has left. Let them return first.`,
  'person-gone': (p: Named) => `${p.name} has left already.`,
  'not-left': (p: Named) => `${p.name} has not left. Nothing was changed.`,
  'no-person': () => 'There is no such person.',
  'initials-used': (p: { readonly initials: string }) =>
    `${p.initials} stands in names on disks: initials stay once somebody works here. Nothing was changed.`,
  'person-changed': (p: Named) =>
    `Somebody else changed ${p.name} since you opened it. Nothing was changed; look anew.`,
  'last-coordinator': (p: Named) =>
    `${p.name} is the only coordinator: make somebody else one first. Nothing was changed.`,
} as const;
