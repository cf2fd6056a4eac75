/** What is known of a request by whatever is done for it: where it came from, and whether anybody still waits. */
import { AsyncLocalStorage } from 'node:async_hooks';

interface RequestContext {
  readonly address: string;
  readonly signal: AbortSignal;
}

const context = new AsyncLocalStorage<RequestContext>();

export const requestAddress = (): string | null => context.getStore()?.address ?? null;

/** For looks that nobody needs once the asker has gone. Never for anything that has begun to change things. */
export const untilAskerLeaves = (): { readonly signal: AbortSignal | undefined } => ({
  signal: context.getStore()?.signal,
});

export const withRequest = <T>(request: RequestContext, work: () => T): T => context.run(request, work);
