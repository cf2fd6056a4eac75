/** A loose file: what its path and its content say of it. */
import { nameOf, parentOf } from '../../listing/entry';
import { extensionOf } from '../../listing/extension';
import type { Holds, MediaFacts } from '../../listing/media-facts';
import { type DateIn, dateIn, type FoundDate, isDay } from '../../name/dates/date-in';
import type { ProjectRules } from '../../project/rules';
import { type Atom, type Form, formOf } from './form';
import { singular, type Token, tokensOf } from './said';
import { type Found, namesOfLists, Vocabulary } from './vocabulary';

export interface LooseFile {
  /** From the source's root. */
  readonly path: string;
  readonly size: number;
  /** Milliseconds since 1970. */
  readonly modified: number;
  readonly facts: MediaFacts;
}

export interface Recognised {
  readonly file: LooseFile;
  /** By its content where that is of another family than its name says. */
  readonly family: string | null;
  /** In small letters: its name's, or its content's where the name lies or has none. */
  readonly ext: string;
  /** The extension its name has, where its content is something else; `null` where they agree. */
  readonly lie: string | null;
  readonly has: Holds | null;
  /** By field: the nearest to the file's own name counts. */
  readonly said: ReadonlyMap<string, readonly Found[]>;
  /** Day and time it was made, as well as is known; `null` where nothing tells. */
  readonly when: When | null;
  readonly version: string | null;
  /** Numbers that something is counted by, by field. */
  readonly counts: ReadonlyMap<string, string>;
  /** Digits at its name's end that mean nothing else; `null` where a device gave them. */
  readonly tail: string | null;
  /** Words of its own name that mean nothing known. */
  readonly rest: readonly string[];
  /** The id of the convention whose form its name has. */
  readonly form: string | null;
  /** All words of its path, singular, with what its codes are short for. */
  readonly words: ReadonlySet<string>;
  /** Fields that a person gave a value for. */
  readonly given: ReadonlySet<string>;
  /** Another project's number that its path carries. */
  readonly foreign: string | null;
}

export interface When {
  /** ISO 8601. */
  readonly day: string;
  /** `hh:mm:ss`. */
  readonly time: string | null;
  readonly by: 'content' | 'name' | 'folder';
  readonly isUnsure: boolean;
}

/** What the names of one folder of the source say. */
interface FolderSaid {
  readonly said: ReadonlyMap<string, readonly Found[]>;
  readonly date: FoundDate | null;
  readonly words: ReadonlySet<string>;
  readonly foreign: string | null;
}

const NOTHING: FolderSaid = { said: new Map(), date: null, words: new Set(), foreign: null };
/** Clocks that were never set say 1970, or a year that has not come. */
const FIRST_YEAR = '1990';
const DAY = 86_400_000;

export class Recogniser {
  private readonly vocabulary: Vocabulary;
  private readonly folders = new Map<string, FolderSaid>([['', NOTHING]]);
  private readonly year: string;
  private readonly lastDay: string;
  private readonly labels: ReadonlyMap<string, readonly string[]>;
  private readonly banned: ReadonlySet<string>;
  /** Whole cards are made on one day. */
  private readonly believed = new Map<string, boolean>();
  readonly listNames: ReadonlyMap<string, readonly string[]>;
  private readonly isListed: (field: string) => boolean;

  constructor(private readonly rules: ProjectRules) {
    this.vocabulary = new Vocabulary(rules);
    this.listNames = namesOfLists(rules);
    const listed = new Set([...this.listNames.values()].flat());
    this.isListed = (field) => listed.has(field);
    this.year = String(rules.expansion.values.values.date ?? isoDay(rules.now ?? 0)).slice(0, 4);
    this.lastDay = rules.now === undefined ? '9999' : isoDay(rules.now + DAY);
    this.labels = labelsOf(rules);
    this.banned = new Set(rules.registers.banned.map((word) => word.toLowerCase()));
  }

  of(file: LooseFile): Recognised {
    const { rules } = this;
    const name = nameOf(file.path);
    const above = this.folder(parentOf(file.path));
    const { ext, family, lie } = this.kind(name, file.facts);
    const stem = withoutCopyMark(stemOf(name, extensionOf(name, rules.extensionsKnown)));
    const isOfDevice = DEVICE.test(stem) && dateIn(stem, this.year) === null;
    const dated = dateIn(stem, this.year);
    const own = this.read(tokensAround(dated, stem), isOfDevice);
    const form = isOfDevice ? null : this.form(ext, own.atoms);
    const said = merged(above.said, this.withForm(own.said, form));
    return {
      file,
      ...{ family, ext, lie, said },
      has: file.facts.has ?? null,
      when: this.when(file.facts, dated?.found ?? null, above.date),
      version: own.version,
      counts: form === null ? own.counts : new Map([...own.counts, ...Object.entries(form.values)]),
      tail: isOfDevice || form !== null ? null : own.tail,
      rest: isOfDevice ? [] : own.rest,
      form: form?.convention ?? null,
      words: new Set([...above.words, ...own.words, ...this.longOf(said)]),
      given: NONE,
      foreign: own.foreign ?? (own.said.has('number') ? null : above.foreign),
    };
  }

