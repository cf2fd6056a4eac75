/** The program's own lists of checksums, beside what was brought in. */

/** @param at - ISO 8601 with milliseconds: two that come shortly after each other have two names */
export const checksumListName = (at: string): string =>
  `checksums_${at.slice(0, 23).replace('T', '_').replaceAll(/[:.]/g, '-')}.sha256`;

export const isChecksumList = (name: string): boolean =>
  /^checksums_\d{4}-\d\d-\d\d_\d\d-\d\d-\d\d-\d{3}\.sha256$/.test(name);
