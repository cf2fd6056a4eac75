/** Project numbers and their series. */
import { z } from 'zod';
import { endpoint } from '../endpoint';
import { numberPageSchema, reserveSchema, saveSeriesSchema } from '../lists';
import { COORDINATOR, LOOKING } from '../roles';
import { holdReplySchema, holdSchema } from '../wire';
import { nothing } from './params';

const ofNumber = { number: z.string().min(1).max(200) };

export const NUMBER_ENDPOINTS = {
  numbers: endpoint({
    method: 'GET',
    path: '/api/numbers',
    does: 'Gives the series, the next number, and what became of each',
    roles: LOOKING,
    whose: 'house',
    query: z.object({ scope: z.string().max(200).optional() }),
    reply: { json: numberPageSchema },
  }),
  saveSeries: endpoint({
    method: 'PUT',
    path: '/api/numbers/series',
    does: 'Changes how numbers are made',
    roles: COORDINATOR,
    whose: 'house',
    body: saveSeriesSchema,
    reply: nothing,
    refuses: ['series-refused', 'series-changed'],
  }),
  reserveNumber: endpoint({
    method: 'POST',
    path: '/api/numbers/reserved',
    does: 'Reserves a number, with a reason',
    roles: COORDINATOR,
    whose: 'house',
    body: reserveSchema,
    reply: nothing,
    refuses: ['number-taken'],
  }),
  releaseNumber: endpoint({
    method: 'DELETE',
    path: '/api/numbers/reserved/:number',
    does: 'Releases a number that was reserved',
    roles: COORDINATOR,
    whose: 'house',
    params: ofNumber,
    reply: nothing,
    refuses: ['not-reserved'],
  }),
  holdNumber: endpoint({
    method: 'POST',
    path: '/api/numbers/hold',
    does: 'Gives out the next number, held for whoever asks for a while',
    roles: COORDINATOR,
    whose: 'own',
    body: holdSchema,
    reply: { json: holdReplySchema },
    refuses: ['series-value-missing', 'no-template'],
  }),
  giveBackNumber: endpoint({
    method: 'DELETE',
    path: '/api/numbers/hold/:number',
    does: 'Gives a number back that one holds',
    roles: COORDINATOR,
    whose: 'own',
    params: ofNumber,
    reply: nothing,
  }),
} as const;
