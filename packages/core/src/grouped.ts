/** Things by what they share, in the order in which they come. */
export function grouped<T, K>(all: Iterable<T>, keyOf: (one: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const one of all) {
    const key = keyOf(one);
    const group = groups.get(key);
    if (group === undefined) groups.set(key, [one]);
    else group.push(one);
  }
  return groups;
}
