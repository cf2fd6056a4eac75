/** A folder on the disk → what the plan says of it. Asked by path alone, so that folders may come in any order. */
import { join, nameOf, parentOf } from '../listing/entry';
import { OWN_FOLDER } from '../project/own-folder';
import type { ProjectRules } from '../project/rules';
import type { PlannedLine } from '../template/expansion';

export type FolderState =
  /** In the plan; or the folder for older versions of one that is. */
  | { readonly kind: 'planned'; readonly line: PlannedLine; readonly older: boolean }
  /** Inside a folder where anything goes. */
  | { readonly kind: 'free' }
  /** No rule knows it; its parent is planned. */
  | { readonly kind: 'unplanned' }
  /** Inside one that no rule knows: said once, above. */
  | { readonly kind: 'inside-unplanned' };

export function stateOf(rules: ProjectRules, path: string): FolderState {
  const line = rules.planned(path);
  if (line?.kind === 'folder') return { kind: 'planned', line, older: false };
  const above = stateAbove(rules, path);
  if (above === null) return { kind: 'inside-unplanned' };
  if (above.rules.free) return { kind: 'free' };
  const direct = above.path === parentOf(path).normalize('NFC');
  if (direct && above.folder?.older?.folder === nameOf(path)) return { kind: 'planned', line: above, older: true };
  return { kind: direct ? 'unplanned' : 'inside-unplanned' };
}

/** The nearest planned folder above: from the root down, for the plan ends long before a deep path does. */
function stateAbove(rules: ProjectRules, path: string): PlannedLine | null {
  let nearest: PlannedLine | null = null;
  for (let end = 0; end >= 0; end = path.indexOf('/', end + 1)) {
    const line = rules.planned(path.slice(0, end));
    if (line?.kind !== 'folder') break;
    nearest = line;
  }
  return nearest;
}

/** Passed over by every check. */
export const isOwn = (folder: string, name: string): boolean => join(folder, name) === OWN_FOLDER;
