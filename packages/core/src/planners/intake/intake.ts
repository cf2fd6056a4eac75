/**
 * Loose files → their places in a project.
 *
 * 1. Cards stay whole, in the folder that takes them (`cards`).
 * 2. Each other file is recognised by its content and its path (`recognise`).
 * 3. Folders that take it are weighed against each other (`places`), those of days to come counted in (`days`).
 * 4. It gets its name there (`naming`); files that share a name's stem stay together.
 * 5. What is in the project already, or lies in the heap twice, is not brought.
 *
 * The source is only read. What a person says of a file, or of a folder of the heap, is stronger than all this.
 */
import type { Change } from '../../change/change';
import { home } from '../../change/place';
import { differingFrom } from '../../check/agreed-facts';
import { faultOfFile } from '../../check/file-fault';
import { join, nameOf, parentOf } from '../../listing/entry';
import { frameless } from '../../name/frames';
import type { Confidence } from '../../name/mend/suggest';
import { clashKey } from '../../portable/name';
import { ProjectRules } from '../../project/rules';
import type { PlannedLine } from '../../template/expansion';
import { broughtChange, foldersInto, movedInstead } from '../bringing';
import { placeAmongOlder } from '../give-way';
import { Landing } from '../landing';
import { Answers, withGiven } from './answers';
import { burstsIn } from './bursts';
import { type Card, cardsIn } from './cards';
import { entriesFor, type NewEntry, withDays } from './days';
import {
  type Intake,
  type IntakeGiven,
  type IntakeItem,
  type IntakeState,
  type InWay,
  isTaken,
  type Placed,
  type Same,
} from './given';
import { type Named, Naming } from './naming';
import { clockShift, pairsOf } from './pair';
import { Places } from './places';
import { cardRating, cardState, fitting, rated } from './rating';
import { type LooseFile, type Recognised, Recogniser } from './recognise';

export function intake(given: IntakeGiven): Intake {
  return new Planner(given).plan();
}

class Planner {
  /** The project as it is, and as it would be with the days of the heap. */
  private readonly rules: ProjectRules;
  private readonly grown: ProjectRules;
  private readonly places: Places;
  private readonly naming: Naming;
  private readonly cards: readonly Card[];
  private readonly recognised: readonly Recognised[];
  private readonly recogniser: Recogniser;
  private readonly answers: Answers;
  private readonly bursts: ReadonlyMap<string, string>;
  /** Where the first file of each stem came to lie, and its name's stem there. */
  private readonly stems = new Map<string, { readonly folder: string; readonly stem: string }>();

  /** Names that files which give way are kept by, by folder. */
  private readonly kept = new Map<string, readonly string[]>();

  constructor(private readonly given: IntakeGiven) {
    this.rules = new ProjectRules(given.input);
    this.answers = new Answers(given.placed);
    this.cards = cardsIn(this.rules, given.files, this.answers.cards());
    const inCards = new Set(this.cards.flatMap(({ files }) => files));
    const recogniser = new Recogniser(this.rules);
    this.recognised = given.files
      .filter((file) => !inCards.has(file))
      .map((file) => withGiven(recogniser.of(file), this.answers.of(file.path).values, recogniser))
      .sort(inOrder);
    const days = new Set([
      ...this.recognised.flatMap(({ when }) => (when === null || when.isUnsure ? [] : [when.day])),
      ...this.cards.flatMap((card) => dayOf(card, recogniser) ?? []),
    ]);
    this.grown = new ProjectRules(withDays(given.input, this.rules, days, this.answers.entries()));
    const isNew = (line: PlannedLine) => this.rules.planned(line.path) === undefined;
    this.places = new Places(this.grown, isNew);
    this.naming = new Naming(this.grown, given.there);
    this.recogniser = recogniser;
    this.bursts = burstsIn(given.files.filter((file) => !inCards.has(file)));
  }

