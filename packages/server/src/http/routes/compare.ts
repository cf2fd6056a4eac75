/** Projects held against each other. */
import { COMPARE_ENDPOINTS } from '@nesting/contract';
import { compareProjects, printComparison } from '../../flows/projects/compare-projects';
import { routesOf } from '../handlers';

export const COMPARE = routesOf(COMPARE_ENDPOINTS, {
  compareProjects: ({ world, query }) => compareProjects(world, query),
  writeComparison: ({ world, query }) => printComparison(world, query),
});
