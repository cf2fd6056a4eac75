/**
 * A record's own value: a field may be called `constructor`, and what every object has under such a name is none of its
 * values.
 */
export const ownValue = <T>(record: Readonly<Record<string, T>>, key: string): T | undefined =>
  Object.hasOwn(record, key) ? record[key] : undefined;
