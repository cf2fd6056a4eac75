/** Folders taken in as projects, and copies of a project's folder. */
import { ADOPTING_ENDPOINTS } from '@nesting/contract';
import { adoptFolder, fitFolder } from '../../flows/projects/adopt';
import { compareCopies, leaveCopyAlone, ownCopy } from '../../flows/projects/copies';
import { routesOf } from '../handlers';

export const ADOPTING = routesOf(ADOPTING_ENDPOINTS, {
  fitFolder: ({ world, body: { volume, folder, values } }) => fitFolder(world, volume, folder, values),
  adoptFolder: ({ world, me, body }) => adoptFolder(world, me.id, body),
  compareCopies: ({ world, params }) => compareCopies(world, params.id),
  ownCopy: ({ world, me, params, body }) => ownCopy(world, me, params.id, body.volume, body.folder, body.number),
  leaveCopy: ({ world, me, params, body }) => leaveCopyAlone(world, me.id, params.id, body.volume, body.folder),
});
