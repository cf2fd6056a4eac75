/**
 * The one cause behind a name that breaks its convention, where there is one: the first of these that alone explains
 * the whole difference.
 * Read by domains that are looser in that one respect (codes by their form, any project's number), or told from the
 * explanation's changes.
 */

import { ownValue } from '../../own-value';
import type { Reading } from '../pattern/field';
import type { CompiledConvention, CompiledSlot } from '../pattern/ops';
import type { SlotDomain } from '../pattern/slot-domain';
import { readings } from '../read/read';
import { type NameContext, NO_CONTEXT } from './costs';
import { type Foreign, foreignIn } from './foreign';
import { sameDomain } from './near';
import { type Explanation, explainName } from './suggest';

export type Cause =
  | ({ readonly code: 'foreign-project' } & Foreign)
  | { readonly code: 'unknown-code'; readonly codes: readonly { readonly field: string; readonly found: string }[] }
  | { readonly code: 'version-style' | 'sequence-padding' | 'banned-word' }
  | { readonly code: 'name-mismatch' };

/**
 * Takes a name that `readName` refuses. Values in `context.bound` must be met, the project's number and client apart.
 */
export function causeOf(
  convention: CompiledConvention,
  name: string,
  context: NameContext = NO_CONTEXT,
  explanation: Explanation = explainName(convention, name, context),
): Cause {
  return (
    foreignCause(convention, name, context.bound) ??
    unknownCause(convention, name, context.bound) ??
    styleCause(explanation) ?? { code: 'name-mismatch' }
  );
}

function foreignCause(convention: CompiledConvention, name: string, bound: Reading): Cause | null {
  const { number: _number, client: _client, ...rest } = bound;
  const own = { number: ownText(convention, 'number', bound), client: ownText(convention, 'client', bound) };
  const loose = loosened(convention, ({ field, domain }) =>
    field === 'number' && domain.kind === 'fixed' ? { kind: 'code', of: 'number' } : domain,
  );
  for (const reading of readings(loose, name, 4, rest)) {
    const foreign = foreignIn(reading, own);
    if (foreign !== null) return { code: 'foreign-project', ...foreign };
  }
  return null;
}

function ownText(convention: CompiledConvention, field: string, bound: Reading): string | null {
  const must = ownValue(bound, field);
  if (must !== undefined) return String(must);
  const domain = convention.slots.find((s) => s.field === field)?.domain;
  return field === 'number' && domain?.kind === 'fixed' && domain.entries.length === 1
    ? (domain.entries[0]?.text ?? null)
    : null;
}

/** Codes that look like those of their register and are none of them. */
function unknownCause(convention: CompiledConvention, name: string, bound: Reading): Cause | null {
  const listed = convention.slots.flatMap(({ field, domain }) =>
    domain.kind === 'fixed' && domain.of !== 'number' && domain.of !== 'ext' ? [{ field, domain }] : [],
  );
  if (listed.length === 0) return null;
  const loose = loosened(convention, ({ domain }) => {
    const code = listed.find((s) => s.domain === domain);
    return code === undefined ? domain : codeDomain(code.domain);
  });
  const others = Object.fromEntries(Object.entries(bound).filter(([field]) => !listed.some((s) => s.field === field)));
  for (const reading of readings(loose, name, 4, others)) {
    const codes = listed.flatMap(({ field, domain }) => {
      const found = ownValue(reading, field);
      return found === undefined || domain.entries.some((e) => e.text === found)
        ? []
        : [{ field, found: String(found), domain }];
    });
    if (codes.length > 0 && codes.every(({ found, domain }) => isWellFormed(found, domain)))
      return { code: 'unknown-code', codes: codes.map(({ field, found }) => ({ field, found })) };
  }
  return null;
}

type Fixed = Extract<SlotDomain, { kind: 'fixed' }>;

/**
 * Letters and digits as the known codes have them: one form where all codes share one, else their characters and
 * lengths.
 */
function isWellFormed(found: string, { entries }: Fixed): boolean {
  if (entries.some((e) => sameDomain(e.text, found))) return true;
  const lengths = entries.map((e) => e.text.length);
  const ragged = new Set(lengths).size > 1;
  return ragged && found.length >= Math.min(...lengths) && found.length <= Math.max(...lengths);
}

function codeDomain({ entries }: Fixed): SlotDomain {
  const chars = [...new Set(entries.flatMap((e) => [...e.text]))].join('');
  const ranges = [
    /[a-z]/.test(chars) ? 'a-z' : '',
    /[A-Z]/.test(chars) ? 'A-Z' : '',
    /[0-9]/.test(chars) ? '0-9' : '',
    chars.replace(/[A-Za-z0-9-]/g, ''),
    chars.includes('-') ? '-' : '',
  ].join('');
  return { kind: 'text', shape: 'as-is', max: Math.max(...entries.map((e) => e.text.length)), chars: ranges };
}

function loosened(convention: CompiledConvention, domain: (slot: CompiledSlot) => SlotDomain): CompiledConvention {
  return {
    ...convention,
    ops: convention.ops.map((op) =>
      op.kind === 'slot' ? { ...op, slot: { ...op.slot, domain: domain(op.slot) } } : op,
    ),
    oneWay: false,
    fast: null,
  };
}

/** What is told from the changes of the likeliest explanation. */
function styleCause({ problems }: Explanation): Cause | null {
  if (problems.length === 0) return null;
  const all = (test: (p: (typeof problems)[number]) => boolean) => problems.every(test);
  if (
    all(
      (p) => p.change === 'version-style' || (p.part === 'version' && (p.change === 'padding' || p.change === 'case')),
    )
  )
    return { code: 'version-style' };
  if (all((p) => p.part === 'frame' && p.change === 'padding')) return { code: 'sequence-padding' };
  const banned = problems.filter((p) => p.change === 'banned-word');
  if (
    banned.length > 0 &&
    all(
      (p) =>
        p.change === 'banned-word' ||
        (p.change === 'separator' && banned.some((b) => p.at + p.length === b.at || b.at + b.length === p.at)),
    )
  )
    return { code: 'banned-word' };
  return null;
}
