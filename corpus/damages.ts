import { elementAt, present } from '@nesting/core';
/**
 * What people do to names, each as a change of a right one; `null` where it does not apply. `keeps`: the name still
 * says all that is needed.
 */
export interface Parts {
  readonly name: string;
  /** Field and written text, in the order of the name. */
  readonly pieces: readonly { readonly field: string | null; readonly text: string }[];
  readonly values: Readonly<Record<string, string | number>>;
}

export interface Damage {
  readonly id: string;
  readonly keeps: boolean;
  readonly break: (parts: Parts, random: (n: number) => number) => string | null;
}

/** The name with the text of one field replaced. */
const put = ({ pieces }: Parts, field: string, change: (text: string) => string | null): string | null => {
  const piece = pieces.find((p) => p.field === field);
  const text = piece === undefined ? null : change(piece.text);
  return text === null || text === piece?.text ? null : pieces.map((p) => (p === piece ? text : p.text)).join('');
};
const stemAnd = (name: string): [string, string] => [
  name.slice(0, name.lastIndexOf('.')),
  name.slice(name.lastIndexOf('.')),
];
const capital = (text: string) => text.slice(0, 1).toUpperCase() + text.slice(1);
const LONG: Readonly<Record<string, readonly string[]>> = {
  anim: ['animation', 'Animation', 'animate'],
  comp: ['compositing', 'cmp', 'composite'],
  model: ['modelling', 'modeling'],
  light: ['lighting', 'Lighting'],
  SPK: ['speech', 'Speech'],
  ATM: ['atmosphere'],
  MUS: ['music', 'Music'],
  en: ['english', 'English'],
  nl: ['dutch'],
  de: ['german'],
};
const slip = (text: string, random: (n: number) => number): string | null => {
  const letters = text.replace(/[^a-z]/g, '');
  if (letters.length < 5) return null;
  const at = 1 + random(text.length - 3);
  const kind = random(3);
  const [a, b] = [present(text[at]), present(text[at + 1])];
  if (!/[a-z]/.test(a) || !/[a-z]/.test(b) || a === b) return null;
  return kind === 0
    ? text.slice(0, at) + b + a + text.slice(at + 2)
    : kind === 1
      ? text.slice(0, at) + text.slice(at + 1)
      : text.slice(0, at) + a + text.slice(at);
};
const reorder = (date: string, form: string) => {
  const [y = '', m = '', d = ''] = date.split('-');
  return form.replace('y', y).replace('m', m).replace('d', d);
};

