/**
 * A template made ready once: blocks written out, numbers in front settled, inherited rules counted in, and all that is
 * wrong with the
 * template itself said at its node, whatever the values. Blocks inside themselves are cut where they would begin again.
 */

import { LIMITS } from '../limits';
import type { Field, Registers } from '../name/pattern/field';
import type { Params } from '../result';
import type { Diagnostic, DiagnosticCode } from './diagnose';
import type { Block, FolderNode, OnlyWhen, Template } from './node';
import { blocksOf, numberPrefix, siblingsOf } from './visit';

/** The rules that hold in a folder once those it inherits are counted in. Shared by all lines of one node. */
export interface FolderRules {
  readonly accepts: readonly string[] | null;
  readonly conventions: readonly string[] | null;
  readonly free: boolean;
  readonly stable: boolean;
  /** Own folders are planned below it. */
  readonly holdsFolders: boolean;
}

export interface ResolvedFolder {
  readonly node: FolderNode;
  /** Unique in the template; a folder of a block carries its host's id in front. */
  readonly id: string;
  /** What stands before the ids of everything in it that came with a block. */
  readonly ids: string;
  /** `05_`, or empty. */
  readonly numberPrefix: string;
  readonly conditions: readonly OnlyWhen[];
  readonly rules: FolderRules;
  readonly folders: readonly ResolvedFolder[];
}

export interface ResolvedTemplate {
  readonly root: ResolvedFolder;
  readonly diagnostics: readonly Diagnostic[];
}

const NO_RULES: FolderRules = { accepts: null, conventions: null, free: false, stable: false, holdsFolders: false };

/** What a folder holds of a block: its own folders beside those may use the block once more. */
interface Part {
  readonly folders: ReadonlySet<FolderNode>;
  readonly blocks: readonly string[];
}

interface Above {
  readonly rules: FolderRules;
  readonly depth: number;
  readonly ids: string;
  /** Blocks being written out. */
  readonly blocks: readonly string[];
}

/** What a folder was resolved to, and what of its surroundings that rests on. */
interface Remembered {
  readonly dependencies: Dependencies;
  readonly above: Above;
  readonly prefix: string;
  readonly folder: ResolvedFolder;
  readonly diagnostics: readonly Diagnostic[];
  readonly nodes: number;
}

/** The parts of a template that all its folders are resolved by. */
interface Dependencies {
  readonly conventions: Template['conventions'];
  readonly fields: Template['fields'];
  readonly blocks: Template['blocks'];
  readonly families: Registers['families'];
}

/**
 * A template is resolved at every letter, and all but a few of its folders are the very same as before: they need no
 * second look.
 */
const remembered = new WeakMap<FolderNode, Remembered>();

const sameDependencies = (a: Dependencies, b: Dependencies): boolean =>
  a.conventions === b.conventions && a.fields === b.fields && a.blocks === b.blocks && a.families === b.families;
const sameAbove = (a: Above, b: Above): boolean =>
  a.depth === b.depth &&
  a.ids === b.ids &&
  a.rules.accepts === b.rules.accepts &&
  a.rules.conventions === b.rules.conventions &&
  a.rules.free === b.rules.free &&
  a.rules.stable === b.rules.stable;

export function resolveTemplate(template: Template, registers: Registers): ResolvedTemplate {
  return new Resolver(template, registers).run();
}

/**
 * 1. Each folder is looked at for what it names and nobody knows.
 * 2. What it does not say itself it takes from above.
 * 3. A block's folders are written out in its place, with ids of their own.
 * 4. A folder that is the very same as the last time, in the same surroundings, is taken as it was resolved then.
 */
class Resolver {
  private readonly dependencies: Dependencies;
  private readonly blocks: ReturnType<typeof blocksOf>;
  private readonly conventions: ReadonlySet<string>;
  private readonly families: ReadonlySet<string>;
  private readonly fields: ReadonlyMap<string, Field>;
  private readonly diagnostics: Diagnostic[] = [];
  private nodes = 0;

