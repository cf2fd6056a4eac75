/** References inside open formats, as byte ranges. */
export { refFormatOf } from './formats';
export { Moves } from './moves';
export { type Moved, type Named, NamesSought } from './named';
export type {
  Reference,
  RefFormat,
} from './reference';
export { referenceAfter } from './rewrite';
export { distinctTargets, isReadAsText, stretchesOf } from './searched';
export { pathMeant, type Target, targetOf } from './target';
