/** Templates: reading, editing, expanding, comparing, deriving. */
export {
  addShared,
  type BlockEdition,
  blockFromFolder,
  dropBlock,
  placeBlock,
  rootOfBlock,
  takeUp,
  usesOf,
  withBlock,
} from './blocks';
export { diagnoseTemplate, registersOf } from './compile-names';
export { withConventions } from './conventions';
export { ANSWERS, type AnswerTo, questionKey, settleQuestions, starterPath } from './derive/answers';
export { deriveTemplate } from './derive/derive';
export type { Derived, Known, Question } from './derive/derived';
export type { Diagnostic, DiagnosticCode } from './diagnose';
export { type Difference, diffTemplates } from './diff';
export {
  absorbNumbers,
  duplicateFolders,
  type Found,
  findFolder,
  freshId,
  groupFolders,
  idsIn,
  indentFolders,
  insertFolders,
  moveFolders,
  outdentFolders,
  type Place,
  removeFolders,
  renumberFolders,
  setFolder,
  shiftFolders,
  typedName,
} from './edit';
export { compileTemplate, expandTemplate } from './expand';
export type { Expander, ExpandOptions, Expansion, PlannedLine } from './expansion';
export { fillText } from './fill';
export { type Fit, type FolderTree, fitTemplate, folderTree } from './fit';
export { inOnePlace } from './in-one-place';
export { type Meanings, marksIn, only, type SettledMarks, settleMarks, withMarks } from './meanings';
export { type Clash, type Decide, mergeFolders, type Side } from './merge';
export * from './node';
export { type LooseTemplate, normaliseTemplate } from './normalise';
export { type OwnFolder, type OwnRules, ownConventions, tidyOwn, withOwnRules } from './own';
export { renameField } from './rename';
export { type FolderRules, type ResolvedFolder, resolveTemplate } from './resolve';
export { readSetting, SETTING_FACTS, type SettingFact, type SettingTold, settingTold } from './settings';
export { starterFiles, starterPaths, starterPathsIn } from './starter-files';
export { type KeptValues, keepValues, type ListEntries, type ValueFault } from './values';
export { blocksOf, numberPrefix, siblingsOf, visitFolders } from './visit';
