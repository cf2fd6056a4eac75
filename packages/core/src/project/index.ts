/** A project's rules, compiled; its own folder and signposts. */

export type { Agreed } from './agreed';
export { type DueDelivery, deliveredAs, deliveriesOf, isLate } from './deliveries';
export { documentsAsFiles, type Inside, withWholeDocuments } from './documents';
export type { FolderConvention } from './folder-convention';
export { GENERATED, generatedBy } from './generated';
export { OWN_FOLDER } from './own-folder';
export { rootPlanOf } from './root-plan';
export { type CheckInput, ProjectRules } from './rules';
export { type SignpostFile, signpostFiles } from './signpost-files';
export {
  pathOn,
  printSignposts,
  SIGNPOST_FORMATS,
  type Signpost,
  type SignpostFormat,
  type SystemName,
  signpostsOf,
  variablesOf,
} from './signposts';
