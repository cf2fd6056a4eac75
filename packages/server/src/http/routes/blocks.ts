/** Blocks shared by several templates. */
import { BLOCK_ENDPOINTS } from '@nesting/contract';
import { nameOf, relPathOf } from '@nesting/core/listing';
import { blockEditions, blockStarters, listBlocks, putBlockStarter } from '../../db/queries/rules/blocks';
import { dropBlockDraft, keepBlock, publishBlock, shareBlock } from '../../flows/rules/blocks';
import { Refused } from '../../flows/world';
import { bytesOf, routesOf, somebodysFile } from '../handlers';
import { found } from '../route';

export const BLOCKS = routesOf(BLOCK_ENDPOINTS, {
  listBlocks: ({ world }) => listBlocks(world.db),
  shareBlock: ({ world, me, body }) => shareBlock(world, me.id, body.template, body.body),
  blockEditions: ({ world, params }) => blockEditions(world.db, params.id),
  keepBlock: ({ world, me, params, body }) => keepBlock(world, me.id, params.id, body.body, body.version),
  discardBlock: ({ world, me, params }) => dropBlockDraft(world, me.id, params.id),
  putBlockInForce: ({ world, me, params, body }) => publishBlock(world, me.id, params.id, body),
  readBlockStarter: async ({ world, params, query: { path } }) =>
    somebodysFile(nameOf(path), found((await blockStarters(world.db, params.id)).get(path) ?? null)),
  putBlockStarter: async ({ world, params, query, body }) => {
    const path = relPathOf(query.path);
    // Editions share the files of a block: each must lie under its own name.
    if (!path.ok || !path.value.startsWith(`starters/${params.id}/`)) throw new Refused('block-starter-path');
    if (!(await putBlockStarter(world.db, params.id, path.value, await bytesOf(body))))
      throw new Refused('file-there', { name: params.id, path: path.value });
  },
});
