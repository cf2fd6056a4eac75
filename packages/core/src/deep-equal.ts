/** Whether two plain things are the same: the order of keys and keys without a value count for nothing. */
const canonical = (thing: unknown): string =>
  JSON.stringify(thing, (_key, value) =>
    value !== null && typeof value === 'object' && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
      : value,
  ) ?? '';

export const deepEqual = (a: unknown, b: unknown): boolean => a === b || canonical(a) === canonical(b);
