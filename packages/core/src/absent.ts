/** A change laid over a thing: what is given as absent goes. */
export const withoutAbsent = <T extends object>(thing: { readonly [Key in keyof T]: T[Key] | undefined }): T =>
  Object.fromEntries(Object.entries(thing).filter(([, value]) => value !== undefined)) as T;

/** The keys of a table that is written out in the code: it has no others. */
export const keysOf = <Key extends string>(table: Readonly<Record<Key, unknown>>): Key[] => Object.keys(table) as Key[];
