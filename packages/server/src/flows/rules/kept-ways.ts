/** A way of carrying over, or of packing, is kept with a template. */
import type { Me } from '@nesting/contract';
import { sqlFault } from '../../db/client';
import * as ways from '../../db/queries/rules/kept-ways';
import { Refused, type World } from '../world';

/** More than that nobody chooses among. */
const MOST_WAYS = 50;

export async function keepWay(world: World, me: Me, of: ways.OfWay, way: object): Promise<void> {
  const kept = await ways.listWays(world.db, of.what, of.template);
  if (kept.length >= MOST_WAYS && !kept.some(({ name }) => name === of.name)) throw new Refused('ways-full');
  try {
    await ways.keepWay(world.db, of, { way, person: me.id });
  } catch (error) {
    if (sqlFault(error)?.constraint === 'kept_way_template_id_fkey') throw new Refused('no-template');
    throw error;
  }
}

export async function dropWay(world: World, of: ways.OfWay): Promise<void> {
  if (!(await ways.dropWay(world.db, of))) throw new Refused('no-way');
}
