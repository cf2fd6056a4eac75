/**
 * Template + values → the plan of folders and starter files. Pure and total: whatever cannot be written becomes a
 * diagnostic at its
 * node, and what hangs below it is left out. A template is compiled once and expanded at every keystroke.
 */

import { LIMITS } from '../limits';
import { extensionOf } from '../listing/extension';
import type { Registers, Values } from '../name/pattern/field';
import type { CompiledName } from '../name/pattern/ops';
import { textOf, type WrittenPiece, writePieces } from '../name/write';
import { ownValue } from '../own-value';
import { clashKey, nameFaults } from '../portable/name';
import { DEFAULT_PATH_BUDGET, DEFAULT_PROFILES, type ProfileName } from '../portable/profiles';
import type { Params } from '../result';
import { type Compile, compilerFor, fieldsWithin, registersOf, scopeWithin } from './compile-names';
import { conventionFaults } from './convention-faults';
import type { Diagnostic, DiagnosticCode } from './diagnose';
import { awayOf, type Frame, keptValues, type Placed, remembered, sameFrame } from './expand-memory';
import type { Expander, ExpandOptions, Expansion, PlannedLine } from './expansion';
import type { Adjustments, FolderNode, Template } from './node';
import { type ResolvedFolder, type ResolvedTemplate, resolveTemplate } from './resolve';
import type { KeptValues } from './values';

export function expandTemplate(
  template: Template,
  values: Values,
  registers: Registers,
  options?: ExpandOptions,
): Expansion {
  return compileTemplate(template, registers).expand(values, options);
}

export function compileTemplate(template: Template, studio: Registers): Expander {
  const registers = registersOf(template, studio);
  const compile = compilerFor(template.fields, registers);
  const { root, diagnostics } = resolveTemplate(template, registers);
  const resolved = { root, diagnostics: [...diagnostics, ...conventionFaults(template, root, registers)] };
  return {
    template,
    registers,
    expand: (values, options) => new Expanding(template, resolved, registers, compile, values, options).run(),
  };
}

/** Beyond this many nobody reads on. */
const MOST_DIAGNOSTICS = 500;

class Expanding {
  private readonly lines: PlannedLine[] = [];
  private readonly diagnostics: Diagnostic[];
  private readonly kept: KeptValues;
  private readonly profiles: readonly ProfileName[];
  private readonly budget: number;
  private readonly prefix: number;
  private readonly remember: boolean;
  private readonly adjusted: Adjustments | undefined;
  private readonly said = new Set<string>();
  /**
   * Counts all that is said, and all that is not said again: what is remembered is what nothing was to be said about.
   */
  private remarks = 0;
  private longest = 0;
  private rootLength = 0;
  private full = false;

  constructor(
    private readonly template: Template,
    private readonly resolved: ResolvedTemplate,
    private readonly registers: Registers,
    private readonly compile: Compile,
    values: Values,
    options: ExpandOptions | undefined,
  ) {
    this.kept = keptValues(template.fields, values, registers);
    this.adjusted = template.adjusted;
    // What is otherwise for one line is known by that line alone.
    this.remember = (options?.remember ?? false) && this.adjusted === undefined;
    this.profiles = template.checks?.profiles ?? DEFAULT_PROFILES;
    this.budget = template.checks?.pathBudget ?? DEFAULT_PATH_BUDGET;
    this.prefix = options?.prefix?.length ?? 0;
    this.diagnostics = [...resolved.diagnostics];
    for (const f of this.kept.faults)
      this.push({ code: f.code, weight: f.weight, node: null, line: null, field: f.field, params: f.params });
  }

