import { useEffect, useState } from 'react';

/** A value once it has rested for a while: what follows each letter is asked of the server only then. */
export function useDebounced<T>(value: T, ms: number): T {
  const [late, setLate] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setLate(value), ms);
    return () => clearTimeout(timer);
  }, [value, ms]);
  return late;
}
