/**
 * A template from a project that is there, or from a listing of one: what is known of it (number, client, title) becomes
 * fields, siblings that are alike become *one per* with a list, numbers in front become numbering with its gaps, file
 * names become conventions. What is rare is set aside as a question.
 */

import { elementAt, present } from '../../element';
import { commonRoot, type PathLine } from '../../listing/text';
import { learnConventions } from '../../name/learn/learn';
import { compileConvention } from '../../name/pattern/compile';
import type { Field, ListField, Registers, ScalarRule, Value } from '../../name/pattern/field';
import { parsePattern } from '../../name/pattern/parse';
import { shapeText } from '../../name/pattern/shape';
import { readName } from '../../name/read/read';
import { freshId } from '../edit';
import type { Convention, FolderNode, Template } from '../node';
import { keepValues } from '../values';
import type { Derived, FileSeen, Instance, Known, ListMade, Question } from './derived';
import { entriesValue, guessKnown, mergeSeen, nameless, plural, same } from './instances';
import { type Numbered, numberedOf, type Repeated, repeatedOf, singular } from './siblings';
import { type Seen, treeOf } from './tree';

export function deriveTemplate(
  lines: readonly PathLine[],
  given: Known,
  registers: Registers,
  name = 'Derived',
): Derived {
  const root = treeOf(lines, commonRoot(lines));
  return new Deriving(guessKnown(root.name, given, registers), registers).run(root, name);
}

const NEARLY = 0.9;
/** How an entry of a known list stands in a folder's name. */
const FORMS: Readonly<Partial<Record<ScalarRule['type'], string>>> = {
  letters: ':A',
  date: ':yyyy-MM-dd',
  choice: '',
  count: '',
  client: '.code',
  person: '.initials',
};
/** The folder that has the number which the other one carries in front as well. */
const isTwin = (one: Numbered, other: Numbered, { digits, joiner }: { digits: number; joiner: string }): boolean =>
  one.number !== null && other.bare.startsWith(`${String(one.number).padStart(digits, '0')}${joiner}`);

/** Names one question shows. */
const NAMES_ASKED = 20;

class Deriving {
  private readonly ids = new Set<string>();
  private readonly lists: ListMade[] = [];
  private readonly conventions: Convention[] = [];
  private readonly questions: Question[] = [];

  constructor(
    private readonly known: Known,
    private readonly registers: Registers,
  ) {}

  run(root: Seen, name: string): Derived {
    this.ids.add('root');
    const folder = this.folder([{ seen: root, entries: {}, path: '' }], 'root', this.pattern(root.name), []);
    const { number, client, title } = this.known;
    const fields: Field[] = [
      ...(client === undefined
        ? []
        : [{ id: 'client', key: 'client', type: 'client' as const, label: 'Client', required: true }]),
      ...(title === undefined
        ? []
        : [{ id: 'title', key: 'title', type: 'text' as const, label: 'Title', max: 40, required: true }]),
      ...this.askedBefore(),
      ...this.lists.map(
        (l): Field => ({
          id: l.key,
          key: l.key,
          type: 'list',
          label: l.label,
          of: l.rule,
          ...(l.within !== null && { within: l.within }),
        }),
      ),
    ];
    const values: Record<string, Value> = {
      ...(number !== undefined && { number }),
      ...(client !== undefined && { client }),
      ...(title !== undefined && { title }),
    };
    for (const f of this.askedBefore())
      if (this.known.values?.[f.key] !== undefined) values[f.key] = present(this.known.values[f.key]);
    for (const list of this.lists) values[list.key] = entriesValue(list);
    const template: Template = {
      format: 'nesting/template',
      formatVersion: 1,
      id: freshId(name, new Set()),
      name,
      edition: 1,
      fields,
      conventions: this.conventions,
      root: folder,
    };
    return { template, values, questions: this.questions };
  }