  plan(): Intake {
    const { given } = this;
    const shift = clockShift(given.files, given.pairing);
    const cards = this.cards.map((card) => this.card(card));
    const items = this.marked([
      ...cards.flatMap(({ items }) => items),
      ...this.recognised.map((file) => this.item(file)),
    ]);
    const taken = items.filter(isTaken);
    const lines = new Set(taken.flatMap((item) => this.lineOf(parentOf(item.to ?? '')) ?? []));
    const entries = unique([...lines].flatMap((line) => entriesFor(this.rules, line)));
    return {
      items: items.sort((a, b) => (a.from < b.from ? -1 : 1)),
      cards: cards.map(({ card, to }) => ({ path: card.path, to, files: card.files.length })),
      pairs: pairsOf(given.files, { ...given.pairing, shift: given.pairing.shift ?? shift?.seconds ?? 0 }),
      shift,
      entries,
      changes: [...this.folders(taken), ...taken.flatMap((item) => [...givingWay(item), this.copied(item)])],
    };
  }

  /** What a new entry's folders are is the growing project's own affair. */
  private folders(taken: readonly IntakeItem[]): readonly Change[] {
    const isMadeByGrowing = (path: string) => {
      const line = this.grown.planned(path);
      return line?.made === true && this.rules.planned(path) === undefined;
    };
    const into = foldersInto(
      this.given.there,
      taken.flatMap(({ to, inWay }) => [to, inWay?.keptAs].flatMap((path) => (path == null ? [] : [parentOf(path)]))),
    );
    return into.filter(({ after }) => !isMadeByGrowing(after?.path ?? ''));
  }

  private copied({ from, to, size, modified }: IntakeItem): Change {
    const change = broughtChange({
      from: { root: this.given.root, path: from },
      ...{ to: to ?? '', expects: { size, modified } },
    });
    return this.given.isMove ? movedInstead(change) : change;
  }

  /** The planned folder that one is or lies in. */
  private lineOf(folder: string): PlannedLine | undefined {
    for (let at = folder; at !== ''; at = parentOf(at)) {
      const line = this.grown.planned(at);
      if (line !== undefined) return line;
    }
    return undefined;
  }

  private item(file: Recognised): IntakeItem {
    const { path } = file.file;
    const said = this.answers.of(path);
    // Side files have no place of their own.
    const isSide = file.family === null && this.stems.has(withoutEnding(path));
    const candidates = said.folder === undefined && !isSide ? this.places.of(file) : [];
    const line = said.folder === undefined ? candidates[0]?.line : this.grown.planned(said.folder);
    const place = this.placeOf(file, said, line ?? null);
    const rating = this.checked(file, place, isSide ? 'likely' : rated(file, candidates, place?.named ?? null));
    const isByHand = said.folder !== undefined || said.name !== undefined;
    const confidence = place === null ? null : isByHand ? 'sure' : rating;
    const same = this.given.sameAs(path);
    const to = place === null || confidence === null ? null : join(place.folder, place.named.name);
    const run = place?.named.isFrame === true ? frameless(path) : null;
    const { size, modified, facts } = file.file;
    // One literal without spreads: of a hundred thousand items they took a fifth of the time.
    return {
      from: path,
      to,
      size,
      modified,
      family: file.family,
      state: this.stateOf(file, said, confidence, same, place?.named.missing ?? NOTHING),
      confidence,
      reasons: isSide ? [{ code: 'side', value: stemOf(nameOf(path)) }] : (candidates[0]?.reasons ?? NOTHING),
      folders: fitting(candidates),
      missing: place?.named.missing ?? NOTHING,
      derived: place?.named.derived ?? NOTHING,
      isByHand,
      run,
      // What lies there once more is a copy, and no shot of its own.
      burst: same === null && run === null ? (this.bursts.get(path) ?? null) : null,
      card: null,
      same,
      lie: file.lie,
      foreign: file.foreign,
      facts,
      differing: this.differing(to, facts),
      fault: null,
      clash: false,
      inWay: null,
    };
  }

  private differing(to: string | null, facts: LooseFile['facts']): IntakeItem['differing'] {
    return to === null ? NOTHING : differingFrom(this.grown, to, facts);
  }

