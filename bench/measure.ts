/** Medians of interleaved runs: every contestant once a round, so that a noisy moment strikes all of them alike. */
export interface Contestant {
  readonly name: string;
  /** Does the work once; gives the milliseconds it took, where the work times itself. */
  readonly run: () => number | undefined;
}

export function interleave(contestants: readonly Contestant[], rounds = 7): Map<string, number> {
  const times = new Map(contestants.map((c) => [c.name, [] as number[]]));
  for (let round = 0; round <= rounds; round++) {
    for (const c of contestants) {
      const start = performance.now();
      const own = c.run();
      // The first round warms up.
      if (round > 0) (times.get(c.name) as number[]).push(own ?? performance.now() - start);
    }
  }
  return new Map([...times].map(([name, all]) => [name, median(all)]));
}

export function median(all: readonly number[]): number {
  const sorted = [...all].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] as number;
}

export function line(what: string, figure: string, aim: string, met: boolean): void {
  process.stdout.write(`${what.padEnd(58)} ${figure.padEnd(34)} aim: ${aim}${met ? '' : '   NOT MET'}\n`);
}
