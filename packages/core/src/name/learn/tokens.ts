/**
 * A sample name cut into tokens as people write names: what stands between separators, each of one kind, and the
 * extension.
 */
import { type DatePattern, parseDatePattern, readDate } from '../dates/dates';

export type Kind = 'date' | 'version' | 'coded' | 'digits' | 'lower' | 'upper' | 'mixed' | 'open';

export interface Token {
  readonly kind: Kind;
  readonly text: string;
  /** The separator before it; nothing before the first. */
  readonly before: string;
  /** Letters before the digits of a version or a code (`v` of `v003`, `s` of `s03`). */
  readonly prefix: string;
}

export interface Sample {
  readonly name: string;
  readonly tokens: readonly Token[];
  /** Brackets behind the last token. */
  readonly tail: string;
  /** Without its dot; empty where there is none. */
  readonly ext: string;
}

/**
 * Forms a date is recognised in, the likelier first: where one text is a date in two forms the heap as a whole decides.
 */
export const DATE_PATTERNS: readonly DatePattern[] = [
  'yyyy-MM-dd',
  'yyyyMMdd',
  'yyyy_MM_dd',
  'dd-MM-yyyy',
  'yyMMdd',
  'ddMMyyyy',
  'yy-MM-dd',
].map((source) => {
  const form = parseDatePattern(source);
  if (form === null) throw new Error(source);
  return form;
});

const VERSION = /^(v|V|ver|Ver|rev|Rev|REV|version|Version)[0-9]+$/;
const LETTER_VERSION = /^(rev|Rev|REV)[A-Z]$/;
const CODED = /^([A-Za-z]{1,4})[0-9]+$/;

/** `extensions`: those known to have two pieces (`tar.gz`); every other is what follows the last dot. */
export function sampleOf(name: string, extensions: readonly string[] = []): Sample {
  const double = extensions.find((ext) => ext.includes('.') && name.toLowerCase().endsWith(`.${ext}`));
  const dot = double !== undefined ? name.length - double.length - 1 : name.lastIndexOf('.');
  const ext = dot > 0 ? name.slice(dot + 1) : '';
  const known = /^[A-Za-z][A-Za-z0-9]{0,9}$|^[0-9][A-Za-z][A-Za-z0-9]{0,3}$/.test(ext) || double !== undefined;
  const stem = known ? name.slice(0, dot) : name;
  return { name, ...tokensOf(stem), ext: known ? ext : '' };
}

const isBracket = (ch: string | undefined): boolean => ch !== undefined && '()[]{}'.includes(ch);

/**
 * Parted at underscores where there are any, else at hyphens, else at blanks; at dots and brackets always. Dates stay
 * whole.
 */
function tokensOf(stem: string): Pick<Sample, 'tokens' | 'tail'> {
  const main = stem.includes('_') ? '_' : /[^-]-[^-]/.test(stem) && !stem.includes(' ') ? '-' : ' ';
  const tokens: Token[] = [];
  let before = '';
  let from = 0;
  for (let at = 0; at <= stem.length; at++) {
    const ch = stem[at];
    if (ch !== undefined && ch !== main && ch !== '.' && !isBracket(ch)) continue;
    const isEdge = isBracket(ch === undefined ? stem[at - 1] : ch);
    if (at > from || (!isEdge && (ch === undefined || tokens.length === 0))) {
      const date = main === '-' || main === '_' ? dateAt(stem, from, main) : 0;
      const end = date > 0 ? date : at;
      tokens.push(tokenOf(stem.slice(from, end), before));
      before = '';
      at = end;
    }
    before += stem[at] ?? '';
    from = at + 1;
  }
  return { tokens, tail: isBracket(stem.at(-1)) ? before : '' };
}

/** Where a date written with the separator itself (`2026-03-02`) ends; nought where none stands here. */
function dateAt(stem: string, from: number, separator: string): number {
  const found = new RegExp(
    `^(?:[0-9]{4}${separator}[0-9]{2}${separator}[0-9]{2}|[0-9]{2}${separator}[0-9]{2}${separator}[0-9]{4})(?![0-9])`,
  ).exec(stem.slice(from, from + 11))?.[0];
  return found !== undefined && patternsOfDate(found).length > 0 ? from + found.length : 0;
}

export function tokenOf(text: string, before: string): Token {
  const prefix = VERSION.exec(text)?.[1] ?? LETTER_VERSION.exec(text)?.[1];
  if (prefix !== undefined) return { kind: 'version', text, before, prefix };
  if (/^[0-9._-]{6,10}$/.test(text) && patternsOfDate(text).length > 0)
    return { kind: 'date', text, before, prefix: '' };
  if (/^[0-9]+$/.test(text)) return { kind: 'digits', text, before, prefix: '' };
  const code = CODED.exec(text)?.[1];
  if (code !== undefined) return { kind: 'coded', text, before, prefix: code };
  const kind = /^[a-z0-9]+(?:-[a-z0-9]+)*$/.test(text)
    ? 'lower'
    : /^[A-Z0-9]+$/.test(text)
      ? 'upper'
      : /^[A-Za-z0-9]+$/.test(text)
        ? 'mixed'
        : 'open';
  return { kind, text, before, prefix: '' };
}

/** Forms in which a text is a real date of our time. */
export function patternsOfDate(text: string): DatePattern[] {
  return DATE_PATTERNS.filter(
    (form) =>
      form.source.length === text.length &&
      readDate(text, 0, form, 2026).some(
        (r) => r.end === text.length && r.date.year !== undefined && r.date.year > 1989 && r.date.year < 2060,
      ),
  );
}
