/** The face of the core, by name. */
export { type Answer, bad, good, never, type Params } from './answer';
export { type Again, type CheckOutcome, checkListing, judgeWhole, mergeChecks, outcomeOf } from './check/check';
export { Checker } from './check/checker';
export { textHash } from './check/column';
export {
  type ContentCase,
  type ContentFact,
  type ContentTasks,
  type ContentWants,
  contentTasks,
  contentWants,
  rowsOfSameSize,
  withContents,
} from './check/contents';
export { type Effect, EffectCounter } from './check/effect';
export { type CheckSummary, type Finding, findingId, RULE_CODES, type RuleCode } from './check/finding';
export { CheckGround, type CheckInput, type FolderConvention, GENERATED } from './check/ground';
export type { Run } from './check/items';
export { type FolderState, OWN_FOLDER, stateOf } from './check/match';
export { type CheckPart, type FolderRow, joinParts, keepRows } from './check/part';
export { RULES } from './check/registry';
export { LIMITS } from './limits';
export { type FileEntry, type FolderListing, FRAMES_NOTE, frameRange, join, nameOf, parentOf } from './listing/entry';
export { extensionOf } from './listing/extension';
export { type PathFault, type RelPath, relPathOf } from './listing/path';
export { printListing } from './listing/print';
export { commonRoot, foldersFrom, formOfListing, type PathLine, parseListing } from './listing/text';
export {
  type CellFault,
  type CellFaultCode,
  type Cells,
  COLUMNS,
  type Column,
  cellFaults,
  foldKey,
  keyColumn,
  LIST_NAMES,
  type ListEntry,
  type ListName,
  severalOf,
  tidyCells,
} from './lists/columns';
export { type ImportPlan, type ImportRow, MOST_IMPORTED, planImport, type TableFault, tableOf } from './lists/import';
export { nextEntry } from './lists/next-entry';
export { addItem, type Item, moveItem, printRow, type Row, removeItem, rowOf } from './name/arrange';
export type { Part, Pattern, Slot } from './name/ast';
export { slotsOf } from './name/ast';
export type { Ambiguity } from './name/automaton';
export { type ChangeCode, type NameContext, NO_CONTEXT, sameForm } from './name/candidates';
export { type Cause, causeOf } from './name/cause';
export { type CompileFault, compileConvention, compileName } from './name/compile';
export { type Cure, curesFor } from './name/cure';
export { dateFromWords } from './name/date-words';
export { type DateParts, isoOf, isReal, parseDateForm, parseIso, readDate, writeDate } from './name/dates';
export { examplePieces, longestName } from './name/example';
export { type Expectation, expectationOf } from './name/expect';
export * from './name/field';
export { fold } from './name/fold';
export { type Form, type FormContext, type LikePiece, likePieces } from './name/form';
export { type Grouped, groupFrames, missingFrames, rangesOf, type Sequence } from './name/frames';
export { type Learned, type LearnedConvention, learnConventions } from './name/learn/learn';
export type { CompiledConvention, CompiledName } from './name/ops';
export { mustParse, type PatternFault, parsePattern } from './name/parse';
export { proveOneWay } from './name/prove';
export { readings, readName, readValues, type Span, spansOf } from './name/read';
export { shapeText, TEXT_SHAPES, type TextShape } from './name/shape';
export {
  type Confidence,
  type Explanation,
  explainName,
  type Problem,
  type Stretch,
  type Suggestion,
} from './name/suggest';
export { abbreviate, sanitise, spellOut } from './name/tidy';
export { entriesOf } from './name/value';
export { type Chain, chainsOf, nextVersion, ordinal, type Version } from './name/versions';
export { hasValue, type WriteFault, type WrittenPiece, writeName, writePieces } from './name/write';
export {
  type CompiledSeries,
  compileSeries,
  DEFAULT_SERIES,
  type NumberContext,
  type NumberSeries,
  RESETS,
  type ReadNumber,
  type Reset,
  type SeriesFault,
} from './numbers/series';
export {
  type ApplyFault,
  applyBatch,
  type Batch,
  type BatchOutcome,
  type Left,
  lookAhead,
  runSteps,
} from './plan/apply';
export { type Change, type Content, type Expected, type NewContent, PARKED, type Step } from './plan/change';
export {
  BATCHES,
  type Ended,
  INTENTS,
  type Intents,
  type Journal,
  KEPT,
  keptName,
  NEW,
  OPEN,
  OUTCOMES,
  type Outcome,
} from './plan/journal';
export { type Ordered, type OrderFault, type OrderFaultCode, orderAny, orderChanges } from './plan/order';
export { isMaking, type MakingStep, type Performed, performSteps, takeBack } from './plan/perform';
export { type Cancellation, codeOf, type MakingPort, type PerformOptions, type Port, type Standing } from './plan/port';
export { MemoryDisk } from './plan/replay';
export {
  type Extra,
  type Reshape,
  type ReshapeGiven,
  type ReshapeLine,
  type ReshapeSign,
  reshape,
  type There,
} from './plan/reshape';
export { doneAfter, leftOf, type Progress, stepsDone } from './plan/resume';
export { type Done, reverseChanges } from './plan/reverse';
export {
  MARKER_PATH,
  MARKER_REGISTERS_PATH,
  MARKER_TEMPLATE_PATH,
  type Marker,
  makingSteps,
  ownFiles,
  redirectedChanges,
  type StartPlan,
  startChanges,
} from './plan/start';
export { clashKey, isLegalName, type NameFault, nameFaults, utf8Length } from './portable/name';
export { DEFAULT_PATH_BUDGET, DEFAULT_PROFILES, PROFILE_NAMES, PROFILES, type ProfileName } from './portable/profiles';
export { REF_FORMATS, refFormatOf } from './refs/formats';
export {
  decode as decodeReference,
  encode as encodeReference,
  type Reference,
  type RefFormat,
  withTargets,
} from './refs/reference';
export { isThere, type Target, targetOf } from './refs/target';
export { base64 } from './report/bytes';
export { changesCsv, changesJson, changesPowerShell, changesSh, changesText } from './report/changes';
export { csv } from './report/csv';
export {
  type FindingLine,
  findingLine,
  findingsCsv,
  findingsJson,
  findingsSarif,
  findingsText,
} from './report/findings';
export { type FilledStep, planOutline, planPaths, planPowerShell, planSh } from './report/plans';
export { type SignpostFile, signpostFiles } from './report/signpost-files';
export {
  pathOn,
  printSignposts,
  SIGNPOST_FORMS,
  type Signpost,
  type SignpostForm,
  type SystemName,
  signpostsOf,
  variablesOf,
} from './report/signposts';
export { type TemplatePage, templateMarkdown, templateOutline, templatePage } from './report/template-page';
export { sameThing } from './same';
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
} from './template/blocks';
export { withConventions } from './template/conventions';
export { ANSWERS, type AnswerTo, questionKey, settleQuestions, starterPath } from './template/derive/answers';
export { type Derived, deriveTemplate, type Known, type Question } from './template/derive/derive';
export type { Diagnostic, DiagnosticCode } from './template/diagnose';
export { type Difference, diffTemplates } from './template/diff';
export {
  absorbNumbers,
  changeFolder,
  duplicateFolders,
  type Found,
  findFolder,
  freeNumber,
  freshId,
  groupFolders,
  idsIn,
  indentFolders,
  insertFolders,
  moveFolders,
  outdentFolders,
  outermost,
  type Place,
  removeFolders,
  renumberFolders,
  setFolder,
  shiftFolders,
  typedName,
  withFreshIds,
} from './template/edit';
export {
  compileTemplate,
  type Expander,
  type ExpandOptions,
  type Expansion,
  expandTemplate,
  type PlannedLine,
} from './template/expand';
export { fillText } from './template/fill';
export { type Fit, type FolderTree, fitTemplate, folderTree } from './template/fit';
export { type Clash, type Decide, mergeFolders, type Side } from './template/merge';
export { diagnoseTemplate, registersOf } from './template/names';
export * from './template/node';
export { type LooseTemplate, normaliseTemplate } from './template/normalise';
export { isOwnFolder, type OwnFolder, type OwnRules, ownConventions, tidyOwn, withOwnRules } from './template/own';
export { renameField } from './template/rename';
export { type FolderRules, type ResolvedFolder, resolveTemplate } from './template/resolve';
export { type KeptValues, keepValues, type ListEntries, type ValueFault } from './template/values';
export { blocksOf, numberPrefix, siblingsOf, visitFolders } from './template/visit';
export { ACTIVITY_WORDS, activityWords, changeWords } from './words/activity';
export { batchWords, changeLine, hindranceWords } from './words/batches';
export { differenceWords } from './words/differences';
export {
  CHANGE_WORDS,
  expectationWords,
  findingWords,
  problemWords,
  RULE_CURES,
  RULE_REASONS,
  RULE_TITLES,
  wordsFor,
} from './words/names';
