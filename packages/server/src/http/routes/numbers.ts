/** Project numbers and their series. */
import { NUMBER_ENDPOINTS } from '@nesting/contract';
import {
  giveBackNumber,
  holdNumber,
  numberPage,
  releaseNumber,
  reserveNumber,
  saveSeries,
} from '../../flows/house/numbers';
import { routesOf } from '../handlers';

export const NUMBERS = routesOf(NUMBER_ENDPOINTS, {
  numbers: ({ world, query }) => numberPage(world, query.scope ?? null),
  saveSeries: ({ world, me, body }) => saveSeries(world, me.id, body.series, body.version),
  reserveNumber: ({ world, me, body }) => reserveNumber(world, me.id, body.number, body.why),
  releaseNumber: ({ world, me, params }) => releaseNumber(world, me.id, params.number),
  holdNumber: ({ world, me, body }) => holdNumber(world, me.id, body),
  giveBackNumber: ({ world, me, params }) => giveBackNumber(world, me.id, params.number),
});
