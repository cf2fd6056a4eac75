/** The roots that a batch works in beside the project's own folder: its row names them, so that it can be settled. */
import { type Change, rootIdOf, VOLUME } from '@nesting/core/change';
import type { OtherRoots } from '@nesting/disk';
import { type BatchRoot, batchRoots } from '../../db/queries/batches/batches';
import { whereOf } from '../place';
import type { World } from '../world';

/** Where the project's folder is renamed, its volume is one. */
export const rootsOf = (project: { readonly volume: string }, changes: readonly Change[]): readonly BatchRoot[] =>
  changes.some(({ subject }) => subject.kind === 'project')
    ? [{ root: VOLUME, volume: project.volume, folder: '' }]
    : [];

/** Volumes that are not configured any more are none. */
export const whereOfRoots = (world: World, roots: readonly BatchRoot[]): OtherRoots['others'] =>
  roots.flatMap(({ root, ...place }) => {
    const where = whereOf(world, place);
    return where === null ? [] : [{ id: rootIdOf(root), where }];
  });

export const othersOf = async (world: World, batch: string): Promise<OtherRoots['others']> =>
  whereOfRoots(world, await batchRoots(world.db, batch));
