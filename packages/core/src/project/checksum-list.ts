/** The program's own lists of checksums, beside what was brought in. */

/** @param at - ISO 8601 */
export const checksumListName = (at: string): string =>
  `checksums_${at.slice(0, 19).replace('T', '_').replaceAll(':', '-')}.sha256`;

export const isChecksumList = (name: string): boolean =>
  /^checksums_\d{4}-\d\d-\d\d_\d\d-\d\d-\d\d\.sha256$/.test(name);