  constructor(
    private readonly template: Template,
    registers: Registers,
  ) {
    this.dependencies = {
      conventions: template.conventions,
      fields: template.fields,
      blocks: template.blocks,
      families: registers.families,
    };
    this.blocks = blocksOf(template);
    this.conventions = new Set(template.conventions.map((c) => c.id));
    this.families = new Set(registers.families.map((f) => f.name));
    this.fields = new Map(template.fields.map((f) => [f.key, f]));
  }

  run(): ResolvedTemplate {
    const root = this.resolve(this.template.root, '', [], { rules: NO_RULES, depth: 0, ids: '', blocks: [] });
    return { root, diagnostics: this.diagnostics };
  }

  private fault(code: DiagnosticCode, node: string, params: Params): void {
    this.diagnostics.push({ code, weight: 'refused', node, line: null, field: null, params });
  }

  /** What a choice never is would leave a folder out for ever. */
  private checkCondition({ field, is }: OnlyWhen, id: string): void {
    const asked = this.fields.get(field);
    if (asked?.type !== 'choice') return;
    const codes = new Set((asked.options ?? []).map((option) => option.code));
    for (const option of typeof is === 'string' ? [is] : is)
      if (!codes.has(option)) this.fault('option-unknown', id, { field, option });
  }

  private checkNode(node: FolderNode, id: string): void {
    for (const name of node.conventions ?? [])
      if (!this.conventions.has(name)) this.fault('convention-unknown', id, { convention: name });
    for (const name of node.accepts ?? [])
      if (!this.families.has(name)) this.fault('family-unknown', id, { family: name });
    if (node.name === undefined || node.name === '') this.fault('name-absent', id, {});
    if (node.onePer !== undefined && this.fields.get(node.onePer.list)?.type !== 'list')
      this.fault('list-unknown', id, { list: node.onePer.list });
    for (const condition of [node.onlyWhen, ...(node.starters ?? []).map((s) => s.onlyWhen)])
      if (condition !== undefined && !this.fields.has(condition.field))
        this.fault('field-unknown', id, { field: condition.field });
      else if (condition !== undefined) this.checkCondition(condition, id);
    this.checkDeliveries(node, id);
    this.checkNumbers(node);
  }

  private checkDeliveries({ deliveries = [] }: FolderNode, id: string): void {
    for (const { convention, family, onePer, due } of deliveries) {
      if (convention !== undefined && !this.conventions.has(convention))
        this.fault('convention-unknown', id, { convention });
      if (family !== undefined && !this.families.has(family)) this.fault('family-unknown', id, { family });
      if (onePer !== undefined && this.fields.get(onePer.list)?.type !== 'list')
        this.fault('list-unknown', id, { list: onePer.list });
      if (due !== undefined && this.fields.get(due.field)?.type !== 'date')
        this.fault('field-unknown', id, { field: due.field });
    }
  }

  private checkNumbers({ numbering, folders }: FolderNode): void {
    if (numbering === undefined) return;
    const seen = new Set((numbering.reserved ?? []).map((r) => r.number));
    for (const { id, number } of folders ?? []) {
      if (number === undefined) continue;
      if (seen.has(number)) this.fault('number-twice', id, { number });
      seen.add(number);
    }
  }

  private resolve(node: FolderNode, prefix: string, conditions: readonly OnlyWhen[], above: Above): ResolvedFolder {
    // What comes with a block is made anew each time; what stands in the template itself can be known.
    if (conditions.length > 0 || above.blocks.length > 0) return this.resolveAnew(node, prefix, conditions, above);
    const known = remembered.get(node);
    if (known !== undefined && this.isStill(known, prefix, above)) {
      this.diagnostics.push(...known.diagnostics);
      this.nodes += known.nodes;
      return known.folder;
    }
    const [before, said] = [this.nodes, this.diagnostics.length];
    const folder = this.resolveAnew(node, prefix, conditions, above);
    remembered.set(node, {
      dependencies: this.dependencies,
      above,
      prefix,
      folder,
      diagnostics: this.diagnostics.slice(said),
      nodes: this.nodes - before,
    });
    return folder;
  }

