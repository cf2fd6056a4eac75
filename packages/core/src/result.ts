/** What a function answers that works on somebody's input: a value, or every fault found, assertNever the first alone. */
export type Result<T, F> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly faults: readonly F[] };

export const success = <T>(value: T): { readonly ok: true; readonly value: T } => ({ ok: true, value });
export const failure = <F>(faults: readonly F[]): { readonly ok: false; readonly faults: readonly F[] } => ({
  ok: false,
  faults,
});

/** Parameters of a fault or finding: what its words are made from, by `words/`. */
export type Params = Readonly<Record<string, string | number | readonly string[]>>;

/** A code with what its words are made from. */
export interface Coded {
  readonly code: string;
  readonly params: Params;
}

/** Of a fault or diagnostic what is told of it elsewhere. */
export const coded = ({ code, params }: Coded): Coded => ({ code, params });

/** For the end of a switch over a union: a case that was forgotten is a compile error. */
export function assertNever(value: never): never {
  throw new Error(`case not handled: ${JSON.stringify(value)}`);
}
