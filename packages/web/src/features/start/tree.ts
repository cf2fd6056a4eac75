/** A plan as tree nodes, with what stands against each line. */
import type { Diagnostic, Expansion, PlannedLine, resolveTemplate, Weight } from '@nesting/core/template';
import type { TreeNode } from '../../tray/flatten';
import { withReserved } from '../templates/tree';

export function treeOfPlan(
  expansion: Expansion,
  rootTaken: boolean,
  resolved: ReturnType<typeof resolveTemplate>,
  there: readonly string[] = [],
): TreeNode[] {
  const standing = new Set(there);
  const faults = new Map<string, Weight>();
  for (const d of expansion.diagnostics)
    if (d.line !== null && faults.get(d.line) !== 'must')
      faults.set(d.line, d.weight === 'refused' ? 'must' : 'should');
  if (rootTaken) faults.set(resolved.root.id, 'must');
  const nodes = expansion.lines.map((line): TreeNode => {
    const per = line.folder?.onePer;
    return {
      key: line.key,
      depth: line.depth,
      kind: line.kind,
      pieces: line.pieces.map((p) => ({ text: p.text, field: p.field })),
      mark: line.mark,
      state: standing.has(line.path) || (line.depth === 0 && standing.size > 0) ? 'there' : 'planned',
      note:
        line.depth === 0
          ? `${expansion.folders} folders, ${expansion.files} files`
          : line.made || line.elsewhere?.made
            ? (line.folder?.purpose ??
              (line.kind === 'file' ? (line.starter?.fill ? 'starter, filled in' : 'starter') : undefined))
            : 'not made now',
      badge: badgeOf(line),
      weight: faults.get(line.key),
      group: per === undefined ? undefined : `${line.parent} ${line.node}`,
      // Open what is few, and the first of many alike.
      open:
        line.depth < 1 ||
        (per !== undefined && isFirst(expansion, line)) ||
        (line.depth < 3 && expansion.lines.length < 60) ||
        leadsToLists(line, resolved),
    };
  });
  return withGaps(nodes, resolved);
}

function badgeOf(line: PlannedLine): string | undefined {
  if (line.elsewhere !== undefined) return `on ${line.elsewhere.volume}`;
  if (line.presence === 'optional') return 'optional';
  if (line.presence === 'on-demand') return 'when needed';
  return line.folder?.signpost ? `path for programs: ${line.folder.signpost}` : undefined;
}

function isFirst(expansion: Expansion, line: PlannedLine): boolean {
  return expansion.lines.find((l) => l.node === line.node && l.parent === line.parent) === line;
}

/** A folder that holds folders made per entry shows the first of them. */
function leadsToLists(line: PlannedLine, resolved: ReturnType<typeof resolveTemplate>): boolean {
  if (line.depth !== 1) return false;
  return (
    resolved.root.folders.find((f) => f.id === line.node)?.folders.some((f) => f.node.onePer !== undefined) ?? false
  );
}

/** Reserved numbers stand where their folders would, in the project's root. */
function withGaps(nodes: readonly TreeNode[], resolved: ReturnType<typeof resolveTemplate>): TreeNode[] {
  const out = [...nodes];
  const order = withReserved(resolved.root);
  order.forEach((item, i) => {
    if (!('reserved' in item)) return;
    const next = order
      .slice(i + 1)
      .find((x) => !('reserved' in x) && nodes.some((n) => n.key === x.id && n.depth === 1));
    const at = next === undefined || 'reserved' in next ? -1 : out.findIndex((n) => n.key === next.id);
    const gap: TreeNode = {
      key: `#${item.reserved}`,
      depth: 1,
      kind: 'reserved',
      pieces: [{ text: item.text, field: null }],
      mark: null,
      state: 'planned',
      note: item.label,
      open: false,
    };
    if (at >= 0) out.splice(at, 0, gap);
  });
  return out;
}

/** Faults of one field, for the form. */
export const faultsOf = (diagnostics: readonly Diagnostic[], field: string): Diagnostic[] =>
  diagnostics.filter((d) => d.field === field);