  /** A folder or file name with what is known of the project as fields. */
  private pattern(name: string): string {
    let out = name.replace(/[{}()]/g, '$&$&');
    const put = (text: string | undefined, slot: string): void => {
      if (text === undefined || text === '') return;
      out = out.replace(
        new RegExp(`(?<![A-Za-z0-9])${text.replace(/[\\^$.*+?()[\]{}|/-]/g, '\\$&')}(?![A-Za-z0-9])`),
        slot,
      );
    };
    put(this.known.number, '{number}');
    put(this.known.client, '{client.code}');
    const title = this.known.title;
    if (title !== undefined) {
      const kebab = shapeText(title, 'kebab');
      if (kebab.ok) put(kebab.text, '{title:kebab}');
    }
    return out;
  }

  private folder(
    instances: readonly Instance[],
    id: string,
    name: string,
    lists: readonly ListMade[],
    number?: number | null,
  ): FolderNode {
    const merged = mergeSeen(instances);
    const { numbering, all } = numberedOf(merged.folders);
    const folders: FolderNode[] = [];
    const repeated = this.knownRepeated(all, lists) ?? repeatedOf(all, nameless(name));
    const into = (bare: string) =>
      instances.flatMap((inst) =>
        inst.seen.folders
          .filter((f) => f.name === bare)
          .map(
            (seen): Instance => ({
              seen,
              entries: inst.entries,
              path: `${inst.path}${inst.path === '' ? '' : '/'}${seen.name}`,
            }),
          ),
      );
    for (const child of all) {
      if (repeated?.members.includes(child)) continue;
      const found = into(child.folder.name);
      const node = freshId(child.bare, this.ids);
      if (instances.length > 2 && found.length === 1)
        this.ask('folder-rare', node, found[0]?.path ?? '', [child.folder.name]);
      const isUnnumbered = numbering !== null && child.number === null;
      const twin = isUnnumbered ? all.find((other) => isTwin(other, child, numbering)) : undefined;
      if (twin !== undefined)
        this.ask('number-twice', node, found[0]?.path ?? '', [twin.folder.name, child.folder.name]);
      const made = this.folder(found, node, this.pattern(child.bare), lists, child.number);
      folders.push(isUnnumbered ? { ...made, unnumbered: true } : made);
    }
    if (repeated !== null) folders.push(this.onePer(repeated, instances, lists));
    folders.sort((a, b) => (a.number ?? Number.POSITIVE_INFINITY) - (b.number ?? Number.POSITIVE_INFINITY));
    const rules = this.rules(instances, folders.length > 0, id);
    return {
      id,
      name,
      ...(number != null && { number }),
      ...(numbering !== null && { numbering }),
      ...rules,
      ...(folders.length > 0 && { folders }),
    };
  }

  /** Fields of the project's own that no name tells of: they are asked for again. */
  private askedBefore(): Field[] {
    return (this.known.fields ?? []).filter(
      (f) => f.type !== 'list' && f.key !== 'client' && f.key !== 'title' && f.key !== 'number',
    );
  }

  /** A list the project was started with whose entries these are. */
  private knownList(entries: ReadonlySet<string>): ListField | null {
    const { fields = [], values = {} } = this.known;
    const { lists } = keepValues(fields, values, this.registers);
    const found = fields.find(
      (f): f is ListField =>
        f.type === 'list' &&
        !this.lists.some((l) => l.key === f.key) &&
        same(entries, new Set((lists.get(f.key)?.all ?? []).map((e) => this.folded(f, e)))),
    );
    return found ?? null;
  }