  run(): Expansion {
    const { node, id, rules } = this.resolved.root;
    const frame: Frame = {
      key: id,
      path: '',
      depth: 0,
      made: true,
      elsewhere: null,
      mark: node.mark ?? null,
      entries: {},
      chain: '',
      values: this.kept.values,
      fields: this.template.fields,
      scope: '',
      within: {},
    };
    const pieces = this.written(node.name ?? '', id, id, frame, '') ?? [];
    const rootName = textOf(pieces);
    this.rootLength = rootName.length;
    this.add({
      key: id,
      node: id,
      parent: null,
      kind: 'folder',
      name: rootName,
      pieces,
      path: '',
      depth: 0,
      presence: 'always',
      made: true,
      mark: frame.mark,
      entries: {},
      rules,
      folder: node,
      starter: null,
    });
    this.inside(this.resolved.root, frame);
    return {
      rootName,
      lines: this.lines,
      diagnostics: this.diagnostics,
      folders: this.lines.filter((l) => l.kind === 'folder' && l.made).length,
      files: this.lines.filter((l) => l.kind === 'file' && l.made).length,
      longest: this.longest,
      budget: this.budget,
      values: this.kept,
      registers: this.registers,
    };
  }

  /** Everything in a folder: folders as they stand in the template, then starter files. */
  private inside(folder: ResolvedFolder, frame: Frame): void {
    // Most folders of a plan are leaves.
    if (folder.folders.length === 0 && folder.node.starters === undefined) return;
    const siblings = new Map<string, PlannedLine>();
    for (const child of folder.folders) this.folder(child, frame, siblings);
    for (const starter of folder.node.starters ?? []) {
      if (!this.holds(starter.onlyWhen)) continue;
      const line = this.place(
        starter.name,
        '',
        folder.ids + starter.id,
        frame,
        { kind: 'file', presence: 'always', mark: frame.mark, rules: folder.rules, folder: null, starter },
        siblings,
      );
      if (line !== null && starter.files !== undefined && !this.isFolderDocument(line.name))
        this.fault('starter-no-document', line.node, line.key, { name: line.name });
    }
  }

  /** A family says that folders of its extensions are one document each. */
  private isFolderDocument(name: string): boolean {
    const folders = new Set(
      this.registers.families.flatMap(({ document, extensions }) => (document?.folder === true ? extensions : [])),
    );
    return folders.has(extensionOf(name, folders));
  }

  private folder(folder: ResolvedFolder, frame: Frame, siblings: Map<string, PlannedLine>): void {
    if (this.full || !folder.conditions.every((c) => this.holds(c))) return;
    // Inside an entry of a list values are made anew each time; a whole list, entries and all, can be known from above
    // it.
    if (!this.remember || frame.chain !== '') this.inFrames(folder, frame, siblings);
    else if (!this.recalled(folder, frame, siblings)) this.memorise(folder, frame, siblings);
  }

  /** Puts in what is known of a folder; `false` where nothing is that still holds. */
  private recalled(folder: ResolvedFolder, frame: Frame, siblings: Map<string, PlannedLine>): boolean {
    const known = remembered.get(folder);
    if (
      known === undefined ||
      known.kept !== this.kept ||
      known.registers !== this.registers ||
      known.checks !== this.template.checks ||
      known.before !== this.prefix + this.rootLength ||
      !sameFrame(known.frame, frame)
    )
      return false;
    const own = known.lines.filter((l) => l.depth === frame.depth + 1);
    if (this.lines.length + known.lines.length > LIMITS.plannedLines || own.some((l) => siblings.has(clashKey(l.name))))
      return false;
    for (const line of own) siblings.set(clashKey(line.name), line);
    for (const line of known.lines) this.lines.push(line);
    this.longest = Math.max(this.longest, known.longest);
    return true;
  }

  private memorise(folder: ResolvedFolder, frame: Frame, siblings: Map<string, PlannedLine>): void {
    const [from, remarks, longest] = [this.lines.length, this.remarks, this.longest];
    this.longest = 0;
    this.inFrames(folder, frame, siblings);
    if (remarks === this.remarks)
      remembered.set(folder, {
        frame,
        kept: this.kept,
        registers: this.registers,
        checks: this.template.checks,
        before: this.prefix + this.rootLength,
        lines: this.lines.slice(from),
        longest: this.longest,
      });
    this.longest = Math.max(this.longest, longest);
  }

