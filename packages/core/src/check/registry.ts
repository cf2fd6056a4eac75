/** Every rule, in the order in which causes are tried. For one file the first that alone explains the difference is reported. */
import type { Rule } from './rule';
import { foreignProject } from './rules/foreign-project';
import { looseFile } from './rules/loose-file';
import { missingFolder } from './rules/missing-folder';
import { nameMismatch } from './rules/name-mismatch';
import { unplannedFolder } from './rules/unplanned-folder';

export const RULES: readonly Rule[] = [missingFolder, unplannedFolder, foreignProject, looseFile, nameMismatch];