  /** Siblings that are the entries of a list the project was started with, whatever is in them. */
  private knownRepeated(all: readonly Numbered[], lists: readonly ListMade[]): Repeated | null {
    const { fields = [], values = {} } = this.known;
    const kept = keepValues(fields, values, this.registers).lists;
    for (const f of fields) {
      if (f.type !== 'list' || lists.some((l) => l.key === f.key)) continue;
      const by = kept.get(f.key)?.by;
      const entries = new Set((kept.get(f.key)?.all ?? []).map((e) => this.folded(f, e)));
      const members = all.filter((n) => n.number === null && entries.has(n.bare));
      const [whole, form] = [
        by == null ? members.length === entries.size : members.length > 0,
        FORMS[f.of.type] ?? (f.of.like === undefined ? ':kebab' : ''),
      ];
      if (members.length > 0 && whole)
        return {
          members,
          rule: f.of,
          as: singular(f.key),
          pattern: (as) => `{${as}${form}}`,
          entries: members.map((m) => m.bare),
        };
    }
    return null;
  }

  /** An entry as folder names have it. */
  private folded(field: ListField, entry: string): string {
    const kebab = field.of.type === 'text' && field.of.like === undefined ? shapeText(entry, 'kebab') : null;
    return kebab?.ok ? kebab.text : entry;
  }

  private ask(code: Question['code'], node: string, path: string, names: readonly string[]): void {
    const shown = names.slice(0, NAMES_ASKED);
    this.questions.push({ code, node, path, names: shown, patterns: shown.map((name) => this.pattern(name)) });
  }

  private onePer(repeated: Repeated, instances: readonly Instance[], lists: readonly ListMade[]): FolderNode {
    const list = this.listFor(repeated, instances, lists);
    const inner = instances.flatMap((inst) =>
      repeated.members.flatMap((member, i) => {
        const seen = inst.seen.folders.find((f) => f.name === member.folder.name);
        if (seen === undefined) return [];
        const entry = elementAt(repeated.entries, i);
        const outer =
          list.within === null ? '' : (inst.entries[this.lists.find((l) => l.key === list.within)?.as ?? ''] ?? '');
        const held = list.by.get(outer) ?? new Set();
        list.by.set(outer, held.add(entry));
        return [
          {
            seen,
            entries: { ...inst.entries, [list.as]: entry },
            path: `${inst.path}${inst.path === '' ? '' : '/'}${seen.name}`,
          },
        ];
      }),
    );
    const id = freshId(list.as, this.ids);
    return {
      ...this.folder(inner, id, repeated.pattern(list.as), [...lists, list]),
      onePer: { list: list.key, as: list.as },
    };
  }

  /**
   * A list of the same entries that is there already, or a new one; within the innermost list where its entries differ
   * by it.
   */
  private listFor(repeated: Repeated, instances: readonly Instance[], lists: readonly ListMade[]): ListMade {
    const entries = new Set(repeated.entries);
    const alike = this.lists.find(
      (l) =>
        JSON.stringify(l.rule) === JSON.stringify(repeated.rule) &&
        l.within === null &&
        same(entries, l.by.get('') ?? new Set()) &&
        !lists.includes(l),
    );
    if (alike) return alike;
    const outer = lists.at(-1);
    const sets = new Set(
      instances.map((inst) =>
        inst.seen.folders
          .map((f) => f.name)
          .filter((n) => repeated.members.some((m) => m.folder.name === n))
          .join('\0'),
      ),
    );
    const before = this.knownList(entries);
    if (before !== null) {
      const made: ListMade = {
        key: before.key,
        as: singular(before.key),
        label: before.label ?? before.key,
        rule: before.of,
        within: before.within !== undefined && lists.some((l) => l.key === before.within) ? before.within : null,
        by: new Map(),
      };
      this.lists.push(made);
      return made;
    }
    const taken = new Set([...this.lists.flatMap((l) => [l.key, l.as]), 'number', 'client', 'title']);
    let as = repeated.as;
    for (let n = 2; taken.has(as) || taken.has(plural(as)); n++) as = `${repeated.as}${n}`;
    const made: ListMade = {
      key: plural(as),
      as,
      label: plural(as).slice(0, 1).toUpperCase() + plural(as).slice(1),
      rule: repeated.rule,
      within: outer !== undefined && sets.size > 1 ? outer.key : null,
      by: new Map(),
    };
    this.lists.push(made);
    return made;
  }

