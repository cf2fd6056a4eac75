/** Numbers for whoever watches many servers, in the OpenMetrics text form. Off unless asked for. */
import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';
import type { Vitals } from './flows/house/vitals';

/** Seconds: from what is answered at once to what is waited for. */
const SPANS = [0.005, 0.02, 0.1, 0.5, 2, 10, 60];

export class Metrics {
  private readonly registry = new Registry();
  private readonly requests: Histogram<'endpoint' | 'status'>;

  constructor(vitals: () => Promise<Vitals>) {
    const { registry } = this;
    registry.setContentType(Registry.OPENMETRICS_CONTENT_TYPE as never);
    collectDefaultMetrics({ register: registry, prefix: 'nesting_' });
    const registers = [registry];
    this.requests = new Histogram({
      name: 'nesting_request_seconds',
      help: 'How long requests took, by endpoint and status.',
      labelNames: ['endpoint', 'status'],
      buckets: SPANS,
      registers,
    });
    const gauge = (name: string, help: string, labels: string[], fill: (g: Gauge, seen: Vitals) => void) =>
      new Gauge({
        name: `nesting_${name}`,
        help,
        labelNames: labels,
        registers,
        async collect() {
          this.reset();
          fill(this, await vitals());
        },
      });
    gauge('database_up', 'Whether the database answers.', [], (g, { isDatabaseThere }) =>
      g.set(Number(isDatabaseThere)),
    );
    gauge('jobs_waiting', 'Jobs that wait for their turn.', ['kind'], (g, { jobs }) => {
      for (const { kind, waiting } of jobs) g.set({ kind }, waiting);
    });
    gauge('jobs_oldest_seconds', 'How long the oldest of them has waited.', ['kind'], (g, { jobs }) => {
      for (const { kind, oldest } of jobs) g.set({ kind }, oldest);
    });
    gauge('volume_up', 'Whether the volume is there.', ['volume'], (g, { volumes }) => {
      for (const { name, isThere } of volumes) g.set({ volume: name }, Number(isThere));
    });
    gauge('volume_free_bytes', 'What is free on the volume.', ['volume'], (g, { volumes }) => {
      for (const { name, freeBytes } of volumes) if (freeBytes !== null) g.set({ volume: name }, freeBytes);
    });
  }

  answered(endpoint: string, status: number, seconds: number): void {
    this.requests.observe({ endpoint, status: String(status) }, seconds);
  }

  text(): Promise<string> {
    return this.registry.metrics();
  }
}
