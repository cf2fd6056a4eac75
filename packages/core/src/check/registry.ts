/**
 * Every rule, in the order in which causes are tried. For one file the first that alone explains the difference is
 * reported.
 */

import type { ParamsOf, Rule } from './rule';
import { bannedWord } from './rules/banned-word';
import { companionApart, companionMissing } from './rules/companions';
import { dateMismatch } from './rules/date-mismatch';
import { emptyFile } from './rules/empty-file';
import { emptyFolder } from './rules/empty-folder';
import { familyNotAccepted } from './rules/family-not-accepted';
import { foreignProject } from './rules/foreign-project';
import { licenceMissing } from './rules/licence-missing';
import { looseFile } from './rules/loose-file';
import { misplacedFile } from './rules/misplaced-file';
import { misplacedFolder } from './rules/misplaced-folder';
import { missingDelivery } from './rules/missing-delivery';
import { missingFolder } from './rules/missing-folder';
import { missingStarter } from './rules/missing-starter';
import { misspeltFolder } from './rules/misspelt-folder';
import { nameClash } from './rules/name-clash';
import { nameMismatch, sequencePadding, unknownCode, versionStyle } from './rules/name-mismatch';
import { overLimit } from './rules/over-limit';
import { pathTooLong } from './rules/path-too-long';
import { absoluteReference, brokenReference, outsideReference } from './rules/references';
import { sameContent } from './rules/same-content';
import { sameName } from './rules/same-name';
import { sequenceGap } from './rules/sequence-gap';
import { settingMismatch } from './rules/setting-mismatch';
import { strayGenerated } from './rules/stray-generated';
import { unplannedFolder } from './rules/unplanned-folder';
import { unportableName } from './rules/unportable-name';
import { versionGap } from './rules/version-gap';
import { versionedDelivery } from './rules/versioned-delivery';
import { oldVersionOnTop, versionTwice } from './rules/versions';

export const RULES = [
  missingFolder,
  misspeltFolder,
  unplannedFolder,
  misplacedFolder,
  missingStarter,
  foreignProject,
  unportableName,
  pathTooLong,
  nameClash,
  strayGenerated,
  familyNotAccepted,
  misplacedFile,
  looseFile,
  // In a folder whose names stay the same a version is the cause, whatever else a convention says of it.
  versionedDelivery,
  unknownCode,
  versionStyle,
  sequencePadding,
  nameMismatch,
  bannedWord,
  overLimit,
  versionTwice,
  oldVersionOnTop,
  sequenceGap,
  emptyFile,
  licenceMissing,
  emptyFolder,
  sameContent,
  sameName,
  versionGap,
  companionMissing,
  companionApart,
  dateMismatch,
  absoluteReference,
  outsideReference,
  brokenReference,
  settingMismatch,
  missingDelivery,
] as const satisfies readonly Rule[];

type RuleIn = (typeof RULES)[number];
export type RuleCode = RuleIn['code'];
/** In the order in which causes are told. */
export const RULE_CODES: readonly RuleCode[] = RULES.map((r) => r.code);

type ShapeOf<Code extends RuleCode> = Extract<RuleIn, { readonly code: Code }>['params'];
/** What the words and the remedy of a rule's findings are made from; of a sequence as one also its frames. */
export type RuleParams<Code extends RuleCode> = ParamsOf<ShapeOf<Code>> & { readonly frames?: number };

/** Every rule by its code, each seen as any rule is. */
export const RULE_BY_CODE: ReadonlyMap<string, Rule<RuleCode>> = new Map(RULES.map((r) => [r.code, r]));
