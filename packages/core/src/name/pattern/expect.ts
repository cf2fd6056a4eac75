/** What a part of a name may hold, as code and parameters: short, so that a finding carries no register. */
import { assertNever, type Params } from '../../result';
import { likeText } from '../write';
import type { SlotDomain } from './slot-domain';

export const EXPECTATION_CODES = [
  'nothing',
  'literal',
  'one-of',
  'own-number',
  'text',
  'like',
  'number',
  'extension',
  'digits',
  'letters',
  'date',
] as const;

export interface Expectation {
  readonly code: (typeof EXPECTATION_CODES)[number];
  readonly params: Params;
}

export const NOTHING: Expectation = { code: 'nothing', params: {} };

/** Codes shown of a longer list. */
const SHOWN = 12;

export function expectationOf(domain: SlotDomain): Expectation {
  switch (domain.kind) {
    case 'fixed': {
      const texts = domain.entries.map((e) => e.text);
      if (domain.of === 'number') return { code: 'own-number', params: { number: texts[0] ?? '' } };
      return { code: 'one-of', params: { known: texts.slice(0, SHOWN), more: Math.max(0, texts.length - SHOWN) } };
    }
    case 'text':
      return { code: 'text', params: { shape: domain.shape, max: domain.max } };
    case 'like':
      return { code: 'like', params: { form: likeText(domain) } };
    case 'code':
      return { code: domain.of === 'number' ? 'number' : 'extension', params: {} };
    case 'digits':
      return { code: 'digits', params: { min: domain.min } };
    case 'letters':
      return { code: 'letters', params: { upper: domain.upper ? 1 : 0 } };
    case 'date':
      return { code: 'date', params: { form: domain.pattern.source } };
    default:
      return assertNever(domain);
  }
}
