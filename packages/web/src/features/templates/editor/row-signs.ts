/** What is special about a folder, in a word or two beside its name. */
import type { FolderNode } from '@nesting/core/template';

export function signOf(node: FolderNode): string | null {
  if (node.onePer) return `one per ${node.onePer.as}`;
  if (node.onlyWhen) return `only when ${node.onlyWhen.field} is ${[node.onlyWhen.is].flat().join(' or ')}`;
  if (node.presence === 'optional') return 'optional';
  if (node.presence === 'on-demand') return 'when needed';
  return node.signpost ? `path for programs: ${node.signpost}` : null;
}
