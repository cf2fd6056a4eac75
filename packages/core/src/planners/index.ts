/** Intent turned into changes. */
export {
  type Extra,
  type Reshape,
  type ReshapeGiven,
  type ReshapeLine,
  type ReshapeSign,
  reshape,
  type There,
} from './reshape';
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
} from './start';
