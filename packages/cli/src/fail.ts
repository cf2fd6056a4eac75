/** Input that cannot be used: one clear line on standard error, status 2, nothing written. */
export class Unusable extends Error {}

export const EXIT = { ok: 0, findings: 1, unusable: 2 } as const;
export type Exit = (typeof EXIT)[keyof typeof EXIT];
