/** For whoever watches the installation from outside: nothing of the house is told. */
import { endpoint } from '../endpoint';
import { healthSchema } from '../wire';

export const OUTSIDE_ENDPOINTS = {
  health: endpoint({
    method: 'GET',
    path: '/health',
    does: 'Says how the installation is. 503 where it cannot be worked with: without its database, or without a volume',
    roles: 'anyone',
    whose: 'house',
    reply: { json: healthSchema, status: [200, 503] },
  }),
  metrics: endpoint({
    method: 'GET',
    path: '/metrics',
    does: 'Gives numbers in the OpenMetrics text form, where the installation was asked to',
    roles: 'anyone',
    whose: 'house',
    reply: { text: ['application/openmetrics-text; version=1.0.0; charset=utf-8'] },
  }),
} as const;
