/** Intent turned into changes. */

export {
  type Carried,
  type CarryGiven,
  type CarryItem,
  carryOver,
  type Needed,
  namesPlanned,
} from './carry-over/carry';
export type { NamedBy } from './carry-over/names';
export { type CarryWay, COMES, PLAIN_WAY, VERSION_WAYS } from './carry-over/way';
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
  ownFileChange,
  ownFiles,
  projectFolderChange,
  redirectedChanges,
  type StartPlan,
  startChanges,
} from './start';