  private inFrames(folder: ResolvedFolder, frame: Frame, siblings: Map<string, PlannedLine>): void {
    const { node } = folder;
    for (const inner of this.frames(node, frame)) {
      const line = this.place(
        node.name ?? '',
        folder.numberPrefix,
        folder.id,
        inner,
        {
          kind: 'folder',
          presence: node.presence ?? 'always',
          mark: node.mark ?? frame.mark,
          rules: folder.rules,
          folder: node,
          starter: null,
        },
        siblings,
      );
      if (line === null) continue;
      this.inside(folder, {
        ...inner,
        key: line.key,
        path: line.path,
        depth: line.depth,
        made: line.made,
        elsewhere: line.elsewhere ?? null,
        mark: line.mark,
      });
    }
  }

  /** One frame, or one for each entry of the list it is made per. */
  private frames(node: FolderNode, frame: Frame): Frame[] {
    if (node.onePer === undefined) return [frame];
    const { list, as } = node.onePer;
    const field = this.template.fields.find((f) => f.key === list);
    if (field?.type !== 'list') return [];
    const chosen = this.entriesIn(list, field.within, frame);
    if (chosen.length === 0) this.noteEmpty(node.id, list, field.label ?? list);
    const fields = fieldsWithin(frame.fields, as, field);
    const scope = scopeWithin(frame.scope, list, as);
    return chosen.map((entry) => ({
      ...frame,
      entries: { ...frame.entries, [as]: entry },
      chain: `${frame.chain}${frame.chain === '' ? '@' : '&'}${as}=${entry}`,
      values: { ...frame.values, [as]: entry },
      fields,
      scope,
      within: { ...frame.within, [list]: entry },
    }));
  }

  /** A list within another has its own entries for each of its entries, or the same for all. */
  private entriesIn(list: string, within: string | undefined, frame: Frame): readonly string[] {
    const entries = this.kept.lists.get(list);
    if (entries === undefined) return [];
    const outer = within === undefined ? undefined : frame.within[within];
    return entries.by === null || outer === undefined ? entries.all : (entries.by.get(outer) ?? []);
  }

  private place(
    pattern: string,
    prefix: string,
    id: string,
    frame: Frame,
    what: Placed,
    siblings: Map<string, PlannedLine>,
  ): PlannedLine | null {
    const key = id + frame.chain;
    const own = this.adjusted === undefined || !Object.hasOwn(this.adjusted, key) ? undefined : this.adjusted[key];
    if (own?.leaveOut) return null;
    const pieces =
      own?.name === undefined ? this.written(pattern, id, key, frame, prefix) : this.renamed(own.name, id, key);
    if (pieces === null) return null;
    const name = textOf(pieces);
    const path = frame.path === '' ? name : `${frame.path}/${name}`;
    const { kind, presence, mark, rules, folder, starter } = what;
    const wanted = presence === 'always' || own?.make === true;
    const elsewhere = awayOf(frame, own?.volume, wanted);
    const line: PlannedLine = {
      key,
      node: id,
      parent: frame.key,
      kind,
      name,
      pieces,
      path,
      depth: frame.depth + 1,
      presence: own?.volume === undefined ? presence : 'optional',
      made: elsewhere === null && frame.made && wanted,
      ...(elsewhere && { elsewhere }),
      mark,
      entries: frame.entries,
      rules,
      folder,
      starter,
    };
    // Two names in one folder that some system cannot tell apart.
    const clash = clashKey(name);
    const alike = siblings.get(clash);
    if (alike !== undefined) this.fault('siblings-alike', id, key, { name, other: alike.name });
    else siblings.set(clash, line);
    return this.add(line) ? line : null;
  }

  /** A name somebody wrote for this project: judged like every other. */
  private renamed(name: string, node: string, line: string): readonly WrittenPiece[] | null {
    if (name === '') return null;
    this.judge(name, node, line);
    return [{ text: name, field: null }];
  }

