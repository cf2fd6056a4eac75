/** What a check finds, as data: code, place, parameters. Words are made by `words/`. */
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import type { Problem, Stretch, Suggestion } from '../name/mend/suggest';
import type { Weight } from '../template/node';
import type { RuleCode, RuleParams } from './registry';

interface FindingOf<Code extends RuleCode> {
  /** Stable: a hash of the rule and its subject, never of weight, message or edition. */
  readonly id: string;
  readonly rule: Code;
  readonly weight: Weight;
  /** From the project's root, parted by `/`. */
  readonly path: string;
  readonly params: RuleParams<Code>;
  /** Names only: which parts fail, and how the name lies along the convention. */
  readonly problems: readonly Problem[];
  readonly stretches: readonly Stretch[];
  readonly suggestion: Suggestion | null;
  /** Other paths of the same finding: the frames of a sequence. */
  readonly related: readonly string[];
  /**
   * When what it is about was last written, milliseconds since 1970: who accepted an older state has not accepted this
   * one. 0 where nothing tells.
   */
  readonly modified: number;
  /** Initials that stand in its name; `null` for nobody's, or several people's. */
  readonly person: string | null;
}

/** Of each rule with its own parameters. */
export type Finding = { readonly [Code in RuleCode]: FindingOf<Code> }[RuleCode];

export interface CheckSummary {
  readonly must: number;
  readonly should: number;
  readonly note: number;
  readonly files: number;
  readonly folders: number;
}

/** Sixteen hexadecimal digits of SHA-256 over the rule and its subject. */
export function findingId(rule: string, subject: string): string {
  return bytesToHex(sha256(utf8ToBytes(`${rule}\0${subject.normalize('NFC')}`))).slice(0, 16);
}
