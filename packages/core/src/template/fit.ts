/**
 * A folder that grew without a template, against a template: how well it fits, which values its names carry, what it
 * has otherwise and what it lacks.
 * Folders are matched level by level, from the root down: first those with the very name, then by meaning (without
 * case, separators, numbers in front),
 * then those that read as an entry of a list. What is called otherwise keeps its name, as this project's own.
 * Time: proportional to the folders times the siblings of a template's folder.
 */

import { present, valueAt } from '../element';
import { compileConvention } from '../name/pattern/compile';
import type { Field, ListField, Registers, Value, Values } from '../name/pattern/field';
import type { CompiledConvention } from '../name/pattern/ops';
import { parsePattern } from '../name/pattern/parse';
import { readName } from '../name/read/read';
import { ownValue } from '../own-value';
import { meaningOf } from '../portable/meaning';
import { fieldsWithin, registersOf } from './compile-names';
import { expandTemplate } from './expand';
import type { Adjustments, Template } from './node';
import { type ResolvedFolder, resolveTemplate } from './resolve';

/** Folders by name, level by level. */
export interface FolderTree {
  readonly folders: ReadonlyMap<string, FolderTree>;
}

export interface Fit {
  /** Between 0 and 1: how much of both is in both. */
  readonly score: number;
  readonly values: Values;
  readonly adjusted: Adjustments;
  /** Planned folders that are there, under whatever name. */
  readonly matched: number;
  /** Those of them that have another name than the template writes. */
  readonly otherwise: readonly { readonly path: string; readonly planned: string }[];
  readonly missing: readonly string[];
  /** Topmost folders that no rule knows. */
  readonly unplanned: readonly string[];
}

export function folderTree(paths: Iterable<string>): FolderTree {
  interface Growing {
    readonly folders: Map<string, Growing>;
  }
  const root: Growing = { folders: new Map() };
  for (const path of paths) {
    let at = root;
    for (const part of path.split('/')) {
      const next: Growing = at.folders.get(part) ?? { folders: new Map() };
      at.folders.set(part, next);
      at = next;
    }
  }
  return root;
}

/** `given` are values one knows; they stand over what names say. */
export function fitTemplate(
  template: Template,
  studio: Registers,
  rootName: string,
  tree: FolderTree,
  given: Values = {},
): Fit {
  const fitting = new Fitting(template, registersOf(template, studio), {
    ...fromName(template, studio, rootName),
    ...given,
  });
  return fitting.run(tree);
}

/** What the root's own name says by the template's pattern. */
function fromName(template: Template, studio: Registers, rootName: string): Values {
  const pattern = parsePattern(template.root.name ?? '');
  const compiled = pattern.ok
    ? compileConvention(pattern.value, { fields: template.fields, registers: registersOf(template, studio) })
    : null;
  return compiled?.ok ? (readName(compiled.value, rootName) ?? {}) : {};
}

interface Frame {
  readonly chain: string;
  readonly fields: readonly Field[];
  readonly within: Readonly<Record<string, string>>;
  readonly path: string;
}

class Fitting {
  /** By the line's key: the name on the disk. */
  private readonly names = new Map<string, string>();
  private readonly entries = new Map<string, Map<string, Set<string>>>();
  private readonly evidence = new Map<string, Map<string, number>>();
  private readonly unplanned: string[] = [];
  private readonly lists: ReadonlyMap<string, ListField>;
  private readonly compiled = new Map<string, CompiledConvention | null>();

  constructor(
    private readonly template: Template,
    private readonly registers: Registers,
    private readonly values: Values,
  ) {
    this.lists = new Map(template.fields.flatMap((f) => (f.type === 'list' ? [[f.key, f] as const] : [])));
  }

  run(tree: FolderTree): Fit {
    const { root } = resolveTemplate(this.template, this.registers);
    this.level(root, tree, { chain: '', fields: this.template.fields, within: {}, path: '' });
    const values = this.found();
    const plain = expandTemplate(this.template, values, this.registers);
    const adjusted: Record<string, { name: string }> = {};
    const otherwise: { path: string; planned: string }[] = [];
    for (const line of plain.lines) {
      const name = line.parent === null || line.kind !== 'folder' ? undefined : this.names.get(line.key);
      if (name === undefined || name === line.name) continue;
      adjusted[line.key] = { name };
      otherwise.push({ path: name, planned: line.name });
    }
    const lines = expandTemplate({ ...this.template, adjusted }, values, this.registers).lines.filter(
      (l) => l.kind === 'folder' && l.parent !== null && l.elsewhere === undefined,
    );
    const matched = lines.filter((l) => this.names.has(l.key)).length;
    const missing = lines.filter((l) => l.made && !this.names.has(l.key)).map((l) => l.path);
    // What merely differs in its name counts for a little less than what is the very same.
    const likeness = matched - otherwise.length * 0.1;
    const all = matched + missing.length + this.unplanned.length;
    return {
      score: all === 0 ? 0 : Math.max(0, likeness) / all,
      values,
      adjusted,
      matched,
      otherwise,
      missing,
      unplanned: this.unplanned,
    };
  }

