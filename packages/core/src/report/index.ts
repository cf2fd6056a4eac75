/** Findings, plans and templates as files and pages. */

export { broughtCsv, checksumLines, type Proved } from './brought';
export { changesCsv, changesJson, changesPowerShell, changesSh, changesText } from './changes';
export { comparedCsv, comparedJson } from './compared';
export {
  type FindingLine,
  findingsCsv,
  findingsJson,
  findingsSarif,
  findingsText,
} from './findings';
export {
  type AboutPackage,
  type AcceptedFinding,
  type PackageRecord,
  type PackedFile,
  packageRecord,
  sumsText,
} from './packed';
export { pairsCsv } from './pairs';
export { pairsOtio } from './pairs-otio';
export { type FilledStep, planOutline, planPaths, planPowerShell, planSh } from './plans';
export { type ReadPackage, readPackage, type UnpackedFile } from './read-package';
export { type TemplatePage, templateMarkdown, templateOutline, templatePage } from './template-page';
