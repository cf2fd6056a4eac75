import type { RootPlan } from '../listing/align';
import type { ProjectRules } from './rules';

/** How the project's root is told in a listing. */
export const rootPlanOf = ({ expansion }: ProjectRules): RootPlan => ({
  name: expansion.rootName.normalize('NFC'),
  inside: new Set(expansion.lines.flatMap((l) => (l.kind === 'folder' && l.depth === 1 ? [l.name] : []))),
});
