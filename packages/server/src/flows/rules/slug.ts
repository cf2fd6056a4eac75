/** Ids of rules: a thing's name in plain words, with a number where that is taken. */
export const slugOf = (name: string, otherwise: string): string =>
  name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 60) || otherwise;

/** `like` answers the ids that begin so; `apart` are words the screens have pages of. */
export async function freeSlug(
  name: string,
  otherwise: string,
  like: (wanted: string) => Promise<ReadonlySet<string>>,
  apart: readonly string[] = [],
): Promise<string> {
  const wanted = slugOf(name, otherwise);
  const taken = new Set([...(await like(wanted)), ...apart]);
  let id = wanted;
  for (let n = 2; taken.has(id); n++) id = `${wanted}-${n}`;
  return id;
}
