/**
 * The address holds the state: what is looked at is read from it and put into it, without a step in the history for
 * each.
 */
import { useCallback } from 'react';
import { useLocation, useSearchParams } from 'react-router';

/** An empty value, or none, takes the word out of the address. */
export type AddressChanges = Readonly<Record<string, string | null>>;

export function useAddress(): [URLSearchParams, (changes: AddressChanges) => void] {
  const [params, setParams] = useSearchParams();
  const page = useLocation().pathname;
  const put = useCallback(
    (changes: AddressChanges) => {
      // Somebody has left this page meanwhile: what is looked at there is another thing.
      if (location.pathname !== page) return;
      setParams(
        (before) => {
          const after = new URLSearchParams(before);
          for (const [key, value] of Object.entries(changes)) {
            if (value === null || value === '') after.delete(key);
            else after.set(key, value);
          }
          return after;
        },
        { replace: true },
      );
    },
    [setParams, page],
  );
  return [params, put];
}
