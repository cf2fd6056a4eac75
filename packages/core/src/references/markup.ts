import { type Reference, type RefFormat, referencesBy } from './reference';

/** Comments are blanked out, so that places stay what they are. */
const withoutComments = (text: string): string =>
  text.replace(/<!--[\s\S]*?(?:-->|$)/g, (comment) => comment.replace(/[^\n]/g, ' '));

/** What stands in brackets holds no bracket, so that a text full of openings is gone through once. */
const inStyles = (text: string): Reference[] => [
  ...referencesBy(text, /url\(\s*"([^"\r\n()]*)"\s*\)/dg, 1, 'percent'),
  ...referencesBy(text, /url\(\s*'([^'\r\n()]*)'\s*\)/dg, 1, 'percent'),
  ...referencesBy(text, /url\(\s*([^\s"'()]+)\s*\)/dg, 1, 'percent'),
];

const inOrder = (all: Reference[]): Reference[] => all.sort((a, b) => a.start - b.start);

export const css: RefFormat = {
  name: 'CSS',
  extensions: ['css'],
  find: (text) => {
    const bare = text.replace(/\/\*[\s\S]*?(?:\*\/|$)/g, (comment) => comment.replace(/[^\n]/g, ' '));
    return inOrder([...inStyles(bare), ...referencesBy(bare, /@import\s+["']([^"'\r\n]+)["']/dg, 1, 'percent')]);
  },
};

const attributes = (names: string) => [
  new RegExp(`\\s(?:${names})\\s*=\\s*"([^"<>]*)"`, 'dgi'),
  new RegExp(`\\s(?:${names})\\s*=\\s*'([^'<>]*)'`, 'dgi'),
];

export const svg: RefFormat = {
  name: 'SVG',
  extensions: ['svg'],
  find: (source) => {
    const text = withoutComments(source);
    return inOrder([
      ...attributes('(?:xlink:)?href').flatMap((a) => referencesBy(text, a, 1, 'xml-percent')),
      ...inStyles(text),
    ]);
  },
};

export const html: RefFormat = {
  name: 'HTML',
  extensions: ['html', 'htm'],
  find: (source) => {
    const text = withoutComments(source);
    return inOrder([
      ...attributes('src|href|poster|data').flatMap((a) => referencesBy(text, a, 1, 'xml-percent')),
      ...inStyles(text),
    ]);
  },
};

export const xspf: RefFormat = {
  name: 'XSPF',
  extensions: ['xspf'],
  find: (source) =>
    referencesBy(withoutComments(source), /<(?:location|image)>\s*([^<\s](?:[^<]*[^<\s])?)\s*</dg, 1, 'xml-percent'),
};

/** Links and pictures, and where they are named at the foot. What stands in code is text. */
export const markdown: RefFormat = {
  name: 'Markdown',
  extensions: ['md', 'markdown'],
  find: (source) => {
    const text = source
      .replace(/^(```|~~~)[\s\S]*?(?:^\1|$(?![\s\S]))/gm, (code) => code.replace(/[^\n]/g, ' '))
      .replace(/`[^`\n]*`/g, (code) => ' '.repeat(code.length));
    return inOrder([
      ...referencesBy(text, /\]\(\s*<([^<>\r\n]+)>/dg, 1, 'percent'),
      ...referencesBy(
        text,
        /\]\(\s*([^\s<>()]+(?:\([^\s<>()]*\)[^\s<>()]*)*)(?:\s+["'(][^\r\n]*?["')])?\s*\)/dg,
        1,
        'percent',
      ),
      ...referencesBy(text, /^ {0,3}\[[^\]\r\n]+\]:\s*<?([^\s<>]+)>?/dgm, 1, 'percent'),
    ]);
  },
};
