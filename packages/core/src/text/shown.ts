/** Text as a terminal and a page may show it: what would steer them is written out. */

// biome-ignore lint/suspicious/noControlCharactersInRegex: these are what is written out
const STEERING = /[\u0000-\u001f\u007f-\u009f\u061c\u200b-\u200f\u2028-\u202e\u2060-\u2069\ufeff]/g;

const SHORT: Readonly<Record<string, string>> = { '\n': '\\n', '\r': '\\r', '\t': '\\t' };

/** More in one piece is not read by anybody. */
const MOST_SHOWN = 4000;

/**
 * Control characters, terminal sequences and marks that turn text round, escaped; what is too long to be read is cut; all
 * else as it is.
 */
export const shown = (text: string): string =>
  (text.length > MOST_SHOWN ? `${text.slice(0, MOST_SHOWN)}…` : text).replace(STEERING, (ch) => {
    const code = ch.charCodeAt(0);
    return (
      SHORT[ch] ??
      (code < 0x100 ? `\\x${code.toString(16).padStart(2, '0')}` : `\\u${code.toString(16).padStart(4, '0')}`)
    );
  });
