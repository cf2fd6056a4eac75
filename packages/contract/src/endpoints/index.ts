/** The table of endpoints. Those that are not in it yet are typed by hand on both sides. */
import type { Spec } from '../endpoint';
import { BATCH_ENDPOINTS } from './batches';
import { CHECK_ENDPOINTS } from './checks';
import { PROJECT_ENDPOINTS } from './projects';

export { BATCH_ENDPOINTS, CHECK_ENDPOINTS, PROJECT_ENDPOINTS };

export const ENDPOINTS = { ...PROJECT_ENDPOINTS, ...BATCH_ENDPOINTS, ...CHECK_ENDPOINTS } as const satisfies Readonly<
  Record<string, Spec>
>;
export type Endpoints = typeof ENDPOINTS;
export type EndpointName = keyof Endpoints;