  private add(line: PlannedLine): boolean {
    if (this.lines.length >= LIMITS.plannedLines) {
      if (!this.full) this.fault('too-many-lines', line.node, null, { limit: LIMITS.plannedLines });
      this.full = true;
      return false;
    }
    const length = this.prefix + this.rootLength + (line.path === '' ? 0 : 1 + line.path.length);
    if (length > this.longest) this.longest = length;
    if (length > this.budget)
      this.fault('path-over-budget', line.node, line.key, { found: length, limit: this.budget });
    this.lines.push(line);
    return true;
  }

  /** The pieces of a name, or `null` with the reasons said at the node. */
  private written(
    pattern: string,
    node: string,
    line: string,
    frame: Frame,
    prefix: string,
  ): readonly WrittenPiece[] | null {
    if (pattern === '') return null;
    const compiled = this.compile(pattern, frame.fields, frame.scope);
    if (compiled.name === null) {
      this.remarks++;
      // The same for every entry: said once.
      if (!this.said.has(node))
        for (const f of compiled.faults) this.fault(f.code, node, line, { ...f.params, at: f.at, length: f.length });
      this.said.add(node);
      return null;
    }
    // A name without slots is the same wherever it stands: judged once.
    const still = compiled.name.slots.length === 0;
    const known = still ? this.still.get(compiled.name)?.get(prefix) : undefined;
    if (known !== undefined) return known;
    const pieces = writePieces(compiled.name, frame.values);
    if (!pieces.ok) {
      for (const f of pieces.faults)
        this.push({ code: f.code, weight: 'refused', node, line, field: f.field, params: { ...f.params, at: f.at } });
      return null;
    }
    const all = prefix === '' ? pieces.value : [{ text: prefix, field: null }, ...pieces.value];
    if (this.judge(textOf(all), node, line) && still)
      this.still.set(compiled.name, new Map([...(this.still.get(compiled.name) ?? []), [prefix, all]]));
    return all;
  }

  /** Names without slots that were found good: the same few words stand in most folders. */
  private readonly still = new Map<CompiledName, ReadonlyMap<string, readonly WrittenPiece[]>>();

  private judge(name: string, node: string, line: string): boolean {
    const faults = nameFaults(name, this.profiles);
    for (const f of faults)
      this.push({ code: f.code, weight: f.weight, node, line, field: null, params: { ...f.params, name, at: f.at } });
    const words = this.registers.banned.length === 0 ? [] : name.toLowerCase().split(/[^a-z0-9]+/);
    const banned = this.registers.banned.find((word) => words.includes(word.toLowerCase()));
    if (banned !== undefined) this.fault('banned-word-in-name', node, line, { word: banned, name });
    return faults.length === 0 && banned === undefined;
  }

  private holds(condition: FolderNode['onlyWhen']): boolean {
    if (condition === undefined) return true;
    const wanted = typeof condition.is === 'string' ? [condition.is] : condition.is;
    const value = ownValue(this.kept.values, condition.field);
    const held = Array.isArray(value)
      ? value.map(String)
      : value === undefined || value === null
        ? []
        : [String(value)];
    return held.some((v) => wanted.includes(v));
  }

  private fault(code: DiagnosticCode, node: string, line: string | null, params: Params): void {
    this.push({ code, weight: 'refused', node, line, field: null, params });
  }

  private noteEmpty(node: string, field: string, list: string): void {
    this.remarks++;
    if (this.said.has(`empty ${field}`)) return;
    this.said.add(`empty ${field}`);
    this.push({ code: 'list-empty', weight: 'awkward', node, line: null, field, params: { list } });
  }

  private push(diagnostic: Diagnostic): void {
    this.remarks++;
    if (this.diagnostics.length < MOST_DIAGNOSTICS) this.diagnostics.push(diagnostic);
  }
}
