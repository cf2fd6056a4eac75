/** Words for faults of patterns, slots and values. English, short, and saying what to write instead. */
import type { Params } from '../result';

const list = (value: Params[string] | undefined): string =>
  Array.isArray(value) ? value.join(', ') : String(value ?? '');

type Words = (p: Params) => string;

export const PATTERN_WORDS: Readonly<Record<string, Words>> = {
  'pattern-empty': () => 'The pattern is empty. Write at least one part, such as {title:kebab}.',
  'pattern-too-long': (p) => `The pattern is longer than ${p.limit} characters.`,
  'pattern-too-many-parts': (p) => `The pattern has ${p.found} parts; ${p.limit} is the most.`,
  'slot-unclosed': () => 'This brace is never closed. Write } behind the field, or {{ for the character itself.',
  'slot-empty': () => 'These braces hold no field. Write a field between them, such as {title}.',
  'slot-name': (p) =>
    `“${p.found}” is no field name. Field names begin with a letter and hold letters, digits, - and _.`,
  'slot-shape-empty': (p) => `The shape behind the colon is missing. Write {${p.field}:kebab}, or leave the colon out.`,
  'brace-stray': () => 'A closing brace without an opening one. Write }} for the character itself.',
  'group-unclosed': () => 'This optional group is never closed. Write )? behind it, or (( for the character itself.',
  'group-no-question': () =>
    'A group is closed with )?. Add the question mark, or write (( and )) for the characters themselves.',
  'group-stray': () => 'A closing parenthesis without an opening one. Write )) for the character itself.',
  'group-no-slot': () => 'An optional group must hold a field, for it is left out when that field has no value.',
  'group-too-deep': (p) => `Groups go ${p.limit} deep at the most.`,
  'shape-unknown': (p) => `“${p.shape}” is no shape for a ${p.type}.`,
  'property-unknown': (p) => `The field ${p.field} has no “${p.property}”.`,
  'date-form': (p) => `“${p.shape}” is no date form. Use yyyy, yy, MM, M, dd, d, HH, mm, ss and separators, each once.`,
  'register-empty': (p) => `No ${p.type} is known: the list is empty.`,
  'choice-empty': (p) => `The field ${p.field} is a choice without options.`,
  'like-empty': (p) => `The form of ${p.field} is empty.`,
  'chars-empty': (p) => `The field ${p.field} allows no characters.`,
  'families-unknown': (p) => `No family is called “${p.family}”.`,
  'field-twice': (p) => `${p.field} stands twice, and its two values could differ. Use it once.`,
  'value-missing': (p) => `${p.field} has no value yet.`,
  'value-unknown': (p) => `“${p.value}” is not one of ${list(p.known)}.`,
  'value-empty': (p) => `Nothing is left of “${p.value}” in this shape.`,
  'value-too-long': (p) => `“${p.value}” has ${p.found} characters; ${p.limit} is the most.`,
  'value-unfoldable': (p) =>
    `${list(p.letters)} cannot be written in plain letters. Give a Latin spelling of “${p.value}”.`,
  'value-characters': (p) =>
    p.letters
      ? `${list(p.letters)} may not stand in ${p.field}${p.allowed ? ` (allowed: ${p.allowed})` : ''}.`
      : `“${p.value}” holds characters that may not stand in ${p.field}.`,
  'value-form': (p) => `“${p.value}” is not of the form ${p.form}.`,
  'value-not-count': (p) => `“${p.value}” is no whole number.`,
  'value-not-letters': (p) => `“${p.value}” is no letter.`,
  'value-not-date': (p) => `“${p.value}” is no date that can be written as ${p.form}.`,
  'value-is-list': (p) => `${p.field} has several entries; a name takes one.`,
  'field-required': (p) => `${p.field} is needed.`,
  'choice-unknown': (p) => `“${p.value}” is not one of ${list(p.known)}.`,
  'client-unknown': (p) => `No client is called “${p.value}”.`,
  'client-retired': (p) => `The client ${p.value} is retired.`,
  'person-unknown': (p) => `Nobody has the initials or name “${p.value}”.`,
  'person-retired': (p) => `${p.value} has left.`,
  'date-bad': (p) => `“${p.value}” is no date of the calendar.`,
  'count-bad': (p) => `“${p.value}” is no whole number.`,
  'like-bad': (p) => `“${p.value}” is not of the form ${p.form}.`,
  'range-bad': (p) => `“${p.found}” is no range.`,
  'too-many-entries': (p) => `“${p.found}” has more entries than a list may hold.`,
  'outer-unknown': (p) => `${p.value} is none of the entries that ${p.field} are given for (${list(p.known)}).`,
  'entry-twice': (p) => `${p.value} is in the list twice; it is taken once.`,
};
