/** A project carried over, and the ways that are kept for it. */
import { CARRY_ENDPOINTS } from '@nesting/contract';
import { listWays } from '../../db/queries/rules/kept-ways';
import { applyCarry, carryHere, planCarry, printCarry } from '../../flows/projects/carry-project';
import { filePiece } from '../../flows/projects/file-piece';
import { listMentions } from '../../flows/projects/mentions';
import { dropWay, keepWay } from '../../flows/rules/kept-ways';
import { routesOf, somebodysFile } from '../handlers';

export const CARRY = routesOf(CARRY_ENDPOINTS, {
  planCarry: ({ world, me, params, body }) => planCarry(world, me, params.id, body),
  writeCarry: ({ world, me, params, query, body }) => printCarry(world, me, params.id, body, query.as),
  applyCarry: async ({ world, me, params, body, wait }) => {
    const json = await applyCarry(world, me, params.id, body, wait);
    return { status: json.isDone ? (201 as const) : (202 as const), json };
  },
  carryHere: ({ world, me, params, body }) => carryHere(world, me, params.id, body),
  filePiece: async ({ world, params, query }) => {
    const { name, bytes, sha256 } = await filePiece(world, params.id, query);
    return { ...somebodysFile(name, bytes), sha256 };
  },
  listMentions: ({ world, params: { id, batch } }) => listMentions(world, id, batch),
  listCarryWays: ({ world, params }) => listWays(world.db, 'carry', params.id),
  keepCarryWay: ({ world, me, params: { id: template, name }, body }) =>
    keepWay(world, me, { what: 'carry', template, name }, body.way),
  dropCarryWay: ({ world, params: { id: template, name } }) => dropWay(world, { what: 'carry', template, name }),
});
