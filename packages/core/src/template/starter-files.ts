/** A starter is a file, or a folder that is one document. */
import { join } from '../listing/entry';
import type { FolderNode, Starter, Template } from './node';

export interface StarterFile {
  /** Where it is kept, beside the template. */
  readonly from: string;
  /** Its path in the document; empty for the file that is the document. */
  readonly path: string;
}

export const starterFiles = ({ from, files }: Pick<Starter, 'from' | 'files'>): readonly StarterFile[] =>
  files?.map((path) => ({ from: join(from, path), path })) ?? [{ from, path: '' }];

/** Every path beside the template that its starters, or those of these folders, are kept under. */
export function starterPathsIn(folders: readonly FolderNode[]): string[] {
  const paths = new Set<string>();
  const walk = (node: FolderNode): void => {
    for (const starter of node.starters ?? []) for (const { from } of starterFiles(starter)) paths.add(from);
    node.folders?.forEach(walk);
  };
  folders.forEach(walk);
  return [...paths];
}

export const starterPaths = ({ root, blocks }: Template): string[] =>
  starterPathsIn([root, ...(blocks ?? []).flatMap(({ folders }) => folders)]);
