/** Medians of interleaved runs: every contestant once a round, so that a noisy moment strikes all of them alike. */
export interface Contestant<N extends string> {
  readonly name: N;
  /** Does the work once; gives the milliseconds it took, where the work times itself. */
  readonly run: () => number | undefined;
}

/** The median time of each contestant, in milliseconds, by its name. */
export function interleave<N extends string>(contestants: readonly Contestant<N>[], rounds = 7): Record<N, number> {
  const runs = contestants.map((contestant) => ({ contestant, times: [] as number[] }));
  for (let round = 0; round <= rounds; round++) {
    for (const { contestant, times } of runs) {
      const start = performance.now();
      const own = contestant.run();
      // The first round warms up.
      if (round > 0) times.push(own ?? performance.now() - start);
    }
  }
  return Object.fromEntries(runs.map((r) => [r.contestant.name, median(r.times)])) as Record<N, number>;
}

export function median(all: readonly number[]): number {
  const sorted = [...all].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? Number.NaN;
}

export function line(what: string, figure: string, aim: string, met: boolean): void {
  process.stdout.write(`${what.padEnd(58)} ${figure.padEnd(34)} aim: ${aim}${met ? '' : '   NOT MET'}\n`);
}