  private isStill(known: Remembered, prefix: string, above: Above): boolean {
    return (
      known.prefix === prefix &&
      sameDependencies(known.dependencies, this.dependencies) &&
      sameAbove(known.above, above) &&
      this.nodes + known.nodes <= LIMITS.templateNodes
    );
  }

  private resolveAnew(node: FolderNode, prefix: string, conditions: readonly OnlyWhen[], above: Above): ResolvedFolder {
    const id = above.ids + node.id;
    this.nodes++;
    this.checkNode(node, id);
    const { block } = node;
    const own = block === undefined ? undefined : this.enter(block, id, above);
    const inner: FolderNode =
      own === undefined ? node : { ...node, folders: [...own.folders, ...(node.folders ?? [])] };
    const rules: FolderRules = {
      accepts: node.accepts ?? above.rules.accepts,
      conventions: node.conventions ?? above.rules.conventions,
      free: node.free ?? above.rules.free,
      stable: node.stable ?? above.rules.stable,
      holdsFolders: (inner.folders?.length ?? 0) > 0,
    };
    const isBlock = own !== undefined && block !== undefined;
    const below: Above = {
      rules,
      depth: above.depth + 1,
      ids: isBlock ? `${id}/` : above.ids,
      blocks: isBlock ? [...above.blocks, block] : above.blocks,
    };
    return {
      node,
      id,
      ids: above.ids,
      numberPrefix: prefix,
      conditions: [...conditions, ...(node.onlyWhen ? [node.onlyWhen] : [])],
      rules,
      folders: this.children(
        inner,
        id,
        below,
        isBlock ? { folders: new Set(own.folders), blocks: above.blocks } : null,
      ),
    };
  }

  /** A block that may be written out here. */
  private enter(block: string, id: string, above: Above): Block | undefined {
    if (!this.blocks.has(block)) this.fault('block-unknown', id, { block });
    else if (above.blocks.includes(block)) this.fault('block-in-itself', id, { block });
    else return this.blocks.get(block);
    return undefined;
  }

  private children(node: FolderNode, id: string, inside: Above, part: Part | null): ResolvedFolder[] {
    if (this.isTooMuch(node, id, inside)) return [];
    const above = (child: FolderNode): Above =>
      part === null || part.folders.has(child) ? inside : { ...inside, blocks: part.blocks };
    for (const child of node.folders ?? [])
      if (child.block !== undefined && child.name === undefined)
        this.enter(child.block, inside.ids + child.id, above(child));
    return siblingsOf(node, this.blocks).flatMap((sibling) => {
      const { number, through: host } = sibling;
      const prefix = number !== null && node.numbering !== undefined ? numberPrefix(node.numbering, number) : '';
      if (host === null) return [this.resolve(sibling.node, prefix, [], above(sibling.node))];
      return this.spliced(sibling.node, host, prefix, above(host));
    });
  }

  /** A folder of a block that stands among its host's own. */
  private spliced(node: FolderNode, host: FolderNode, prefix: string, above: Above): ResolvedFolder[] {
    if (host.block === undefined || above.blocks.includes(host.block)) return [];
    const marked: FolderNode = { ...node, mark: node.mark ?? host.mark, presence: node.presence ?? host.presence };
    return [
      this.resolve(marked, prefix, host.onlyWhen ? [host.onlyWhen] : [], {
        ...above,
        ids: `${above.ids}${host.id}/`,
        blocks: [...above.blocks, host.block],
      }),
    ];
  }

  private isTooMuch(node: FolderNode, id: string, above: Above): boolean {
    const isTooDeep = above.depth > LIMITS.templateDepth;
    if (!isTooDeep && this.nodes <= LIMITS.templateNodes) return false;
    if (node.folders?.length)
      this.fault(isTooDeep ? 'too-deep' : 'too-many-lines', id, {
        limit: isTooDeep ? LIMITS.templateDepth : LIMITS.templateNodes,
      });
    return true;
  }
}
