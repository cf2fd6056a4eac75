/**
 * Blocks of the house: shared from a template, written in drafts, taken up by templates with what each of them made of
 * its copy.
 */

import { type BlockBody, type BlockInForce, clashKeyOf, type PutBlockInForce } from '@nesting/contract';
import { coded } from '@nesting/core';
import { type BlockEdition, diagnoseTemplate, type FolderNode, type Template, takeUp } from '@nesting/core/template';
import { type Client, transaction } from '../../db/client';
import { recordActivity } from '../../db/queries/house/activity';
import { readRegisters } from '../../db/queries/house/registers';
import {
  blockEditions,
  blockIdsLike,
  discardBlockDraft,
  draftInForce,
  insertBlockEdition,
  lendStartersToDraft,
  nextEditionWith,
  putBlockStarter,
  saveBlockDraft,
} from '../../db/queries/rules/blocks';
import {
  putDraftStarter,
  readDraftStarter,
  readTemplateDraft,
  saveTemplateDraft,
} from '../../db/queries/rules/template-drafts';
import { readNewestEdition } from '../../db/queries/rules/templates';
import { Refused, type World } from '../world';
import { draftNotLookedAt, keptDraft } from './drafts';
import { freeSlug } from './slug';

/**
 * What a template has in a block becomes the house's, in its first edition; answers the folders as the template is to
 * hold them now.
 */
export async function shareBlock(
  world: World,
  person: string,
  template: string,
  body: BlockBody,
): Promise<{ id: string; edition: number; folders: readonly FolderNode[] }> {
  return transaction(world.db, async (client) => {
    const id = await freeSlug(body.name, 'block', (wanted) => blockIdsLike(client, wanted));
    const folders = await takeStarters(client, template, id, body.folders);
    await insertBlockEdition(client, id, 1, { name: body.name, folders }, `Shared from ${template}.`, person);
    await recordActivity(client, 'block-shared', person, null, { block: id, template });
    return { id, edition: 1, folders };
  });
}

/** Files of a shared block lie under its own name, so that no other file of a template that takes it can be meant. */
async function takeStarters(
  client: Client,
  template: string,
  block: string,
  folders: readonly FolderNode[],
): Promise<FolderNode[]> {
  const out: FolderNode[] = [];
  for (const folder of folders) {
    const starters = [];
    for (const starter of folder.starters ?? []) {
      const bytes = await readDraftStarter(client, template, starter.from);
      if (bytes === null) throw new Refused('starter-missing', { path: starter.from });
      const from = `starters/${block}/${starter.from.split('/').at(-1)}`;
      await putBlockStarter(client, block, from, bytes);
      await putDraftStarter(client, template, from, bytes);
      starters.push({ ...starter, from });
    }
    out.push({
      ...folder,
      ...(starters.length > 0 && { starters }),
      ...(folder.folders && { folders: await takeStarters(client, template, block, folder.folders) }),
    });
  }
  return out;
}

export async function keepBlock(
  world: World,
  person: string,
  id: string,
  body: BlockBody,
  version: number,
): Promise<{ version: number }> {
  return keptDraft(() => saveBlockDraft(world.db, id, body, version, person), 'no-block');
}

export async function dropBlockDraft(world: World, person: string, id: string): Promise<void> {
  await discardBlockDraft(world.db, id);
  await recordActivity(world.db, 'block-draft-discarded', person, null, { block: id });
}

/**
 * The draft becomes the next edition, and the named templates take it up, each as its own next edition and in its
 * draft: all of it or nothing.
 */
export async function publishBlock(
  world: World,
  person: string,
  id: string,
  { version, said, take }: PutBlockInForce,
): Promise<BlockInForce> {
  return transaction(world.db, async (client) => {
    const put = await draftInForce(client, id, version, said, person);
    if (put === null) throw draftNotLookedAt();
    const editions = new Map((await blockEditions(client, id)).map((e) => [e.edition, e.folders]));
    const next: BlockEdition = { edition: put.edition, folders: put.body.folders };
    const templates: { template: string; edition: number | null }[] = [];
    for (const { template, theirs } of take) {
      const decide = (clash: { id: string; what: string }) =>
        theirs.includes(clashKeyOf(clash)) ? ('theirs' as const) : ('mine' as const);
      const merged = (body: Template) =>
        takeUp(body, id, (edition) => editions.get(edition) ?? [], next, decide).template;
      templates.push({
        template,
        edition: await takeUpIn(client, world, person, {
          template,
          block: id,
          words: `${put.body.name}, edition ${put.edition}${said === '' ? '' : `: ${said}`}`,
          merged,
        }),
      });
    }
    await recordActivity(client, 'block-in-force', person, null, {
      block: id,
      edition: put.edition,
      said,
      templates: templates.map((t) => t.template).join(', '),
    });
    return { edition: put.edition, templates };
  });
}

interface TakingUp {
  readonly template: string;
  readonly block: string;
  readonly words: string;
  readonly merged: (body: Template) => Template;
}

async function takeUpIn(
  client: Client,
  world: World,
  person: string,
  { template, block, words, merged }: TakingUp,
): Promise<number | null> {
  const holds = (body: Template | undefined) => body?.blocks?.some((b) => b.shared?.block === block) ?? false;
  const newest = await readNewestEdition(client, template);
  let edition: number | null = null;
  if (newest !== null && holds(newest)) {
    const body = merged(newest);
    const [fault] = diagnoseTemplate(body, await readRegisters(world.db));
    if (fault)
      throw new Refused('block-unusable', { template: newest.name, at: fault.node ?? '', because: coded(fault) });
    edition = await nextEditionWith(client, body, block, pathsIn(body, block), words, person);
    await recordActivity(client, 'template-in-force', person, null, { template, edition, said: words });
  }
  const draft = await readTemplateDraft(client, template);
  if (draft !== null && holds(draft.template)) {
    const body = merged(draft.template);
    await saveTemplateDraft(client, body, draft.version, person);
    await lendStartersToDraft(client, block, template, pathsIn(body, block));
  }
  return edition;
}

/** Files that a template's copies of a block name. */
function pathsIn(template: Template, block: string): string[] {
  const walk = (folders: readonly FolderNode[]): string[] =>
    folders.flatMap((f) => [...(f.starters ?? []).map((s) => s.from), ...walk(f.folders ?? [])]);
  return (template.blocks ?? []).filter((b) => b.shared?.block === block).flatMap((b) => walk(b.folders));
}
