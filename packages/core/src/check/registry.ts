/**
 * Every rule, in the order in which causes are tried. For one file the first that alone explains the difference is
 * reported.
 */
import type { Rule } from './rule';
import { companionApart, companionMissing } from './rules/companions';
import { dateMismatch, folderDateMismatch } from './rules/date-mismatch';
import { emptyFile } from './rules/empty-file';
import { emptyFolder } from './rules/empty-folder';
import { familyNotAccepted } from './rules/family-not-accepted';
import { foreignProject } from './rules/foreign-project';
import { licenceMissing } from './rules/licence-missing';
import { looseFile } from './rules/loose-file';
import { misplacedFile } from './rules/misplaced-file';
import { misplacedFolder } from './rules/misplaced-folder';
import { missingFolder } from './rules/missing-folder';
import { missingStarter } from './rules/missing-starter';
import { misspeltFolder } from './rules/misspelt-folder';
import { nameClash } from './rules/name-clash';
import { bannedWord, nameMismatch, sequencePadding, unknownCode, versionStyle } from './rules/name-mismatch';
import { overLimit } from './rules/over-limit';
import { pathTooLong } from './rules/path-too-long';
import { sameName } from './rules/same-name';
import { sequenceGap } from './rules/sequence-gap';
import { strayGenerated } from './rules/stray-generated';
import { unplannedFolder } from './rules/unplanned-folder';
import { unportableName } from './rules/unportable-name';
import { versionGap } from './rules/version-gap';
import { versionedDelivery } from './rules/versioned-delivery';
import { oldVersionOnTop, versionTwice } from './rules/versions';

export const RULES: readonly Rule[] = [
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
  { code: 'same-content', scope: 'contents' },
  sameName,
  versionGap,
  companionMissing,
  companionApart,
  dateMismatch,
  folderDateMismatch,
  { code: 'absolute-reference', scope: 'contents' },
  { code: 'outside-reference', scope: 'contents' },
  { code: 'broken-reference', scope: 'contents' },
];
