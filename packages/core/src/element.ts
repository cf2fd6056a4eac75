/** An element that is known to be there. That it is not is a mistake of the program's, and throws. */
export function elementAt<T>(list: ArrayLike<T>, index: number): T {
  const element = list[index];
  if (element === undefined) throw new RangeError(`no element ${index} of ${list.length}`);
  return element;
}

/** The value of a key that is known to be in the map. */
export function valueAt<K, V>(map: ReadonlyMap<K, V>, key: K): V {
  const value = map.get(key);
  if (value === undefined && !map.has(key)) throw new RangeError(`There is no ${String(key)} in the map.`);
  return value as V;
}

/** A value that is known to be there. */
export function present<T>(value: T | null | undefined): T {
  if (value === null || value === undefined) throw new RangeError('A value is missing that should be there.');
  return value;
}
