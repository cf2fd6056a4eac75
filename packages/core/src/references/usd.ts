import type { Reference, RefFormat } from './reference';

/** Asset paths in scenes as USD text: between one `@` and the next, or three and three; never in comments or texts. */
export const usd: RefFormat = {
  name: 'USD text',
  extensions: ['usda'],
  find: (text) => {
    const out: Reference[] = [];
    // One alternative for each thing that hides an `@`, and the asset path last.
    const scan =
      /#[^\n]*|"""[\s\S]*?(?:"""|$)|'''[\s\S]*?(?:'''|$)|"(?:[^"\\\n]|\\.)*"?|'(?:[^'\\\n]|\\.)*'?|@@@([\s\S]*?)@@@|@([^@\n]*)@/dg;
    for (const match of text.matchAll(scan)) {
      const place = match.indices?.[1] ?? match.indices?.[2];
      if (place === undefined || place[0] === place[1]) continue;
      out.push({ start: place[0], end: place[1], target: text.slice(place[0], place[1]), encoding: 'plain' });
    }
    return out;
  },
};