  /** Its family by name, and by content where these differ. */
  private kind(name: string, { content }: MediaFacts): Pick<Recognised, 'family' | 'ext' | 'lie'> {
    const { rules } = this;
    const dot = name.lastIndexOf('.');
    const known = extensionOf(name, rules.extensionsKnown).toLowerCase();
    const ext = known !== '' || dot <= 0 ? known : name.slice(dot + 1).toLowerCase();
    const alike = ALIKE.get(ext) ?? ext;
    const by = (e: string) => rules.familyOf(`x.${e}`);
    if (content === undefined || content === '' || alike === content || by(content) === null)
      return { family: by(ext) ?? by(alike), ext: by(ext) === null && by(alike) !== null ? alike : ext, lie: null };
    if (by(ext) === null) return { family: by(content), ext: content, lie: ext === '' ? null : ext };
    // Containers of one family hold each other's content.
    if (by(ext) === by(content) && !CERTAIN.has(content)) return { family: by(ext), ext, lie: null };
    return { family: by(content), ext: content, lie: ext };
  }

  private when(facts: MediaFacts, own: FoundDate | null, above: FoundDate | null): When | null {
    const taken = /^(\d{4}-\d{2}-\d{2})T(\d{2}:\d{2}:\d{2})/.exec(facts.taken ?? '');
    const day = taken?.[1] ?? '';
    if (this.isBelieved(day)) return { day, time: taken?.[2] ?? null, by: 'content', isUnsure: false };
    for (const [found, by] of [
      [own, 'name'],
      [above, 'folder'],
    ] as const)
      if (found !== null && this.isBelieved(found.date))
        return { day: found.date, time: found.time, by, isUnsure: found.isUnsure };
    return null;
  }

  private isBelieved(day: string): boolean {
    const known = this.believed.get(day);
    if (known !== undefined) return known;
    const isBelieved = isDay(day) && day > FIRST_YEAR && day <= this.lastDay;
    this.believed.set(day, isBelieved);
    return isBelieved;
  }

  private folder(path: string): FolderSaid {
    const known = this.folders.get(path);
    if (known !== undefined) return known;
    const above = this.folder(parentOf(path));
    const name = nameOf(path);
    const dated = dateIn(name, this.year);
    const { said, words, foreign } = this.read(tokensAround(dated, name), false);
    const made: FolderSaid = {
      said: merged(above.said, said),
      date: dated?.found ?? above.date,
      words: new Set([...above.words, ...words]),
      foreign: foreign ?? (said.has('number') ? null : above.foreign),
    };
    this.folders.set(path, made);
    return made;
  }

  private read(tokens: readonly Token[], isOfDevice: boolean) {
    const said = new Map<string, Found[]>();
    const counts = new Map<string, string>();
    const words = new Set<string>();
    const rest: string[] = [];
    const atoms: Atom[] = [];
    let version: string | null = null;
    let tail: string | null = null;
    let foreign: string | null = null;
    for (let at = 0; at < tokens.length; ) {
      const [token, next] = [tokens[at] as Token, tokens[at + 1]];
      if (token.key === DATE.key) {
        atoms.push({ kind: 'date' });
        at += 1;
        continue;
      }
      words.add(singular(token.key));
      const counted = next?.isDigits ? this.vocabulary.counters.get(token.key) : undefined;
      const meant = this.vocabulary.at(tokens, at);
      if (meant !== null && !(isOfDevice && meant.count === 1)) {
        atoms.push({ kind: 'found', found: meant.found });
        for (const found of meant.found) said.set(found.field, [...(said.get(found.field) ?? []), found]);
        for (const one of tokens.slice(at, at + meant.count)) words.add(singular(one.key));
        at += meant.count;
        tail = null;
      } else if (next?.isDigits && VERSION.has(token.key)) {
        atoms.push({ kind: 'version' });
        version = next.key;
        at += 2;
        tail = null;
      } else if (counted !== undefined && next !== undefined) {
        atoms.push({ kind: 'counted' });
        counts.set(counted, next.key);
        at += 2;
        tail = null;
      } else {
        if (token.isDigits) {
          if (this.isForeign(token)) foreign = token.text;
          atoms.push({ kind: 'digits', text: token.key });
          tail = token.key;
          if (at + 1 < tokens.length) rest.push(token.text);
        } else if (!this.banned.has(token.key)) {
          atoms.push({ kind: 'word', text: token.text });
          rest.push(token.text);
        }
        at += 1;
      }
    }
    return { said, counts, words, rest, version, tail, foreign, atoms };
  }

