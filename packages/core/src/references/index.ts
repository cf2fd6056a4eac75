/** References inside open formats, as byte ranges. */
export { REF_FORMATS, refFormatOf } from './formats';
export {
  type Reference,
  type RefFormat,
  withTargets,
} from './reference';
export { isThere, type Target, targetOf } from './target';