  /** What would be found wrong where it comes to lie is looked at first. */
  private checked(file: Recognised, place: InFolder | null, rating: Confidence | null): Confidence | null {
    const line = place === null ? undefined : this.grown.planned(place.folder);
    if (place === null || line === undefined || rating === null || rating === 'guess') return rating;
    const entry = { name: place.named.name, size: file.file.size, modified: file.file.modified };
    return faultOfFile(this.grown, line, entry) === null ? rating : 'guess';
  }

  private stateOf(
    { file }: Recognised,
    { comes }: Placed,
    confidence: Confidence | null,
    same: Same | null,
    missing: readonly string[],
  ): IntakeState {
    if (comes === false) return 'left';
    if (comes === undefined && this.rules.isGenerated(nameOf(file.path))) return 'system';
    if (comes === undefined && same !== null) return same.where === 'project' ? 'there' : 'twice';
    if (confidence === null) return 'orphan';
    if (comes === true) return 'comes';
    return confidence === 'guess' || missing.length > 0 ? 'look' : 'comes';
  }

  private placeOf(file: Recognised, said: Placed, line: PlannedLine | null): InFolder | null {
    const key = withoutEnding(file.file.path);
    const first = this.stems.get(key);
    // What no folder takes by itself goes where the file of its name went.
    const folder = said.folder ?? line?.path ?? first?.folder;
    if (folder === undefined) return null;
    const named = this.namedIn(file, said, line, first?.folder === folder ? first.stem : undefined);
    if (named.missing.length === 0 && first === undefined) this.stems.set(key, { folder, stem: stemOf(named.name) });
    return { folder, named };
  }

  private namedIn(file: Recognised, said: Placed, line: PlannedLine | null, stem: string | undefined): Named {
    if (said.name !== undefined) return { name: said.name, missing: [], derived: [], by: 'written' };
    if (stem !== undefined && file.ext !== '')
      return { name: `${stem}.${file.ext}`, missing: [], derived: [], by: 'written' };
    if (line === null) return { name: nameOf(file.file.path), missing: [], derived: [], by: 'kept' };
    return this.naming.of(file, line, said.values ?? {});
  }

  /** What wants one place twice, cannot lie where it would, or would take a place that is taken. */
  private marked(items: readonly IntakeItem[]): IntakeItem[] {
    const landing = new Landing(this.grown, this.given.there);
    const wanted = new Map<string, number>();
    for (const { to } of items.filter(isTaken))
      wanted.set(clashKey(to ?? ''), (wanted.get(clashKey(to ?? '')) ?? 0) + 1);
    return items.map((item) => {
      if (!isTaken(item) || item.to === null) return item;
      const fault = landing.faultOf(parentOf(item.to), nameOf(item.to));
      if ((wanted.get(clashKey(item.to)) ?? 0) > 1) return { ...item, fault, clash: true };
      if (!landing.isTaken(item.to)) return fault === null ? item : { ...item, fault };
      const inWay = this.inWay(item.to);
      const isReplacing = inWay !== null && this.answers.of(item.from).replaces === true;
      return { ...item, fault, inWay, clash: !isReplacing };
    });
  }

  /** A file that lies there can give way, but for one that somebody writes to at this moment. */
  private inWay(to: string): InWay | null {
    const there = this.given.fileAt(to);
    if (there === null || this.grown.isSettling(there.modified)) return null;
    const { given, kept } = this;
    const namesIn = (folder: string) => [...given.there(folder), ...(kept.get(folder) ?? [])];
    const line = this.grown.planned(parentOf(to)) ?? null;
    const keptAs = placeAmongOlder(line, { name: nameOf(to), modified: there.modified }, namesIn);
    if (keptAs !== null) kept.set(parentOf(keptAs), [...(kept.get(parentOf(keptAs)) ?? []), nameOf(keptAs)]);
    return { ...there, referrers: given.referrers(to), keptAs };
  }

