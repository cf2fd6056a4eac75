import { elementAt } from '../element';
/**
 * The house's lists as tables: which columns each has, and what may stand in them. Cells are text, as in a CSV file.
 */
export const LIST_NAMES = ['clients', 'people', 'families', 'abbreviations', 'banned', 'libraries'] as const;
export type ListName = (typeof LIST_NAMES)[number];

export interface Column {
  readonly key: string;
  readonly label: string;
  readonly required?: true;
  readonly max: number;
  /** Words parted by blanks or commas. */
  readonly several?: true;
  /** `yes`, or nothing. */
  readonly flag?: true;
  readonly form?: { readonly is: RegExp; readonly words: string };
}

const PORTABLE_CODE = { is: /^[A-Za-z0-9-]{1,12}$/, words: 'up to twelve letters, digits or hyphens' };
const RETIRED: Column = { key: 'retired', label: 'Retired', max: 3, flag: true };

/** The first column tells an entry from the others. */
export const COLUMNS: Readonly<Record<ListName, readonly Column[]>> = {
  clients: [
    { key: 'code', label: 'Code', required: true, max: 12, form: PORTABLE_CODE },
    { key: 'name', label: 'Name', required: true, max: 120 },
    {
      key: 'colour',
      label: 'Mark',
      max: 10,
      form: {
        is: /^(clay|moss|slate|plum|straw|teal|rose|ink)$/,
        words: 'clay, moss, slate, plum, straw, teal, rose or ink',
      },
    },
    { key: 'notes', label: 'Notes', max: 2000 },
    RETIRED,
  ],
  people: [
    {
      key: 'initials',
      label: 'Initials',
      required: true,
      max: 4,
      form: { is: /^[A-Z]{1,4}$/, words: 'one to four capitals' },
    },
    { key: 'name', label: 'Name', required: true, max: 120 },
    {
      key: 'email',
      label: 'E-mail',
      required: true,
      max: 200,
      form: { is: /^[^\s@<>"]+@[^\s@<>"]+\.[^\s@<>".]+$/, words: 'an e-mail address' },
    },
    {
      key: 'role',
      label: 'Role',
      required: true,
      max: 20,
      form: { is: /^(coordinator|artist|lead)$/, words: 'coordinator, artist or lead' },
    },
    { key: 'does', label: 'Does', max: 120 },
    RETIRED,
  ],
  families: [
    { key: 'name', label: 'Family', required: true, max: 60 },
    {
      key: 'extensions',
      label: 'Extensions',
      required: true,
      max: 2000,
      several: true,
      form: {
        is: /^[a-z0-9]{1,12}(\.[a-z0-9]{1,12})?$/,
        words: 'extensions without a dot in front, such as png or tar.gz',
      },
    },
    {
      key: 'companions',
      label: 'Companions',
      max: 2000,
      several: true,
      form: { is: /^[a-z0-9]{1,12}(\.[a-z0-9]{1,12})?$/, words: 'extensions without a dot in front' },
    },
    {
      key: 'document',
      label: 'One document is',
      max: 6,
      form: { is: /^(folder|stem)$/, words: 'folder, for a folder of that ending; stem, for all files of one name' },
    },
  ],
  abbreviations: [
    { key: 'long', label: 'Word', required: true, max: 60 },
    { key: 'short', label: 'Abbreviation', required: true, max: 12, form: PORTABLE_CODE },
  ],
  banned: [
    { key: 'word', label: 'Word', required: true, max: 60, form: { is: /^\S+$/, words: 'one word, without blanks' } },
  ],
  libraries: [
    {
      key: 'path',
      label: 'Whole path',
      required: true,
      max: 400,
      form: {
        is: /^(?:\/(?!\/)|[A-Za-z]:[\\/]|\\\\|\/\/)[^/\\]/,
        words: 'a whole path, as one system writes it: /srv/library or P:\\library',
      },
    },
    { key: 'name', label: 'What it is', required: true, max: 120 },
  ],
};

export type Cells = Readonly<Record<string, string>>;

export interface ListEntry {
  readonly key: string;
  readonly cells: Cells;
}

export type CellFaultCode = 'cell-missing' | 'cell-too-long' | 'cell-form' | 'cell-control' | 'entry-double';

export interface CellFault {
  readonly code: CellFaultCode;
  readonly column: string;
  readonly params: Readonly<Record<string, string | number>>;
}

export const keyColumn = (list: ListName): Column => elementAt(COLUMNS[list], 0);
/** Entries whose keys differ in case alone are one: no system that matters tells them apart. */
export const foldKey = (key: string): string => key.normalize('NFC').toLowerCase();

/** Tidied as they are kept: NFC, no blanks at the edges, several words parted by one blank. */
export function tidyCells(list: ListName, cells: Cells): Cells {
  return Object.fromEntries(
    COLUMNS[list].map((column) => {
      const text = (cells[column.key] ?? '').normalize('NFC').trim();
      if (column.several)
        return [
          column.key,
          severalOf(text)
            .map((w) => w.replace(/^\./, '').toLowerCase())
            .join(' '),
        ];
      return [column.key, column.flag ? (/^(yes|y|true|1|x|retired)$/i.test(text) ? 'yes' : '') : text];
    }),
  );
}

export const severalOf = (text: string): string[] => text.split(/[\s,;]+/).filter((w) => w !== '');

/** All that is wrong with the cells of one entry; whether its key is taken is asked of the list. */
export function cellFaults(list: ListName, cells: Cells): CellFault[] {
  return COLUMNS[list].flatMap((column): CellFault[] => {
    const text = cells[column.key] ?? '';
    const fault = (code: CellFaultCode, params: CellFault['params'] = {}): CellFault[] => [
      { code, column: column.key, params: { column: column.label, ...params } },
    ];
    if (text === '') return column.required ? fault('cell-missing') : [];
    if ([...text].length > column.max) return fault('cell-too-long', { max: column.max });
    // Line breaks are for notes alone.
    if (
      [...text].some((c) => c < ' ' && !(column.key === 'notes' && (c === '\n' || c === '\t'))) ||
      /[\u202a-\u202e\u2066-\u2069]/.test(text)
    )
      return fault('cell-control');
    const odd = column.form && (column.several ? severalOf(text) : [text]).find((part) => !column.form?.is.test(part));
    return odd === undefined ? [] : fault('cell-form', { found: odd.slice(0, 40), expected: column.form?.words ?? '' });
  });
}
