/**
 * The address holds the state: what is looked at is read from it and put into it, without a step in the history for
 * each.
 */
import { useCallback } from 'react';
import { useSearchParams } from 'react-router';

/** An empty value, or none, takes the word out of the address. */
export type AddressChanges = Readonly<Record<string, string | null>>;

export function useAddress(): [URLSearchParams, (changes: AddressChanges) => void] {
  const [params, setParams] = useSearchParams();
  const put = useCallback(
    (changes: AddressChanges) =>
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
      ),
    [setParams],
  );
  return [params, put];
}
