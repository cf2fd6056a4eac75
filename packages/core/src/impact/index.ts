/** What other rules would do to what is there. */
export { type LineImpact, lineImpact } from './line-impact';
export { type NameImpact, NameImpactCounter } from './name-impact';
