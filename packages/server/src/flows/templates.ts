/** A template's way from a draft to an edition in force, in and out of files; what a draft would mean for projects that run. */
import type { TemplateEffectRow } from '@nesting/contract';
import { parseTemplate } from '@nesting/contract';
import { expandTemplate, type FolderNode, join, type LooseTemplate, mergeRegisters, normaliseTemplate, ownRegisters, resolveTemplate, type Template, withConventions, wordsFor } from '@nesting/core';
import { inside, listFolder } from '@nesting/disk';
import { buffer } from 'node:stream/consumers';
import { fromBufferPromise } from 'yauzl';
import { ZipFile } from 'yazl';
import { sqlFault, transaction, type Client } from '../db/client';
import { recordActivity } from '../db/queries/activity';
import { adoptConventions } from '../db/queries/conventions';
import { readProject } from '../db/queries/projects';
import { readRegisters } from '../db/queries/registers';
import { copyStarters, discardTemplateDraft, insertTemplateDraft, listEditions, projectsOnEarlier, putDraftStarter, putTemplateInForce, readDraftStarter, readTemplateDraft, saveTemplateDraft, templateIdsLike } from '../db/queries/template-drafts';
import { readEdition, readStarters } from '../db/queries/templates';
import { Refused, type World } from './world';

export interface NewTemplate {
  readonly template: LooseTemplate;
  readonly starters: readonly { readonly path: string; readonly base64: string }[];
  readonly from?: { readonly template: string; readonly edition: number } | undefined;
}

/** A new template as a draft: written from nothing, doubled, derived or taken in from a file. Its id is its own, whatever the file says. */
export async function newTemplate(world: World, person: string, asked: NewTemplate): Promise<{ id: string }> {
  const normal = normaliseTemplate(asked.template);
  return transaction(world.db, async (client) => {
    const id = await freeTemplateId(client, slugOf(normal.name));
    const { edition: _edition, ...bare } = normal;
    await insertTemplateDraft(client, { ...bare, id }, person);
    for (const { path, base64 } of asked.starters) await putDraftStarter(client, id, path, Buffer.from(base64, 'base64'));
    if (asked.from) for (const [path, bytes] of await readStarters(client, asked.from.template, asked.from.edition)) await putDraftStarter(client, id, path, bytes);
    await recordActivity(client, 'template-drafted', person, null, { template: id });
    return { id };
  });
}

const slugOf = (name: string): string => name.normalize('NFKD').toLowerCase().replace(/[^a-z0-9]+/g, '-').replace(/^-+|-+$/g, '').slice(0, 60) || 'template';

async function freeTemplateId(client: Client, wanted: string): Promise<string> {
  // The screens have pages of these names among the templates.
  const taken = (await templateIdsLike(client, wanted)).add('derive');
  let id = wanted;
  for (let n = 2; taken.has(id); n++) id = `${wanted}-${n}`;
  return id;
}

export async function keepTemplate(world: World, person: string, id: string, template: Template, version: number): Promise<{ version: number }> {
  try {
    const saved = await saveTemplateDraft(world.db, { ...template, id }, version, person);
    if (saved === null) throw new Refused(409, 'draft-changed', 'Somebody else has changed this draft since. What you wrote is still in this window; what they changed can be looked at first.');
    return { version: saved };
  } catch (error) {
    if (sqlFault(error)?.state === '23503') throw new Refused(404, 'no-template', 'This template does not exist any more.');
    throw error;
  }
}

export async function dropTemplateDraft(world: World, person: string, id: string): Promise<void> {
  await transaction(world.db, (client) => discardTemplateDraft(client, id));
  await recordActivity(world.db, 'template-draft-discarded', person, null, { template: id });
}

