/** What is known of a request by whatever is done for it, and by the jobs it asked for. */
import { AsyncLocalStorage } from 'node:async_hooks';

interface RequestContext {
  /** Stands in log lines, jobs, batches, checks, journals and activity. */
  readonly id: string;
  /** Where it came from; `null` for what a job does later. */
  readonly address: string | null;
  /** Aborted when nobody waits for it any more; a job waits for nobody. */
  readonly signal?: AbortSignal;
}

const context = new AsyncLocalStorage<RequestContext>();

export const requestId = (): string | null => context.getStore()?.id ?? null;

export const requestAddress = (): string | null => context.getStore()?.address ?? null;

/** For looks that nobody needs once the asker has gone. Never for anything that has begun to change things. */
export const untilAskerLeaves = (): { readonly signal: AbortSignal | undefined } => ({
  signal: context.getStore()?.signal,
});

export const withRequest = <T>(request: RequestContext, work: () => T): T => context.run(request, work);

/** A job goes on under the id of the request that asked for it; what the server does by itself has none. */
export const onBehalfOf = <T>(request: string | null, work: () => T): T =>
  request === null ? context.exit(work) : context.run({ id: request, address: null }, work);
