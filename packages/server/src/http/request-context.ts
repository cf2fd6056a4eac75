/** Where a request came from, known to whatever records that something was done. */
import { AsyncLocalStorage } from 'node:async_hooks';

const from = new AsyncLocalStorage<string>();

export const requestAddress = (): string | null => from.getStore() ?? null;
export const withRequestAddress = <T>(address: string, work: () => T): T => from.run(address, work);
