/** Intent turned into changes. */
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
