/** References inside open formats, as byte ranges. */
export { refFormatOf } from './formats';
export type {
  Reference,
  RefFormat,
} from './reference';
export { distinctTargets, isReadAsText, stretchesOf } from './searched';
export { type Target, targetOf } from './target';
