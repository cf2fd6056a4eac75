/** A way of carrying over is kept with a template. */
import type { KeptWay, Me } from '@nesting/contract';
import { sqlFault } from '../../db/client';
import { keepWay, listWays } from '../../db/queries/rules/carry-ways';
import { Refused, type World } from '../world';

/** More than that nobody chooses among. */
const MOST_WAYS = 50;

export async function keepCarryWay(
  world: World,
  me: Me,
  way: Pick<KeptWay, 'name' | 'way'> & { readonly template: string },
): Promise<void> {
  const kept = await listWays(world.db, way.template);
  if (kept.length >= MOST_WAYS && !kept.some(({ name }) => name === way.name)) throw new Refused('ways-full');
  try {
    await keepWay(world.db, { ...way, person: me.id });
  } catch (error) {
    if (sqlFault(error)?.constraint === 'carry_way_template_id_fkey') throw new Refused('no-template');
    throw error;
  }
}
