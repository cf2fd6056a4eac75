/** Projects held against each other. */
import { z } from 'zod';
import { COMPARISON_FORMS, compareQuerySchema, comparisonSchema } from '../compare';
import { endpoint } from '../endpoint';
import { ALL } from '../roles';
import { FOLDER } from './refused';

export const COMPARE_ENDPOINTS = {
  compareProjects: endpoint({
    method: 'GET',
    path: '/api/compare',
    does: 'Holds two projects against each other, as they lie on the disk now',
    roles: ALL,
    whose: 'house',
    query: compareQuerySchema,
    reply: { json: comparisonSchema },
    refuses: ['no-project', 'no-revisions', 'no-change', 'batch-forgotten', ...FOLDER],
  }),
  writeComparison: endpoint({
    method: 'GET',
    path: '/api/compare/print',
    does: 'Gives such a comparison as a table or as JSON',
    roles: ALL,
    whose: 'house',
    query: compareQuerySchema.extend({ as: z.enum(COMPARISON_FORMS) }),
    reply: { file: ['text/csv', 'application/json'] },
    refuses: ['no-project', 'no-revisions', 'no-change', 'batch-forgotten', ...FOLDER],
  }),
};
