/** Volumes, and projects found on them. */
import { VOLUME_ENDPOINTS } from '@nesting/contract';
import { foldersIn, volumeListing } from '../../flows/checks/listings';
import { findProjects, relink, savePrefixes, takeUpVolume, volumeRows } from '../../flows/house/volumes';
import { routesOf } from '../handlers';

export const VOLUMES = routesOf(VOLUME_ENDPOINTS, {
  listVolumes: ({ world }) => volumeRows(world),
  takeUpVolume: ({ world, me, params, body }) => takeUpVolume(world, me.id, params.name, body.isAnother),
  findProjects: ({ world }) => findProjects(world),
  relink: ({ world, me, body: { project, volume, folder } }) => relink(world, me.id, project, volume, folder),
  savePrefixes: ({ world, me, params, body }) => savePrefixes(world, me.id, params.name, body),
  foldersOfVolume: ({ world, params, query }) => foldersIn(world, params.name, query.path),
  listingOfVolume: ({ world, params, query }) => volumeListing(world, params.name, query.path),
});
