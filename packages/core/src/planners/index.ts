/** Intent turned into changes. */

export { carryOver, namesPlanned } from './carry-over/carry';
export {
  type Carried,
  type CarriedFolder,
  type CarryGiven,
  type CarryItem,
  isBrought,
} from './carry-over/given';
export { NAMED_BY, type NamedBy, type OldWordFound } from './carry-over/names';
export { isGeneratedIn, type Picked, type Revision } from './carry-over/source';
export { type CarryRow, type CarrySummary, carrySummary, type FamilyTotal } from './carry-over/summary';
export { type CarryWay, COMES, type Comes, PLAIN_WAY, VERSION_WAYS, type VersionWay } from './carry-over/way';
export { checksumLists } from './checksums';
export {
  clearingChanges,
  type LeftFolder,
  type LeftSum,
  type LeftWish,
  leftIn,
  leftSum,
  wishedOf,
} from './clearing';
export { type Double, type Doubled, doubled } from './doubled';
export {
  type CopiesPlace,
  type HeapCopies,
  type HeapCopy,
  type HeapFile,
  heapCopies,
} from './intake/copies';
export { type NewEntry, withEntries } from './intake/days';
export {
  INTAKE_STATES,
  type Intake,
  type IntakeGiven,
  type IntakeItem,
  type IntakeState,
  type InWay,
  isTaken,
  type Placed,
  type Same,
} from './intake/given';
export { type GrowingFolder, type Growth, growingBy } from './intake/growing';
export { intake } from './intake/intake';
export { type ClockShift, type Pair, type Pairing, PLAIN_PAIRING } from './intake/pair';
export { PLACE_REASONS, type PlaceReason } from './intake/places';
export type { LooseFile } from './intake/recognise';
export {
  type ContentHashes,
  type SameContents,
  type SizedFile,
  sameContents,
  TELLING_HEAD,
} from './intake/same-contents';
export { type IntakeSummary, intakeSummary } from './intake/summary';
export { type MentioningDocument, mentionsOf, movedBy } from './mentioned';
export { type PackGiven, type PackItem, type Packing, packing, STAYS, type Stays } from './pack/pack';
export { type Selection, WHOLE_PROJECT } from './pack/selection';
export { type PackRow, type PackSummary, packageBytes, packSummary, type StayTotal } from './pack/summary';
export { type LicensedItem, licensedIn, type Terms, termsAgainst } from './pack/terms';
export { countReferrers } from './referrers';
export {
  BY_HAND_REASONS,
  type ByHand,
  type DocumentFacts,
  type DocumentText,
  type RewrittenDocument,
  type Unread,
} from './repair/documents';
export type { Neighbour } from './repair/option';
export { type ProjectView, type ToRepair, WAYS, type Way } from './repair/option';
export {
  type Answer,
  REPAIR_STATES,
  type Repair,
  type RepairGiven,
  type RepairLine,
  type RepairState,
  repair,
} from './repair/repair';
export type { Clash } from './repair/settle';
export { type RepairSummary, summaryOf, writingStarters } from './repair/summary';
export {
  type DiskView,
  type Extra,
  RESHAPE_SIGNS,
  type Reshape,
  type ReshapeGiven,
  type ReshapeLine,
  type ReshapeSign,
  reshape,
} from './reshape';
export {
  inMakingOrder,
  MARKER_PATH,
  MARKER_REGISTERS_PATH,
  MARKER_TEMPLATE_PATH,
  type Made,
  type Marker,
  ownFileChanges,
  ownFiles,
  projectFolderChange,
  redirectedChanges,
  type StartPlan,
  startChanges,
} from './start';
export type { Torn, TornReference } from './torn';
