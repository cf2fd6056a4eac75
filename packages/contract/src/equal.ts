/**
 * Compile-time proof that a schema and the core's plain type say the same: a difference is a type error where it is
 * used.
 */
export type Same<A, B> = [A] extends [B] ? ([B] extends [A] ? true : never) : never;
export const same = <T extends true>(_: T): void => undefined;
