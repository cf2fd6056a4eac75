/** Which characters a portable name may hold, wherever it is opened. */

/** Characters Windows and exFAT refuse (also `/` everywhere); POSIX allows all of them but `/`. */
export const FORBIDDEN_WINDOWS = '<>:"/\\|?*';

/** Zero-width, direction-changing and filler characters: two names look alike and are not. */
const INVISIBLE =
  // biome-ignore lint/suspicious/noMisleadingCharacterClass: joiners are named one by one on purpose
  /[\u00ad\u034f\u061c\u115f\u1160\u17b4\u17b5\u180b-\u180e\u200b-\u200f\u2028-\u202e\u2060-\u206f\u3164\ufeff\uffa0\ufff9-\ufffb]/;

export const isInvisible = (ch: string): boolean => INVISIBLE.test(ch);

export const isControl = (code: number): boolean => code < 0x20 || (code >= 0x7f && code <= 0x9f);

/** A character that stands in names on every profile. Takes one code point as a string. */
export function isPortableCharacter(ch: string): boolean {
  const code = ch.codePointAt(0) ?? 0;
  if (code >= 0x20 && code < 0x7f) return !FORBIDDEN_WINDOWS.includes(ch);
  return !(isControl(code) || isSurrogate(code) || isNoncharacter(code) || isInvisible(ch));
}

export const isSurrogate = (code: number): boolean => code >= 0xd800 && code <= 0xdfff;

const isNoncharacter = (code: number): boolean => (code & 0xfffe) === 0xfffe || (code >= 0xfdd0 && code <= 0xfdef);