  /** Families and conventions from the files that lie in a folder. */
  private rules(instances: readonly Instance[], holdsFolders: boolean, node: string): Partial<FolderNode> {
    const files = instances.flatMap(({ seen, entries }) => seen.files.map((name): FileSeen => ({ name, entries })));
    const root = node === 'root';
    if (root && files.length > 0)
      this.ask(
        'file-alone',
        node,
        '',
        files.map((f) => f.name),
      );
    if (root || files.length === 0) return {};
    const families = [
      ...new Set(
        files.flatMap(
          (f) =>
            this.registers.families.find((family) =>
              family.extensions.some((ext) => f.name.toLowerCase().endsWith(`.${ext}`)),
            )?.name ?? [],
        ),
      ),
    ].sort();
    const { conventions, misfits } = learnConventions(
      files.map((f) => f.name),
      this.registers,
      this.known.title ?? null,
    );
    const used = conventions
      .filter((c) => c.reads.length >= 3 && c.oneWay)
      .map((c) =>
        this.convention(
          c,
          c.reads.map((i) => elementAt(files, i)),
        ),
      );
    if (misfits.length > 0 && used.length > 0)
      this.ask(
        'names-unlike',
        node,
        instances[0]?.path ?? '',
        misfits.map((i) => files[i]?.name ?? ''),
      );
    return {
      ...(families.length > 0 && (used.length === 0 || holdsFolders) && { accepts: families }),
      ...(used.length > 0 && { conventions: [...new Set(used)] }),
    };
  }

  /**
   * A learned convention in which what the folder and the project settle goes by their names; one that is there already
   * is used again.
   */
  private convention(
    learned: ReturnType<typeof learnConventions>['conventions'][number],
    files: readonly FileSeen[],
  ): string {
    let { pattern } = learned;
    let fields = [...learned.fields];
    const parsed = parsePattern(pattern);
    const compiled = parsed.ok
      ? compileConvention(parsed.value, { fields, registers: this.registers, families: learned.families })
      : null;
    if (compiled?.ok) {
      const readings = files.map((f) => ({ reading: readName(compiled.value, f.name), entries: f.entries }));
      const title = this.known.title === undefined ? null : shapeText(this.known.title, 'kebab');
      for (const { field } of compiled.value.slots) {
        // A file in the wrong folder is a slip: nearly all is enough.
        const nearly = (test: (r: (typeof readings)[number]) => boolean) =>
          readings.filter(test).length >= NEARLY * readings.length;
        const as = Object.keys(files[0]?.entries ?? {}).find((key) =>
          nearly(({ reading, entries }) => reading?.[field] === undefined || String(reading[field]) === entries[key]),
        );
        const own =
          title?.ok && nearly(({ reading }) => reading?.[field] === undefined || reading[field] === title.text)
            ? 'title'
            : as;
        if (own === undefined || (own !== field && pattern.includes(`{${own}`))) continue;
        pattern = pattern.replace(new RegExp(`\\{${field}(?=[.:}])`, 'g'), `{${own}`);
        fields = fields.filter((f) => f.key !== field);
      }
    }
    const known = this.conventions.find(
      (c) =>
        c.pattern === pattern &&
        JSON.stringify(c.fields) === JSON.stringify(fields) &&
        JSON.stringify(c.families) === JSON.stringify(learned.families),
    );
    if (known) return known.id;
    const words = learned.families?.[0] ?? 'file';
    const id = freshId(words, this.ids);
    this.conventions.push({
      id,
      name: words.slice(0, 1).toUpperCase() + words.slice(1),
      pattern,
      fields,
      ...(learned.families !== undefined && { families: learned.families }),
      good: files.slice(0, 3).map((f) => f.name),
    });
    return id;
  }
}