  private level(folder: ResolvedFolder, tree: FolderTree, frame: Frame): void {
    const free = new Map(tree.folders);
    const plain = folder.folders.filter((f) => f.node.onePer === undefined);
    const lists = folder.folders.filter((f) => f.node.onePer !== undefined);
    const open = [...plain];
    for (const same of [
      (name: string, f: ResolvedFolder) => name === this.nameOf(f),
      (name: string, f: ResolvedFolder) => meaningOf(name) === meaningOf(this.nameOf(f)) && meaningOf(name) !== '',
    ]) {
      for (const child of [...open]) {
        const name = [...free.keys()].find((n) => same(n, child));
        if (name === undefined) continue;
        open.splice(open.indexOf(child), 1);
        this.take(child, name, free, frame);
      }
    }
    for (const child of lists) {
      for (const name of [...free.keys()]) {
        const entry = this.entryOf(child, name, frame);
        if (entry !== null) this.takeEntry(child, name, entry, free, frame);
      }
    }
    if (folder.rules.free) return;
    for (const name of free.keys()) if (name !== folder.node.older?.folder) this.unplanned.push(`${frame.path}${name}`);
  }

  /** Plain folders' names carry hardly a value: what the root says is enough. */
  private nameOf(folder: ResolvedFolder): string {
    const name = folder.node.name ?? '';
    return `${folder.numberPrefix}${name.replace(/\{([A-Za-z0-9_-]+)[^}]*\}/g, (slot, field: string) => (typeof this.values[field] === 'string' ? this.values[field] : slot))}`;
  }

  private take(child: ResolvedFolder, name: string, free: Map<string, FolderTree>, frame: Frame): void {
    const inside = valueAt(free, name);
    free.delete(name);
    this.names.set(child.id + frame.chain, name);
    for (const { field, is } of child.conditions) this.vote(field, [is].flat()[0] ?? '');
    this.level(child, inside, { ...frame, path: `${frame.path}${name}/` });
  }

  private takeEntry(
    child: ResolvedFolder,
    name: string,
    entry: string,
    free: Map<string, FolderTree>,
    frame: Frame,
  ): void {
    const inside = valueAt(free, name);
    const { list, as } = present(child.node.onePer);
    const field = valueAt(this.lists, list);
    free.delete(name);
    const outer = field.within === undefined ? '' : (frame.within[field.within] ?? '');
    const by = this.entries.get(list) ?? new Map<string, Set<string>>();
    this.entries.set(list, by);
    by.set(outer, (by.get(outer) ?? new Set()).add(entry));
    const chain = `${frame.chain}${frame.chain === '' ? '@' : '&'}${as}=${entry}`;
    this.names.set(child.id + chain, name);
    for (const { field: asked, is } of child.conditions) this.vote(asked, [is].flat()[0] ?? '');
    this.level(child, inside, {
      chain,
      fields: fieldsWithin(frame.fields, as, field),
      within: { ...frame.within, [list]: entry },
      path: `${frame.path}${name}/`,
    });
  }

  private entryOf(child: ResolvedFolder, name: string, frame: Frame): string | null {
    const { list, as } = present(child.node.onePer);
    const field = this.lists.get(list);
    if (field === undefined) return null;
    const key = `${child.numberPrefix}${child.node.name ?? ''}|${list}|${as}`;
    let compiled = this.compiled.get(key);
    if (compiled === undefined) {
      const pattern = parsePattern(child.node.name ?? '');
      const made = pattern.ok
        ? compileConvention(pattern.value, { fields: fieldsWithin(frame.fields, as, field), registers: this.registers })
        : null;
      compiled = made?.ok ? made.value : null;
      this.compiled.set(key, compiled);
    }
    const rest = name.startsWith(child.numberPrefix) ? name.slice(child.numberPrefix.length) : name;
    const reading = compiled === null ? null : readName(compiled, rest);
    const entry = reading === null ? undefined : ownValue(reading, as);
    return entry === undefined ? null : String(entry);
  }

  private vote(field: string, option: string): void {
    const votes = this.evidence.get(field) ?? new Map<string, number>();
    this.evidence.set(field, votes);
    votes.set(option, (votes.get(option) ?? 0) + 1);
  }

  private found(): Values {
    const out: Record<string, Value> = { ...this.values };
    for (const [list, by] of this.entries) {
      const field = this.lists.get(list);
      const sorted = (entries: ReadonlySet<string>) =>
        [...entries].sort((a, b) => a.localeCompare(b, 'en', { numeric: true }));
      const all = [...by.values()].map(sorted);
      const alike = all.every((entries) => JSON.stringify(entries) === JSON.stringify(all[0]));
      out[list] =
        field?.within === undefined || alike
          ? (all[0] ?? [])
          : Object.fromEntries([...by].map(([outer, entries]) => [outer, sorted(entries)]));
    }
    for (const [field, votes] of this.evidence)
      if (out[field] === undefined) out[field] = [...votes].sort((a, b) => b[1] - a[1])[0]?.[0] ?? '';
    return out;
  }
}