/** The draft becomes the next edition, with its starter files; every file it names must be there. */
export async function publishTemplate(world: World, person: string, id: string, version: number, said: string): Promise<{ edition: number }> {
  const draft = await readTemplateDraft(world.db, id);
  if (draft === null || draft.version !== version) throw new Refused(409, 'draft-changed', 'The draft is not the one you looked at any more. Nothing was put in force; reload to see it.');
  const studio = await readRegisters(world.db);
  const [fault] = resolveTemplate(draft.template, mergeRegisters(ownRegisters(draft.template), studio)).diagnostics;
  if (fault) throw new Refused(422, 'draft-unusable', `${fault.node ?? ''}: ${wordsFor(fault.code, fault.params)} Nothing was put in force.`);
  return transaction(world.db, async (client) => {
    const put = await putTemplateInForce(client, id, version, said, person);
    if (put === null) throw new Refused(409, 'draft-changed', 'The draft was changed just now. Nothing was put in force; reload to see it.');
    const paths = starterPaths(put.template);
    const copied = new Set(await copyStarters(client, id, put.edition, paths));
    const absent = paths.find((path) => !copied.has(path));
    if (absent !== undefined) throw new Refused(422, 'starter-missing', `The starter file ${absent} is not there. Give it, or take it out; nothing was put in force.`);
    await adoptConventions(client, put.template);
    await recordActivity(client, 'template-in-force', person, null, { template: id, edition: put.edition, said });
    return { edition: put.edition };
  });
}

export function starterPaths({ root, blocks }: Template): string[] {
  const paths = new Set<string>();
  const walk = (node: FolderNode): void => {
    for (const starter of node.starters ?? []) paths.add(starter.from);
    node.folders?.forEach(walk);
  };
  walk(root);
  for (const block of blocks ?? []) block.folders.forEach(walk);
  return [...paths];
}

const EXAMPLES = 4;

/** What each running project would gain, lose and have renamed, by the lines of its plan before and after. */
export async function templateEffect(world: World, id: string, template: Template): Promise<TemplateEffectRow[]> {
  const registers = await readRegisters(world.db);
  const rows: TemplateEffectRow[] = [];
  for (const projectId of await projectsOnEarlier(world.db, id)) {
    const project = await readProject(world.db, projectId);
    if (project === null) continue;
    const before = new Map(expandTemplate(project.body, project.values, registers).lines.map((l) => [l.key, l]));
    const after = new Map(expandTemplate(withConventions(template, {}), project.values, registers).lines.map((l) => [l.key, l]));
    const gained = [...after].filter(([key]) => !before.has(key)).map(([, l]) => l.path);
    const lost = [...before].filter(([key]) => !after.has(key)).map(([, l]) => l.path);
    const renamed = [...after].flatMap(([key, l]) => (before.has(key) && before.get(key)?.name !== l.name ? [`${before.get(key)?.path} → ${l.name}`] : []));
    rows.push({
      project: { id: project.id, number: project.number, folder: project.folder, edition: project.template.edition },
      gains: gained.length, loses: lost.length, renames: renamed.length,
      examples: [...gained.slice(0, EXAMPLES).map((p) => `+ ${p}`), ...renamed.slice(0, EXAMPLES), ...lost.slice(0, EXAMPLES).map((p) => `− ${p}`)],
    });
    await new Promise((resolve) => setImmediate(resolve));
  }
  return rows;
}

/** The template file with its starter files as a zip, byte for byte the same each time. */
export async function exportTemplate(world: World, id: string, edition: number | null): Promise<{ name: string; bytes: Uint8Array }> {
  const draft = edition === null ? await readTemplateDraft(world.db, id) : null;
  const newest = edition ?? (draft === null ? ((await listEditions(world.db, id))[0]?.edition ?? null) : null);
  const template = draft?.template ?? (newest === null ? null : await readEdition(world.db, id, newest));
  if (template === null) throw new Refused(404, 'not-found', 'There is no such edition.');
  const zip = new ZipFile();
  const times = { mtime: new Date(Date.UTC(2026, 0, 1)), forceDosTimestamp: true };
  zip.addBuffer(Buffer.from(`${JSON.stringify(template, null, 2)}\n`), `${id}.nest.json`, times);
  for (const path of starterPaths(template).sort()) {
    const bytes = draft === null && newest !== null ? (await readStarters(world.db, id, newest)).get(path) : await readDraftStarter(world.db, id, path);
    if (bytes) zip.addBuffer(Buffer.from(bytes), path, times);
  }
  zip.end();
  return { name: `${id}.zip`, bytes: await buffer(zip.outputStream) };
}

