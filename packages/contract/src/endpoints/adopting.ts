/** Folders taken in as projects, and copies of a project's folder. */

import { adoptSchema, copyPlaceSchema, copyRowSchema, fitSchema, fitsSchema, ownCopySchema } from '../adopt';
import { endpoint } from '../endpoint';
import { projectRowSchema } from '../project';
import { list } from '../reply';
import { COORDINATOR } from '../roles';
import { id, nothing } from './params';
import { FOLDER, NUMBER, VOLUME, WRITING } from './refused';

export const ADOPTING_ENDPOINTS = {
  fitFolder: endpoint({
    method: 'POST',
    path: '/api/adopt/fits',
    does: 'Says which templates fit a folder, the best first',
    roles: COORDINATOR,
    whose: 'house',
    body: fitSchema,
    reply: { json: fitsSchema },
    refuses: [...VOLUME, ...FOLDER, 'no-folder', 'folder-taken'],
  }),
  adoptFolder: endpoint({
    method: 'POST',
    path: '/api/adopt',
    does: 'Takes a folder in as a project',
    roles: COORDINATOR,
    whose: 'house',
    body: adoptSchema,
    reply: { json: projectRowSchema, status: 201 },
    refuses: [
      ...NUMBER,
      ...WRITING,
      ...VOLUME,
      ...FOLDER,
      'no-template',
      'plan-refused',
      'no-folder',
      'folder-taken',
      'starter-missing',
      'under-way',
      'not-known',
    ],
  }),
  compareCopies: endpoint({
    method: 'GET',
    path: '/api/projects/:id/copies',
    does: 'Compares the folders that say they are one project',
    roles: COORDINATOR,
    whose: 'house',
    params: id,
    reply: { json: list(copyRowSchema) },
    refuses: [...VOLUME, ...FOLDER, 'no-project'],
  }),
  ownCopy: endpoint({
    method: 'POST',
    path: '/api/projects/:id/copies/own',
    does: 'Makes a copy a project of its own, with a number of its own',
    roles: COORDINATOR,
    whose: 'house',
    params: id,
    body: ownCopySchema,
    reply: { json: projectRowSchema, status: 201 },
    refuses: [
      ...NUMBER,
      ...VOLUME,
      ...FOLDER,
      'no-project',
      'not-there',
      'is-original',
      'marker-failed',
      'folder-taken',
      'project-gone',
    ],
  }),
  leaveCopy: endpoint({
    method: 'POST',
    path: '/api/projects/:id/copies/leave',
    does: 'Leaves a copy alone: it is nobody’s project any more',
    roles: COORDINATOR,
    whose: 'house',
    params: id,
    body: copyPlaceSchema,
    reply: nothing,
    refuses: [...VOLUME, ...FOLDER, 'no-project', 'not-there', 'is-original', 'marker-failed'],
  }),
} as const;
