import { type Reference, type RefFormat, referenceAt, referencesBy } from './reference';

/** Edit decision lists (CMX 3600): the files named in comments. Clip names are no paths. */
export const edl: RefFormat = {
  name: 'EDL',
  extensions: ['edl'],
  find: (text) => referencesBy(text, /^\*[ \t]*SOURCE FILE:[ \t]*(\S(?:[^\r\n]*\S)?)[ \t]*$/dgim, 1, 'plain'),
};

export const obj: RefFormat = {
  name: 'OBJ',
  extensions: ['obj'],
  find: (text) => referencesBy(text, /^[ \t]*mtllib[ \t]+(\S(?:[^\r\n]*\S)?)[ \t]*$/dgm, 1, 'plain'),
};

/** Textures of materials; options and their values stand before the file. */
export const mtl: RefFormat = {
  name: 'MTL',
  extensions: ['mtl'],
  find: (text) =>
    referencesBy(
      text,
      /^[ \t]*(?:map_\w+|bump|disp|decal|refl|norm)(?:[ \t]+-[a-z]+(?:[ \t]+(?:-?[\d.]+|on|off|sphere|cube_\w+|[lmrgbz](?=[ \t])))*)*[ \t]+([^\s-](?:[^\r\n]*\S)?)[ \t]*$/dgim,
      1,
      'plain',
    ),
};

export const m3u: RefFormat = {
  name: 'M3U',
  extensions: ['m3u', 'm3u8'],
  find: (text) => referencesBy(text, /^[ \t]*([^#\s](?:[^\r\n]*[^\s])?)[ \t]*$/dgm, 1, 'plain'),
};

/** What looks like a path: a separator in it, and no blank at its ends; or a file reference by URL. */
const PATHLIKE = /^(?:file:\/\/\S.*|(?:~|\.{1,2}|[A-Za-z]:)?[\\/][^\s\\/].*|[^\s\\/:]+[\\/].*\.[A-Za-z0-9]{1,8})$/;

const isPathLike = (text: string): boolean => text.length < 4096 && PATHLIKE.test(text);

/** Settings for programs: values that look like paths. */
export const dotenv: RefFormat = {
  name: 'dotenv',
  extensions: ['env'],
  find: (text) =>
    ['"([^"\\r\\n]*)"', "'([^'\\r\\n]*)'", '([^\\s#"\'][^\\r\\n#]*?)']
      .flatMap((value) =>
        referencesBy(
          text,
          new RegExp(`^[ \\t]*(?:export[ \\t]+)?[A-Za-z_]\\w*[ \\t]*=[ \\t]*${value}[ \\t]*(?:#[^\\r\\n]*)?$`, 'dgm'),
          1,
          'plain',
        ),
      )
      .filter((r) => isPathLike(r.target))
      .sort((a, b) => a.start - b.start),
};

/** A cell in quotes, else one that holds none. */
const CELLS = /"([^"]*(?:""[^"]*)*)"|(?<=^|[,;\t])[^"\s,;\t][^",;\t\r\n]*/gm;

/** Lists: cells that look like paths. Of a long list hardly a cell does, and no other one is looked at twice. */
export const csvList: RefFormat = {
  name: 'CSV',
  extensions: ['csv', 'tsv'],
  find: (text) => {
    const out: Reference[] = [];
    for (const { 0: cell, 1: quoted, index } of text.matchAll(CELLS)) {
      if (!/[\\/]/.test(cell)) continue;
      const found =
        quoted === undefined
          ? referenceAt(text, index, index + cell.length, 'plain')
          : referenceAt(text, index + 1, index + 1 + quoted.length, 'csv');
      for (const r of found) if (isPathLike(r.target)) out.push(r);
    }
    return out;
  },
};
