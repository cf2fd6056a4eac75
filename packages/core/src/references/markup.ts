/** Formats made of elements: their attributes and styles, read by place. What is broken is read as browsers read it. */
import { Tokenizer } from 'htmlparser2';
import { inOrder, inStyles } from './css';
import { type Encoding, type Reference, type RefFormat, referenceAt } from './reference';

interface Elements {
  /** Attributes that hold a reference. */
  readonly attributes: ReadonlySet<string>;
  /** Elements whose text is a reference. */
  readonly texts: ReadonlySet<string>;
  readonly xml: boolean;
}

/** Every reference in attributes, in styles, and in the text of some elements. */
function referencesIn(text: string, { attributes, texts, xml }: Elements): Reference[] {
  const out: Reference[] = [];
  const url: Encoding = xml ? 'xml-url' : 'html-url';
  // In HTML the text of a style is no markup; in XML it is.
  const style: Encoding = xml ? 'xml-url' : 'url';
  let element = '';
  let attribute = '';
  let value: { start: number; end: number } | null = null;
  const takeText = (start: number, end: number) => {
    if (element === 'style') out.push(...inStyles(text.slice(start, end), style, start));
    else if (texts.has(element)) out.push(...trimmed(text, start, end, url));
  };
  const nothing = () => undefined;
  const tokenizer = new Tokenizer(
    { xmlMode: xml, decodeEntities: false },
    {
      onopentagname: (start, end) => {
        element = localName(text.slice(start, end));
      },
      onattribname: (start, end) => {
        attribute = text.slice(start, end).toLowerCase();
        value = null;
      },
      onattribdata: (start, end) => {
        value = { start: value?.start ?? start, end };
      },
      onattribend: () => {
        if (value === null) return;
        const { start, end } = value;
        if (attributes.has(attribute)) out.push(...trimmed(text, start, end, url));
        else if (attribute === 'style') out.push(...inStyles(text.slice(start, end), url, start));
        value = null;
      },
      ontext: takeText,
      oncdata: (start, end) => takeText(start, end),
      onclosetag: () => {
        element = '';
      },
      onselfclosingtag: () => {
        element = '';
      },
      onattribentity: nothing,
      oncomment: nothing,
      ondeclaration: nothing,
      onend: nothing,
      onopentagend: nothing,
      onprocessinginstruction: nothing,
      ontextentity: nothing,
    },
  );
  tokenizer.write(text);
  tokenizer.end();
  return inOrder(out);
}

/** Without a prefix of a name space, in small letters. */
const localName = (name: string): string => name.slice(name.indexOf(':') + 1).toLowerCase();

function trimmed(text: string, from: number, to: number, encoding: Encoding): Reference[] {
  const written = text.slice(from, to);
  const start = from + written.length - written.trimStart().length;
  return referenceAt(text, start, start + written.trim().length, encoding);
}

const elements = (attributes: readonly string[], texts: readonly string[], xml: boolean): Elements => ({
  attributes: new Set(attributes),
  texts: new Set(texts),
  xml,
});

const SVG = elements(['href', 'xlink:href'], [], true);
const HTML = elements(['src', 'href', 'poster', 'data'], [], false);
const XSPF = elements([], ['location', 'image'], true);

export const svg: RefFormat = { name: 'SVG', extensions: ['svg'], find: (text) => referencesIn(text, SVG) };
export const html: RefFormat = { name: 'HTML', extensions: ['html', 'htm'], find: (text) => referencesIn(text, HTML) };
export const xspf: RefFormat = { name: 'XSPF', extensions: ['xspf'], find: (text) => referencesIn(text, XSPF) };
