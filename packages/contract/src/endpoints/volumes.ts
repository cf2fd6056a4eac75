/** Volumes, and projects found on them. */

import { z } from 'zod';
import { folderChoiceSchema, listingTextSchema } from '../authoring';
import { endpoint } from '../endpoint';
import { foundProjectSchema, prefixesSchema, relinkSchema, takeUpSchema } from '../lists';
import { list } from '../reply';
import { ALL, COORDINATOR } from '../roles';
import { volumeRowSchema } from '../wire';
import { nothing } from './params';
import { FOLDER, VOLUME } from './refused';

const ofVolume = { name: z.string().min(1).max(200) };
const inFolder = z.object({ path: z.string().max(4096).default('') });

export const VOLUME_ENDPOINTS = {
  listVolumes: endpoint({
    method: 'GET',
    path: '/api/volumes',
    does: 'Lists volumes, and whether each is there',
    roles: ALL,
    whose: 'house',
    reply: { json: list(volumeRowSchema) },
  }),
  takeUpVolume: endpoint({
    method: 'POST',
    path: '/api/volumes/:name/take-up',
    does: 'Says that what is mounted there is the volume that is meant',
    roles: COORDINATOR,
    whose: 'house',
    params: ofVolume,
    body: takeUpSchema,
    reply: nothing,
    refuses: [...VOLUME, ...FOLDER, 'volume-twice', 'volume-changed'],
  }),
  findProjects: endpoint({
    method: 'GET',
    path: '/api/volumes/projects',
    does: 'Finds projects that lie elsewhere than they should, or twice',
    roles: COORDINATOR,
    whose: 'house',
    reply: { json: list(foundProjectSchema) },
  }),
  relink: endpoint({
    method: 'POST',
    path: '/api/volumes/relink',
    does: 'Says where a project lies now',
    roles: COORDINATOR,
    whose: 'house',
    body: relinkSchema,
    reply: nothing,
    refuses: [...FOLDER, 'no-project', 'not-there', 'folder-taken'],
  }),
  savePrefixes: endpoint({
    method: 'PUT',
    path: '/api/volumes/:name/prefixes',
    does: 'Says how each system’s people see a volume',
    roles: COORDINATOR,
    whose: 'house',
    params: ofVolume,
    body: prefixesSchema,
    reply: nothing,
    refuses: ['no-volume', 'prefix-refused'],
  }),
  foldersOfVolume: endpoint({
    method: 'GET',
    path: '/api/volumes/:name/folders',
    does: 'Lists the folders of one folder, to choose from',
    roles: COORDINATOR,
    whose: 'house',
    params: ofVolume,
    query: inFolder,
    reply: { json: folderChoiceSchema },
    refuses: [...FOLDER, 'no-folder'],
  }),
  listingOfVolume: endpoint({
    method: 'GET',
    path: '/api/volumes/:name/listing',
    does: 'Gives the names in a folder as a text, however deep',
    roles: COORDINATOR,
    whose: 'house',
    params: ofVolume,
    query: inFolder,
    reply: { json: listingTextSchema },
    refuses: [...FOLDER, 'no-folder'],
  }),
} as const;