export const DAMAGES: readonly Damage[] = [
  { id: 'capitals', keeps: true, break: ({ name }) => name.toUpperCase() },
  { id: 'capital-words', keeps: true, break: ({ name }) => name.replace(/[a-z]+/g, capital) },
  { id: 'small', keeps: true, break: ({ name }) => (name === name.toLowerCase() ? null : name.toLowerCase()) },
  { id: 'blanks', keeps: true, break: ({ name }) => name.replace(/_/g, ' ') },
  { id: 'hyphens', keeps: true, break: ({ name }) => name.replace(/_/g, '-') },
  {
    id: 'dots',
    keeps: true,
    break: ({ name }) => {
      const [stem, ext] = stemAnd(name);
      return stem.replace(/_/g, '.') + ext;
    },
  },
  {
    id: 'one-blank',
    keeps: true,
    break: ({ name }, random) => {
      const all = [...name.matchAll(/_/g)];
      const at = all[random(Math.max(1, all.length))]?.index;
      return at === undefined ? null : `${name.slice(0, at)} ${name.slice(at + 1)}`;
    },
  },
  {
    id: 'doubled-separator',
    keeps: true,
    break: ({ name }, random) => {
      const all = [...name.matchAll(/_/g)];
      const at = all[random(Math.max(1, all.length))]?.index;
      return at === undefined ? null : `${name.slice(0, at)}_${name.slice(at)}`;
    },
  },
  {
    id: 'blank-at-end',
    keeps: true,
    break: ({ name }) => {
      const [stem, ext] = stemAnd(name);
      return `${stem} ${ext}`;
    },
  },
  { id: 'version-unpadded', keeps: true, break: (p) => put(p, 'version', (t) => String(Number(t))) },
  { id: 'version-overpadded', keeps: true, break: (p) => put(p, 'version', (t) => `0${t}`) },
  { id: 'version-capital', keeps: true, break: ({ name }) => name.replace(/_v(\d+)/, '_V$1') },
  {
    id: 'version-word',
    keeps: true,
    break: ({ name }, random) =>
      /_v\d/.test(name) ? name.replace(/_v(\d+)/, `_${['ver', 'version', 'vers', 'rev', 'V'][random(5)]}$1`) : null,
  },
  {
    id: 'version-word-parted',
    keeps: true,
    break: ({ name }) => (/_v\d/.test(name) ? name.replace(/_v0*(\d+)/, '_v_$1') : null),
  },
  {
    id: 'version-bare',
    keeps: true,
    break: ({ name }) => (/_v\d/.test(name) ? name.replace(/_v0*(\d+)/, '_$1') : null),
  },
  { id: 'final', keeps: true, break: ({ name }) => (/_v\d/.test(name) ? name.replace(/_v(\d+)/, '_final_v$1') : null) },
  {
    id: 'final-at-end',
    keeps: true,
    break: ({ name }) => {
      const [stem, ext] = stemAnd(name);
      return `${stem}_FINAL${ext}`;
    },
  },
  {
    id: 'final-final',
    keeps: true,
    break: ({ name }) => {
      const [stem, ext] = stemAnd(name);
      return `${stem}_final_final2${ext}`;
    },
  },
  {
    id: 'new',
    keeps: true,
    break: ({ name }) => {
      const [stem, ext] = stemAnd(name);
      return `${stem}_NEW${ext}`;
    },
  },
  {
    id: 'copy-number',
    keeps: true,
    break: ({ name }, random) => {
      const [stem, ext] = stemAnd(name);
      return `${stem} (${1 + random(3)})${ext}`;
    },
  },
  {
    id: 'copy-word',
    keeps: true,
    break: ({ name }) => {
      const [stem, ext] = stemAnd(name);
      return `${stem} - Copy${ext}`;
    },
  },
  {
    id: 'copy-of',
    keeps: true,
    break: ({ name }) => {
      const [stem, ext] = stemAnd(name);
      return `${stem} copy 2${ext}`;
    },
  },
  { id: 'extension-capital', keeps: true, break: (p) => put(p, 'ext', (t) => t.toUpperCase()) },
  { id: 'extension-twice', keeps: true, break: ({ name }) => name + stemAnd(name)[1] },
  { id: 'extension-twin', keeps: true, break: (p) => put(p, 'ext', (t) => ({ jpg: 'jpeg', tif: 'tiff' })[t] ?? null) },
  {
    id: 'long-form',
    keeps: true,
    break: (p, random) =>
      ['task', 'what', 'language']
        .map((f) =>
          put(p, f, (t) => {
            const all = LONG[t];
            return all === undefined ? null : elementAt(all, random(all.length));
          }),
        )
        .find((n) => n !== null) ?? null,
  },
  { id: 'task-capital', keeps: true, break: (p) => put(p, 'task', capital) },
  { id: 'initials-small', keeps: true, break: (p) => put(p, 'person', (t) => t.toLowerCase()) },
  {
    id: 'full-name',
    keeps: true,
    break: (p) =>
      put(
        p,
        'person',
        (t) => ({ BO: 'Bram Okonjo', LV: 'Lucia Verhaegen', AP: 'AikoPendry', IT: 'ines-thorvald' })[t] ?? null,
      ),
  },
  { id: 'scene-unpadded', keeps: true, break: (p) => put(p, 'scene', (t) => `s${Number(t.slice(1))}`) },
  { id: 'scene-capital', keeps: true, break: (p) => put(p, 'scene', (t) => t.toUpperCase()) },
  { id: 'surface-words', keeps: true, break: (p) => put(p, 'surface', (t) => t.split('-').map(capital).join(' ')) },
  { id: 'surface-joined', keeps: true, break: (p) => put(p, 'surface', (t) => t.split('-').map(capital).join('')) },
  { id: 'surface-low-line', keeps: true, break: (p) => put(p, 'surface', (t) => t.replace('-', '_')) },
  { id: 'title-words', keeps: true, break: (p) => put(p, 'title', (t) => t.split('-').map(capital).join(' ')) },
  { id: 'accents', keeps: true, break: (p) => put(p, 'surface', (t) => t.replace('o', 'ò').replace('e', 'é')) },
  { id: 'frame-unpadded', keeps: true, break: (p) => put(p, 'frame', (t) => String(Number(t))) },
  {
    id: 'frame-joined',
    keeps: true,
    break: ({ name, values }) => (values.frame === undefined ? null : name.replace(/\.(\d{4}\.)/, '_$1')),
  },
  { id: 'date-plain', keeps: true, break: (p) => put(p, 'date', (t) => reorder(t, 'ymd')) },
  { id: 'date-low-line', keeps: true, break: (p) => put(p, 'date', (t) => reorder(t, 'y_m_d')) },
  { id: 'date-dots', keeps: true, break: (p) => put(p, 'date', (t) => reorder(t, 'y.m.d')) },
  { id: 'date-day-first', keeps: false, break: (p) => put(p, 'date', (t) => reorder(t, 'd-m-y')) },
  { id: 'date-unpadded', keeps: true, break: (p) => put(p, 'date', (t) => t.replace(/-0/g, '-')) },
  { id: 'shot-unpadded', keeps: true, break: (p) => put(p, 'shot', (t) => String(Number(t))) },
  {
    id: 'client-first',
    keeps: true,
    break: ({ name }) => (/^26014_QHT_/.test(name) ? name.replace(/^26014_QHT_/, 'QHT_26014_') : null),
  },
  {
    id: 'scene-before-surface',
    keeps: true,
    break: ({ name, values }) =>
      values.surface === undefined
        ? null
        : name.replace(`${values.surface}_${values.scene}`, `${values.scene}_${values.surface}`),
  },
  {
    id: 'version-before-initials',
    keeps: true,
    break: ({ name }) => (/_[A-Z]{2}_v\d+/.test(name) ? name.replace(/_([A-Z]{2})_(v\d+)/, '_$2_$1') : null),
  },
  {
    id: 'number-behind-surface',
    keeps: true,
    break: ({ name, values }) =>
      values.surface === undefined
        ? null
        : name.replace(`26014_${values.surface}`, `${String(values.surface).split('-').map(capital).join(' ')} 26014`),
  },
  { id: 'number-missing', keeps: true, break: ({ name }) => (name.startsWith('26014_') ? name.slice(6) : null) },
  { id: 'number-twice', keeps: true, break: ({ name }) => (name.startsWith('26014_') ? `26014_${name}` : null) },
  {
    id: 'initials-missing',
    keeps: false,
    break: (p) => (p.values.person === undefined ? null : p.name.replace(/_[A-Z]{2}(_v\d+)/, '$1')),
  },
  { id: 'surface-slip', keeps: false, break: (p, random) => put(p, 'surface', (t) => slip(t, random)) },
  { id: 'task-slip', keeps: false, break: (p, random) => put(p, 'task', (t) => slip(t, random)) },
  { id: 'title-slip', keeps: false, break: (p, random) => put(p, 'title', (t) => slip(t, random)) },
  {
    id: 'other-number',
    keeps: false,
    break: ({ name }) => (name.startsWith('26014_') ? name.replace('26014', '26009') : null),
  },
];
