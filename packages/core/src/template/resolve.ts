/**
 * A template made ready once: blocks written out, numbers in front settled, inherited rules counted in, and all that is
 * wrong with the
 * template itself said at its node, whatever the values. Blocks inside themselves are cut where they would begin again.
 */

import { LIMITS } from '../limits';
import type { Registers } from '../name/pattern/field';
import type { Params } from '../result';
import type { Diagnostic, DiagnosticCode } from './diagnose';
import type { FolderNode, OnlyWhen, Template } from './node';
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
  const dependencies: Dependencies = {
    conventions: template.conventions,
    fields: template.fields,
    blocks: template.blocks,
    families: registers.families,
  };
  const blocks = blocksOf(template);
  const diagnostics: Diagnostic[] = [];
  let nodes = 0;
  const fault = (code: DiagnosticCode, node: string, params: Params) =>
    diagnostics.push({ code, weight: 'refused', node, line: null, field: null, params });
  const conventions = new Set(template.conventions.map((c) => c.id));
  const families = new Set(registers.families.map((f) => f.name));
  const fields = new Map(template.fields.map((f) => [f.key, f]));

  const checkNode = (node: FolderNode, id: string): void => {
    for (const name of node.conventions ?? [])
      if (!conventions.has(name)) fault('convention-unknown', id, { convention: name });
    for (const name of node.accepts ?? []) if (!families.has(name)) fault('family-unknown', id, { family: name });
    if (node.name === undefined || node.name === '') fault('name-absent', id, {});
    if (node.onePer !== undefined && fields.get(node.onePer.list)?.type !== 'list')
      fault('list-unknown', id, { list: node.onePer.list });
    for (const condition of [node.onlyWhen, ...(node.starters ?? []).map((s) => s.onlyWhen)]) {
      if (condition !== undefined && !fields.has(condition.field))
        fault('field-unknown', id, { field: condition.field });
    }
    const seen = new Set((node.numbering?.reserved ?? []).map((r) => r.number));
    for (const child of node.numbering === undefined ? [] : (node.folders ?? [])) {
      if (child.number !== undefined && seen.has(child.number))
        fault('number-twice', child.id, { number: child.number });
      if (child.number !== undefined) seen.add(child.number);
    }
  };

  const resolve = (node: FolderNode, prefix: string, conditions: readonly OnlyWhen[], above: Above): ResolvedFolder => {
    // What comes with a block is made anew each time; what stands in the template itself can be known.
    if (conditions.length > 0 || above.blocks.length > 0) return resolved(node, prefix, conditions, above);
    const known = remembered.get(node);
    if (
      known !== undefined &&
      known.prefix === prefix &&
      sameDependencies(known.dependencies, dependencies) &&
      sameAbove(known.above, above) &&
      nodes + known.nodes <= LIMITS.templateNodes
    ) {
      diagnostics.push(...known.diagnostics);
      nodes += known.nodes;
      return known.folder;
    }
    const [before, said] = [nodes, diagnostics.length];
    const folder = resolved(node, prefix, conditions, above);
    remembered.set(node, {
      dependencies,
      above,
      prefix,
      folder,
      diagnostics: diagnostics.slice(said),
      nodes: nodes - before,
    });
    return folder;
  };

  const resolved = (
    node: FolderNode,
    prefix: string,
    conditions: readonly OnlyWhen[],
    above: Above,
  ): ResolvedFolder => {
    const id = above.ids + node.id;
    nodes++;
    checkNode(node, id);
    const own = node.block === undefined ? undefined : enter(node.block, id, above);
    const inner: FolderNode =
      own === undefined ? node : { ...node, folders: [...own.folders, ...(node.folders ?? [])] };
    const rules: FolderRules = {
      accepts: node.accepts ?? above.rules.accepts,
      conventions: node.conventions ?? above.rules.conventions,
      free: node.free ?? above.rules.free,
      stable: node.stable ?? above.rules.stable,
      holdsFolders: (inner.folders?.length ?? 0) > 0,
    };
    const below: Above = {
      rules,
      depth: above.depth + 1,
      ids: own === undefined ? above.ids : `${id}/`,
      blocks: own === undefined ? above.blocks : [...above.blocks, node.block as string],
    };
    return {
      node,
      id,
      ids: above.ids,
      numberPrefix: prefix,
      conditions: [...conditions, ...(node.onlyWhen ? [node.onlyWhen] : [])],
      rules,
      folders: children(inner, id, below),
    };
  };

  const enter = (block: string, id: string, above: Above) => {
    if (!blocks.has(block)) fault('block-unknown', id, { block });
    else if (above.blocks.includes(block)) fault('block-in-itself', id, { block });
    else return blocks.get(block);
    return undefined;
  };

  const children = (node: FolderNode, id: string, above: Above): ResolvedFolder[] => {
    if (above.depth > LIMITS.templateDepth || nodes > LIMITS.templateNodes) {
      if (node.folders?.length)
        fault(above.depth > LIMITS.templateDepth ? 'too-deep' : 'too-many-lines', id, {
          limit: above.depth > LIMITS.templateDepth ? LIMITS.templateDepth : LIMITS.templateNodes,
        });
      return [];
    }
    for (const child of node.folders ?? [])
      if (child.block !== undefined && child.name === undefined) enter(child.block, above.ids + child.id, above);
    return siblingsOf(node, blocks).flatMap((s) => {
      const prefix = s.number !== null && node.numbering !== undefined ? numberPrefix(node.numbering, s.number) : '';
      if (s.through === null) return [resolve(s.node, prefix, [], above)];
      const host = s.through;
      if (above.blocks.includes(host.block as string)) return [];
      const spliced: FolderNode = {
        ...s.node,
        mark: s.node.mark ?? host.mark,
        presence: s.node.presence ?? host.presence,
      };
      return [
        resolve(spliced, prefix, host.onlyWhen ? [host.onlyWhen] : [], {
          ...above,
          ids: `${above.ids}${host.id}/`,
          blocks: [...above.blocks, host.block as string],
        }),
      ];
    });
  };

  const root = resolve(template.root, '', [], { rules: NO_RULES, depth: 0, ids: '', blocks: [] });
  return { root, diagnostics };
}
