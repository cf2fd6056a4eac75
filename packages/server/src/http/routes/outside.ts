/** For whoever watches the installation from outside. */
import { OUTSIDE_ENDPOINTS } from '@nesting/contract';
import type { Vitals } from '../../flows/house/vitals';
import { type Handlers, routesOf } from '../handlers';
import { found, type Route } from '../route';

const healthOf = ({ isDatabaseThere, jobs, volumes }: Vitals) => ({
  isWell: isDatabaseThere && volumes.some((v) => v.isThere),
  database: isDatabaseThere ? ('there' as const) : ('away' as const),
  jobs: {
    waiting: jobs.reduce((sum, { waiting }) => sum + waiting, 0),
    oldestSeconds: Math.max(0, ...jobs.map(({ oldest }) => oldest)),
  },
  volumes: { there: volumes.filter((v) => v.isThere).length, away: volumes.filter((v) => !v.isThere).length },
});

const handlers: Handlers<typeof OUTSIDE_ENDPOINTS> = {
  health: async ({ watch }) => {
    const json = healthOf(await watch.vitals.read());
    return { status: json.isWell ? 200 : 503, json };
  },
  metrics: ({ watch }) => found(watch.metrics).text(),
};

export const OUTSIDE: readonly Route[] = routesOf(OUTSIDE_ENDPOINTS, handlers);
