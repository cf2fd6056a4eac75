/** What other rules would do to what is there. */
export { type NameImpact, NameImpactCounter } from './name-impact';
