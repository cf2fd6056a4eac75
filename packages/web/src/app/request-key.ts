/** Keys by which a request asked again is the same request: after a connection that broke it is done once. */
import { useCallback, useRef } from 'react';

/** The same key for the same request, until another one is asked; none where the browser makes none. */
export function useRequestKey(): (request: unknown) => string | undefined {
  const last = useRef<{ readonly request: string; readonly key: string | undefined } | null>(null);
  return useCallback((request) => {
    const text = JSON.stringify(request);
    if (last.current?.request !== text) last.current = { request: text, key: crypto.randomUUID?.() };
    return last.current.key;
  }, []);
}
