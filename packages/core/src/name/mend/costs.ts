/** What a change of a broken name is called, and how dear it is. */
import type { Abbreviation, Reading } from '../pattern/field';

export const CHANGE_CODES = [
  'characters',
  'case',
  'separator',
  'padding',
  'accents',
  'abbreviation',
  'spelling',
  'date-form',
  'version-style',
  'extension',
  'banned-word',
  'copy-mark',
  'doubled',
  'extra',
  'order',
  'missing',
  'number',
  'client',
  'entry',
  'unknown',
] as const;
export type ChangeCode = (typeof CHANGE_CODES)[number];

export interface Candidate {
  readonly text: string;
  readonly cost: number;
  readonly change: ChangeCode | null;
  /** It may as well have been meant as it stands: a name that leans on it is never sure. */
  readonly doubtful: boolean;
}

/** What is known besides the name itself. */
export interface NameContext {
  /** Values the name must carry: the project's own number, the entries of the folder it lies in. */
  readonly bound: Reading;
  /** Other values a field is known to take in this project: the entries of its lists, its title. */
  readonly known: Readonly<Record<string, readonly string[]>>;
  readonly abbreviations: readonly Abbreviation[];
  readonly banned: readonly string[];
}

export const NO_CONTEXT: NameContext = { bound: {}, known: {}, abbreviations: [], banned: [] };

/** Costs of the changes; what costs more than `unknown` is no plain slip any more. */
export const COST: Readonly<Record<ChangeCode, number>> = {
  characters: 0.4,
  case: 0.4,
  separator: 0.5,
  padding: 0.3,
  accents: 0.4,
  abbreviation: 0.5,
  spelling: 1.2,
  'date-form': 0.6,
  'version-style': 0.5,
  extension: 0.5,
  'banned-word': 0.8,
  'copy-mark': 0.8,
  doubled: 1,
  extra: 3,
  order: 0.8,
  missing: 1.6,
  number: 2,
  client: 2,
  entry: 2.5,
  unknown: 4,
};

/** What a doubt adds: the name as it stands is nearly as likely. */
export const DOUBT = 0.6;

export const made = (text: string, change: ChangeCode, cost = COST[change]): Candidate => ({
  text,
  cost,
  change,
  doubtful: false,
});

export const doubted = (text: string, change: ChangeCode, cost = COST[change] + DOUBT): Candidate => ({
  text,
  cost,
  change,
  doubtful: true,
});

export const same = (text: string): Candidate => ({ text, cost: 0, change: null, doubtful: false });
