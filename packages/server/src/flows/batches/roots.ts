/** The roots that a batch works in beside the project's own folder: its row names them, so that it can be settled. */
import { type Change, rootIdOf, VOLUME } from '@nesting/core/change';
import type { OtherRoots } from '@nesting/disk';
import { type BatchRoot, batchRoots } from '../../db/queries/batches/batches';
import { whereOf } from '../place';
import type { World } from '../world';
import type { Prepared } from './prepared';

/** Where the project's folder is renamed, its volume is one; so are other projects' folders. */
export const rootsOf = ({
  project,
  changes,
  neighbours = [],
}: Pick<Prepared, 'project' | 'changes' | 'neighbours'>) => [
  ...(changes.some(({ subject }) => subject.kind === 'project')
    ? [{ root: VOLUME as string, volume: project.volume, folder: '' }]
    : []),
  ...neighbours.filter(({ root }) => changes.some((change) => isIn(change, root))),
];

const isIn = ({ before, after, content }: Change, root: string): boolean =>
  before?.root === root || after?.root === root || (content?.kind === 'copy' && content.from.root === root);

/** What a batch, and whoever reads its lines, knows another project's folder by: no other root has a slash. */
export const neighbourRoot = ({ volume, folder }: Omit<BatchRoot, 'root'>): string => `${volume}/${folder}`;

/** Folders of other projects that were changed. */
export const neighboursIn = (changes: readonly Change[]): readonly BatchRoot[] => {
  const roots = new Set(changes.flatMap(({ before, after }) => [before?.root ?? '', after?.root ?? '']));
  return [...roots].flatMap((root) => {
    const slash = root.indexOf('/');
    return slash < 0 ? [] : [{ root, volume: root.slice(0, slash), folder: root.slice(slash + 1) }];
  });
};

/** Volumes that are not configured any more are none. */
export const whereOfRoots = (world: World, roots: readonly BatchRoot[]): OtherRoots['others'] =>
  roots.flatMap(({ root, ...place }) => {
    const where = whereOf(world, place);
    return where === null ? [] : [{ id: rootIdOf(root), where }];
  });

export const othersOf = async (world: World, batch: string): Promise<OtherRoots['others']> =>
  whereOfRoots(world, await batchRoots(world.db, batch));