  /** The only convention whose form the name has, or the one it fills more of than of any other. */
  private form(ext: string, atoms: readonly Atom[]): (Form & { readonly convention: string }) | null {
    const forms = this.rules
      .conventionsOf(ext)
      .flatMap(({ convention, strict, bound }) => {
        const form = formOf(strict, atoms, this.isListed, new Set(Object.keys(bound)));
        return form === null ? [] : [{ ...form, convention: convention.id }];
      })
      .sort((a, b) => b.filled - a.filled);
    const [best, second] = forms;
    return best === undefined || best.filled === second?.filled ? null : best;
  }

  /** Numbers that are entries of lists by their place. */
  private withForm(said: ReadonlyMap<string, readonly Found[]>, form: Form | null) {
    const values = Object.entries(form?.values ?? {}).filter(([field]) => this.isListed(field) && !said.has(field));
    return values.length === 0
      ? said
      : new Map([...said, ...values.map(([field, value]) => [field, [{ field, value, isSlip: false }]] as const)]);
  }

  /** As long as the project's own number, of a year about the same. */
  private isForeign({ text, isWhole }: Token): boolean {
    const own = this.rules.number ?? '';
    if (!isWhole || !/^\d{4,}$/.test(own) || text.length !== own.length || text === own) return false;
    return Math.abs(Number(text.slice(0, 2)) - Number(own.slice(0, 2))) <= 3;
  }

  private longOf(said: ReadonlyMap<string, readonly Found[]>): string[] {
    const out: string[] = [];
    for (const found of said.values())
      for (const { field, value } of found) out.push(...(this.labels.get(`${field}\0${value}`) ?? []));
    return out;
  }
}

const stemOf = (name: string, ext: string): string =>
  (ext === '' ? name.replace(/(?<=.)\.[A-Za-z0-9]{1,5}$/, '') : name.slice(0, name.length - ext.length - 1)) || name;

/** What systems add to a copy's name, in several languages. */
const COPY_MARK =
  /(?:[ _-]*\((?:\d{1,3}|copy|kopie|copie|kopia|copia)\)|[ _-]+(?:copy|kopie|copie|kopia|copia)(?:[ _-]?\d{1,2}|[ _-]?\(\d{1,2}\))?)$/i;
const withoutCopyMark = (stem: string): string => stem.replace(COPY_MARK, '') || stem;

/** Whether a system called it a copy of another. */
export const isCopyName = (name: string): boolean => COPY_MARK.test(name.replace(/(?<=.)\.[^.]*$/, ''));

/** Names that devices give: letters or none, and digits. */
const DEVICE = /^(?:[A-Z]{0,5}_?|[A-Z]\d{3}_)\d{3,}$|^[A-Z]{2,5}[-_]?\d{8}[-_]\d{6}$/;
const VERSION: ReadonlySet<string> = new Set(['v', 'ver', 'version', 'rev']);
/** Two ways of writing one extension. */
const ALIKE: ReadonlyMap<string, string> = new Map([
  ['jpeg', 'jpg'],
  ['jpe', 'jpg'],
  ['tiff', 'tif'],
  ['wave', 'wav'],
  ['bwf', 'wav'],
  ['qt', 'mov'],
  ['m4v', 'mp4'],
  ['htm', 'html'],
]);
/** What begins so is that and nothing else. */
const CERTAIN: ReadonlySet<string> = new Set(['jpg', 'png', 'pdf', 'wav', 'flac', 'tif', 'gif']);

const NONE: ReadonlySet<string> = new Set();

/** Stands where a date was, among the words of a name. */
const DATE: Token = { text: '', key: '\0date', isDigits: false, isWhole: true };
const tokensAround = (dated: DateIn | null, text: string): readonly Token[] =>
  dated === null ? tokensOf(text) : [...tokensOf(dated.before), DATE, ...tokensOf(dated.after)];

const isoDay = (time: number): string => new Date(time).toISOString().slice(0, 10);

/** What is said nearer to the file counts. */
function merged(above: ReadonlyMap<string, readonly Found[]>, own: ReadonlyMap<string, readonly Found[]>) {
  return own.size === 0 ? above : new Map([...above, ...own]);
}

/** Labels and long forms of codes, as single words. */
function labelsOf(rules: ProjectRules): ReadonlyMap<string, readonly string[]> {
  const out = new Map<string, readonly string[]>();
  const fields = [...rules.template.conventions.flatMap((c) => c.fields ?? []), ...rules.template.fields];
  for (const field of fields)
    if (field.type === 'choice')
      for (const { code, label } of field.options ?? []) {
        const long = rules.registers.abbreviations.filter((a) => a.short === code).map((a) => a.long);
        const words = [label ?? '', ...long].flatMap((text) => tokensOf(text).map((token) => singular(token.key)));
        out.set(`${field.key}\0${code}`, words);
      }
  return out;
}