/** Entries of one zip, bytes of one file in it and of all of them: an honest template is far below. */
const MOST_ENTRIES = 1000;
const MOST_FILE = 16 * 1024 * 1024;
const MOST_BYTES = 64 * 1024 * 1024;

/** A zip with one template file and its starter files. Sizes are counted as they come, whatever the zip says of itself. */
export async function importZip(world: World, person: string, bytes: Uint8Array): Promise<{ id: string }> {
  const unusable = (why: string) => new Refused(422, 'zip-unusable', `${why} Nothing was taken in.`);
  let total = 0;
  let text: string | null = null;
  const starters: { path: string; base64: string }[] = [];
  try {
    const zip = await fromBufferPromise(Buffer.from(bytes), { strictFileNames: true, lazyEntries: true });
    for await (const entry of zip.eachEntry()) {
      const path = entry.fileName;
      if (path.endsWith('/')) continue;
      if (starters.length >= MOST_ENTRIES) throw unusable(`The zip holds more than ${MOST_ENTRIES} files.`);
      if (entry.uncompressedSize > MOST_FILE) throw unusable(`${path} is larger than a starter file may be.`);
      const content = await limited(await zip.openReadStreamPromise(entry), MOST_FILE, () => unusable(`${path} is larger than a starter file may be.`));
      total += content.length;
      if (total > MOST_BYTES) throw unusable('The zip unpacks to more than a template may hold.');
      if (path.endsWith('.nest.json') && !path.includes('/') && text === null) text = content.toString('utf8');
      else starters.push({ path, base64: content.toString('base64') });
    }
  } catch (error) {
    if (error instanceof Refused) throw error;
    throw unusable(`This is no zip that can be read (${error instanceof Error ? error.message : 'unknown'}).`);
  }
  if (text === null) throw unusable('There is no template file (*.nest.json) in the zip.');
  const parsed = parseTemplate(text, 'the template file');
  if (!parsed.ok) throw unusable(parsed.faults[0] ?? 'The template file cannot be read.');
  const wanted = new Set(starterPaths(parsed.value));
  return newTemplate(world, person, { template: parsed.value, starters: starters.filter((s) => wanted.has(s.path)) });
}

async function limited(stream: NodeJS.ReadableStream, most: number, over: () => Error): Promise<Buffer> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of stream) {
    size += (chunk as Buffer).length;
    if (size > most) throw over();
    chunks.push(chunk as Buffer);
  }
  return Buffer.concat(chunks);
}

/** Names listed of one project for deriving: beyond them the rest says nothing new. */
const MOST_LISTED = 200_000;

/** The names in a project's folder, a path a line under its own name; folders end in a slash. */
export async function projectListing(world: World, projectId: string): Promise<{ listing: string; whole: boolean }> {
  const project = await readProject(world.db, projectId);
  if (project === null) throw new Refused(404, 'not-found', 'There is no such project.');
  const root = inside(world.config.volumes.get(project.volume) ?? '', project.folder);
  if (!root.ok) throw new Refused(404, 'no-folder', `The folder ${project.folder} cannot be reached on ${project.volume}.`);
  const lines: string[] = [];
  const queue = [''];
  for (let path = queue.pop(); path !== undefined && lines.length < MOST_LISTED; path = queue.pop()) {
    const listing = listFolder(root.value, path, () => undefined);
    if (listing === null) continue;
    if (path !== '') lines.push(`${project.folder}/${path}/`);
    for (const file of listing.files) lines.push(`${project.folder}/${join(path, file.name)}`);
    for (const name of listing.folders) queue.push(join(path, name));
    await new Promise((resolve) => setImmediate(resolve));
  }
  return { listing: lines.join('\n'), whole: lines.length < MOST_LISTED };
}
