/** Style sheets, and styles inside other formats. */
import { type Encoding, type Reference, type RefFormat, referencesBy } from './reference';

/** What stands in brackets holds no bracket, so that a text full of openings is gone through once. */
export const inStyles = (text: string, encoding: Encoding = 'url', offset = 0): Reference[] => [
  ...referencesBy(text, /url\(\s*"([^"\r\n()]*)"\s*\)/dg, 1, encoding, offset),
  ...referencesBy(text, /url\(\s*'([^'\r\n()]*)'\s*\)/dg, 1, encoding, offset),
  ...referencesBy(text, /url\(\s*([^\s"'()]+)\s*\)/dg, 1, encoding, offset),
];

export const inOrder = (all: Reference[]): Reference[] => all.sort((a, b) => a.start - b.start);

export const css: RefFormat = {
  name: 'CSS',
  extensions: ['css'],
  find: (text) => {
    // Comments are blanked out, so that places stay what they are.
    const bare = text.replace(/\/\*[\s\S]*?(?:\*\/|$)/g, (comment) => comment.replace(/[^\n]/g, ' '));
    return inOrder([...inStyles(bare), ...referencesBy(bare, /@import\s+["']([^"'\r\n]+)["']/dg, 1, 'url')]);
  },
};