  /** A card lies in a folder of its own name; one of other content that is there has its number counted on. */
  private card(card: Card): { card: Card; to: string | null; items: readonly IntakeItem[] } {
    const said = this.answers.of(card.path);
    const first = card.files[0];
    const name = card.path === '' ? this.given.sourceName : nameOf(card.path);
    const day = dayOf(card, this.recogniser);
    const asFile =
      first === undefined ? null : this.recogniser.of({ ...first, path: join(card.path, nameOf(first.path)) });
    const dated =
      asFile === null || day === null
        ? asFile
        : { ...asFile, when: { day, time: null, by: 'content' as const, isUnsure: false } };
    const candidates =
      dated === null || said.folder !== undefined
        ? []
        : this.places.forCards(withGiven(dated, said.values, this.recogniser));
    const folder = said.folder ?? candidates[0]?.line.path ?? null;
    const confidence = folder === null ? null : said.folder !== undefined ? 'sure' : cardRating(candidates);
    const to = folder === null ? null : join(folder, this.cardName(folder, name));
    const items = card.files.map((file): IntakeItem => {
      const { path, size, modified, facts } = file;
      const same = this.given.sameAs(path);
      const inside = card.path === '' ? path : path.slice(card.path.length + 1);
      // Of a card everything belongs together, also what lies in it twice.
      const kept = same?.where === 'heap' ? null : same;
      const at = to === null ? null : join(to, inside);
      return {
        ...{ from: path, to: at, size, modified, facts, differing: this.differing(at, facts) },
        family: this.rules.familyOf(nameOf(path)),
        state: cardState({ ...said, ...this.answers.of(path) }, confidence, kept),
        confidence,
        reasons: candidates[0]?.reasons ?? [],
        folders: candidates.map(({ line }) => line.path),
        ...{ missing: [], derived: [], isByHand: said.folder !== undefined, run: null, burst: null },
        card: card.path,
        ...{ same: kept, lie: null, foreign: null, fault: null, clash: false, inWay: null },
      };
    });
    return { card, to, items };
  }

  private cardName(folder: string, name: string): string {
    const isFree = (as: string) => !this.given.there(folder).includes(as);
    // What is there of the same name is the same card where nothing in it is in the way.
    if (isFree(name) || this.isSameCard(join(folder, name))) return name;
    for (let n = 2; ; n++) if (isFree(`${name}-${n}`)) return `${name}-${n}`;
  }

  private isSameCard(to: string): boolean {
    return this.given.files.some((file) => this.given.sameAs(file.path)?.path.startsWith(`${to}/`));
  }
}

const NOTHING: readonly never[] = [];

interface InFolder {
  readonly folder: string;
  readonly named: Named;
}

/** The day on which most of a card was made; `null` where it does not tell. */
function dayOf({ files }: Card, recogniser: Recogniser): string | null {
  const days = new Map<string, number>();
  for (const file of files) {
    const { when } = recogniser.of(file);
    if (when !== null) days.set(when.day, (days.get(when.day) ?? 0) + 1);
  }
  return [...days].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1))[0]?.[0] ?? null;
}

/** By time, so that numbers count on as it was made; side files behind what they go with. */
function inOrder(a: Recognised, b: Recognised): number {
  const at = ({ when }: Recognised) => (when === null ? '9' : `${when.day}${when.time ?? ''}`);
  return (
    Number(a.family === null) - Number(b.family === null) || compare(at(a), at(b)) || compare(a.file.path, b.file.path)
  );
}

const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
const withoutEnding = (path: string): string => join(parentOf(path), stemOf(nameOf(path)));
const stemOf = (name: string): string => name.replace(/(?<=.)\.[^.]*$/, '');

/** What lies in its place is kept before it comes. */
function givingWay({ to, inWay }: IntakeItem): readonly Change[] {
  if (to === null || inWay === null) return [];
  const { size, modified, keptAs } = inWay;
  return [
    {
      ...{ id: `kept ${to}`, subject: { kind: 'file' }, group: null, entry: 'file', content: null },
      before: home(to),
      after: keptAs === null ? null : home(keptAs),
      expects: { size, modified },
    },
  ];
}

function unique(entries: readonly NewEntry[]): readonly NewEntry[] {
  return [...new Map(entries.map((entry) => [JSON.stringify([entry.list, entry.outer, entry.entry]), entry])).values()];
}
