/** A project carried over, and the ways that are kept for it. */
import { CARRY_ENDPOINTS } from '@nesting/contract';
import { dropWay, listWays } from '../../db/queries/rules/carry-ways';
import { applyCarry, planCarry, printCarry } from '../../flows/projects/carry-project';
import { listMentions } from '../../flows/projects/mentions';
import { keepCarryWay } from '../../flows/rules/carry-ways';
import { Refused } from '../../flows/world';
import { routesOf } from '../handlers';

export const CARRY = routesOf(CARRY_ENDPOINTS, {
  planCarry: ({ world, me, params, body }) => planCarry(world, me, params.id, body),
  writeCarry: ({ world, me, params, query, body }) => printCarry(world, me, params.id, body, query.as),
  applyCarry: async ({ world, me, params, body, wait }) => {
    const json = await applyCarry(world, me, params.id, body, wait);
    return { status: json.isDone ? (201 as const) : (202 as const), json };
  },
  listMentions: ({ world, params: { id, batch } }) => listMentions(world, id, batch),
  listCarryWays: ({ world, params }) => listWays(world.db, params.id),
  keepCarryWay: ({ world, me, params: { id, name }, body }) => keepCarryWay(world, me, { template: id, name, ...body }),
  dropCarryWay: async ({ world, params: { id, name } }) => {
    if (!(await dropWay(world.db, id, name))) throw new Refused('no-way');
  },
});
