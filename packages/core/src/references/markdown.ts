import { inOrder } from './css';
import { type RefFormat, referencesBy } from './reference';

/** Links and pictures, and where they are named at the foot. What stands in code is text. */
export const markdown: RefFormat = {
  name: 'Markdown',
  extensions: ['md', 'markdown'],
  find: (source) => {
    const text = source
      .replace(/^(```|~~~)[\s\S]*?(?:^\1|$(?![\s\S]))/gm, (code) => code.replace(/[^\n]/g, ' '))
      .replace(/`[^`\n]*`/g, (code) => ' '.repeat(code.length));
    return inOrder([
      ...referencesBy(text, /\]\(\s*<([^<>\r\n]+)>/dg, 1, 'url'),
      ...referencesBy(
        text,
        /\]\(\s*([^\s<>()]+(?:\([^\s<>()]*\)[^\s<>()]*)*)(?:\s+["'(][^\r\n]*?["')])?\s*\)/dg,
        1,
        'url',
      ),
      ...referencesBy(text, /^ {0,3}\[[^\]\r\n]+\]:\s*<?([^\s<>]+)>?/dgm, 1, 'url'),
    ]);
  },
};
