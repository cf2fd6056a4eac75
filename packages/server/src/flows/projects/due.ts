/** What of a project must be delivered, as its folder is now. */
import type { DueLine } from '@nesting/contract';
import { untilAskerLeaves } from '../../request-context';
import { compileRules } from '../checks/check-project';
import type { World } from '../world';

export async function dueInProject(world: World, id: string): Promise<DueLine[]> {
  const { where, mounts, input } = await compileRules(world, id);
  return world.disks.run('dueIn', { where, mounts, rules: input }, untilAskerLeaves());
}
