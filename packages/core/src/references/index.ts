/** References inside open formats, as byte ranges. */
export { refFormatOf } from './formats';
export type {
  Reference,
  RefFormat,
} from './reference';
export type { Target } from './target';
