/** What is said where something is not done: what happened, what was not done, what to do. */
import { ACCESS_REFUSALS } from './access';
import { DISK_REFUSALS } from './disks';
import { HOUSE_REFUSALS } from './house';
import { PACKAGE_REFUSALS } from './packages';
import { PROJECT_REFUSALS } from './projects';
import { RULE_REFUSALS } from './rules';

const REFUSALS = {
  ...ACCESS_REFUSALS,
  ...DISK_REFUSALS,
  ...HOUSE_REFUSALS,
  ...PACKAGE_REFUSALS,
  ...PROJECT_REFUSALS,
  ...RULE_REFUSALS,
} as const;

export type RefusalCode = keyof typeof REFUSALS;

/** What its words are made from; none where they are always the same. */
export type RefusalParams<C extends RefusalCode> =
  RefusalGiven<C> extends [infer P] ? P : Readonly<Record<never, never>>;
/** What follows its code where one is made. */
export type RefusalGiven<C extends RefusalCode> = Parameters<(typeof REFUSALS)[C]>;

export const refusalWords = <C extends RefusalCode>(code: C, params: RefusalParams<C>): string =>
  // The compiler has held the parameters against the code; here all are alike.
  (REFUSALS[code] as (params: RefusalParams<C>) => string)(params);

/** As it is stored until it is told. What older versions stored is their sentence alone. */
export interface Told {
  readonly code: string;
  readonly params?: object;
  readonly message?: string;
}

export const told = <C extends RefusalCode>(code: C, ...given: RefusalGiven<C>): Told => ({
  code,
  params: given[0] ?? {},
});

const isKnown = (code: string): code is RefusalCode => code in REFUSALS;

export function toldWords({ code, params = {}, message }: Told): string {
  if (message !== undefined || !isKnown(code)) return message ?? code;
  return refusalWords(code, params as RefusalParams<typeof code>);
}
