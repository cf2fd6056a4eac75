/** Blocks shared by several templates. */
import { LIMITS } from '@nesting/core';
import {
  blockEditionRowSchema,
  blockInForceSchema,
  blockRowSchema,
  blockSharedSchema,
  putBlockInForceSchema,
  saveBlockSchema,
  shareBlockSchema,
} from '../block';
import { endpoint } from '../endpoint';
import { list } from '../reply';
import { ALL, COORDINATOR } from '../roles';
import { bytes, drafted, nothing, ofFile, ownWord } from './params';

export const BLOCK_ENDPOINTS = {
  listBlocks: endpoint({
    method: 'GET',
    path: '/api/blocks',
    does: 'Lists parts that templates share',
    roles: ALL,
    whose: 'house',
    reply: { json: list(blockRowSchema) },
  }),
  shareBlock: endpoint({
    method: 'POST',
    path: '/api/blocks',
    does: 'Makes a part of a template the house’s',
    roles: COORDINATOR,
    whose: 'house',
    body: shareBlockSchema,
    reply: { json: blockSharedSchema, status: 201 },
    refuses: ['starter-missing'],
  }),
  blockEditions: endpoint({
    method: 'GET',
    path: '/api/blocks/:id/editions',
    does: 'Lists what was ever in force of one',
    roles: ALL,
    whose: 'house',
    params: ownWord,
    reply: { json: list(blockEditionRowSchema) },
  }),
  keepBlock: endpoint({
    method: 'PUT',
    path: '/api/blocks/:id/draft',
    does: 'Keeps a draft; refused where somebody else kept one since',
    roles: COORDINATOR,
    whose: 'house',
    params: ownWord,
    body: saveBlockSchema,
    reply: drafted,
    refuses: ['no-block', 'draft-changed'],
  }),
  discardBlock: endpoint({
    method: 'DELETE',
    path: '/api/blocks/:id/draft',
    does: 'Throws a draft away',
    roles: COORDINATOR,
    whose: 'house',
    params: ownWord,
    reply: nothing,
  }),
  putBlockInForce: endpoint({
    method: 'POST',
    path: '/api/blocks/:id/editions',
    does: 'Puts a draft in force, and into the templates that take it up',
    roles: COORDINATOR,
    whose: 'house',
    params: ownWord,
    body: putBlockInForceSchema,
    reply: { json: blockInForceSchema, status: 201 },
    refuses: ['draft-not-seen', 'draft-unusable', 'block-unusable', 'starter-missing'],
  }),
  readBlockStarter: endpoint({
    method: 'GET',
    path: '/api/blocks/:id/starter',
    does: 'Gives a starter file of one',
    roles: ALL,
    whose: 'house',
    params: ownWord,
    query: ofFile,
    reply: { file: ['application/octet-stream'] },
  }),
  putBlockStarter: endpoint({
    method: 'PUT',
    path: '/api/blocks/:id/starter',
    does: 'Gives one a starter file',
    roles: COORDINATOR,
    whose: 'house',
    params: ownWord,
    query: ofFile,
    ...bytes,
    most: LIMITS.starterBytes,
    reply: nothing,
    refuses: ['block-starter-path', 'file-there'],
  }),
} as const;
