/** The source's folders as a nest: what of each comes, and what of it is counted below. */
import type { CarryPlan } from '@nesting/contract';
import { nameOf, parentOf } from '@nesting/core/listing';
import type { Comes } from '@nesting/core/planners';
import type { ProjectRules } from '@nesting/core/project';
import { count, size } from '../../app/words';
import type { TreeNode } from '../../tray/flatten';

export type Folder = CarryPlan['folders'][number];

export interface Below {
  readonly files: number;
  readonly current: number;
  readonly coming: number;
  readonly bytes: number;
}

export const COMES_WORDS: Readonly<Record<Comes, string>> = {
  nothing: 'nothing',
  empty: 'empty folders',
  current: 'what is current',
  everything: 'everything',
};

/** Of each folder with all that is in it. */
export function below(folders: readonly Folder[]): ReadonlyMap<string, Below> {
  const out = new Map<string, Below>();
  for (const { path, files, current, coming, bytes } of folders)
    for (let at = path; ; at = parentOf(at)) {
      const sum = out.get(at) ?? { files: 0, current: 0, coming: 0, bytes: 0 };
      out.set(at, {
        files: sum.files + files,
        current: sum.current + current,
        coming: sum.coming + coming,
        bytes: sum.bytes + bytes,
      });
      if (at === '') break;
    }
  return out;
}

export function treeOf(folders: readonly Folder[], rules: ProjectRules): TreeNode[] {
  const sums = below(folders);
  return folders.map((folder): TreeNode => {
    const { path, to, comes, isSaid } = folder;
    const line = rules.planned(path);
    const depth = path === '' ? 0 : path.split('/').length;
    const isRenamed = path !== '' && nameOf(path) !== nameOf(to);
    return {
      key: path,
      depth,
      kind: 'folder',
      pieces: [{ text: path === '' ? rules.expansion.rootName : nameOf(path), field: null }],
      mark: line?.mark ?? null,
      state: comes === 'nothing' ? 'absent' : 'planned',
      note: noteOf(sums.get(path) ?? NONE),
      badge: [isRenamed ? `→ ${nameOf(to)}` : '', isSaid ? COMES_WORDS[comes] : ''].filter(Boolean).join(' · '),
      open: depth < 2 || folders.length < 60,
    };
  });
}

const NONE: Below = { files: 0, current: 0, coming: 0, bytes: 0 };

function noteOf({ files, coming, bytes }: Below): string {
  if (files === 0) return '';
  if (coming === 0) return `none of ${count(files)}`;
  return `${coming === files ? count(coming) : `${count(coming)} of ${count(files)}`} · ${size(bytes)}`;
}
