/** How the installation is: for whoever watches it from outside. */
import { waitingJobs } from '../../db/queries/house/jobs';
import type { World } from '../world';
import { isThere, stateOfVolume } from './volumes';

export interface Vitals {
  readonly isDatabaseThere: boolean;
  /** Jobs that wait for their turn, by kind, with the age of the oldest in seconds. */
  readonly jobs: readonly { readonly kind: string; readonly waiting: number; readonly oldest: number }[];
  readonly volumes: readonly { readonly name: string; readonly isThere: boolean; readonly freeBytes: number | null }[];
}

/** Milliseconds that anything is waited for, and that what was seen is told to the next who ask. */
const PATIENCE = 3000;
const FRESH = 5000;

const within = <T>(work: Promise<T>, otherwise: T): Promise<T> => {
  let clock: NodeJS.Timeout | undefined;
  const late = new Promise<T>((resolve) => {
    clock = setTimeout(() => resolve(otherwise), PATIENCE);
  });
  return Promise.race([work.catch(() => otherwise), late]).finally(() => clearTimeout(clock));
};

/** Looked at once, however many ask: whoever watches is no burden. */
export class VitalSigns {
  private seen: { readonly at: number; readonly vitals: Promise<Vitals> } | null = null;

  constructor(private readonly world: World) {}

  read(): Promise<Vitals> {
    const now = performance.now();
    if (this.seen === null || now - this.seen.at > FRESH) this.seen = { at: now, vitals: this.look() };
    return this.seen.vitals;
  }

  private async look(): Promise<Vitals> {
    const { world } = this;
    const names = [...world.config.volumes.keys()];
    const [jobs, volumes] = await Promise.all([
      within(waitingJobs(world.db), null),
      Promise.all(names.map((name) => this.volume(name))),
    ]);
    return { isDatabaseThere: jobs !== null, jobs: jobs ?? [], volumes };
  }

  private async volume(name: string): Promise<Vitals['volumes'][number]> {
    const state = await within(stateOfVolume(this.world, name), { state: 'missing' as const, freeBytes: null });
    return { name, isThere: isThere(state), freeBytes: state.freeBytes };
  }
}
