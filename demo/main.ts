/** The demo studio: its people, lists, templates, volumes and projects; then the server over them. */

import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseRegisters, parseTemplate } from '@nesting/contract';
import { elementAt, valueAt } from '@nesting/core';
import type { Template } from '@nesting/core/template';
import {
  buildPaths,
  type Client,
  checkProject,
  configOf,
  DEMO_PASSWORD,
  hashPassword,
  insertBlockEdition,
  insertEdition,
  insertPerson,
  listBlocks,
  openWorld,
  type Running,
  saveInbox,
  startersBeside,
  startProject,
  startServer,
  takeUpVolume,
  transaction,
  upsertRegisters,
  type World,
  writePrefixes,
} from '@nesting/server';
import { pino } from 'pino';
import { contentFor } from './files';
import { cameraCard, downloads, recorderCard } from './heaps';
import { DEMO_PROJECTS, DEMO_TODAY, type DemoProject, FREELANCE } from './projects';

export interface DemoOptions {
  readonly databaseUrl: string;
  readonly secret: string;
  readonly port: number;
  /** Below it lie the volumes. */
  readonly data: string;
  readonly say: (line: string) => void;
}

const PEOPLE = [
  { initials: 'IT', name: 'Ines Thorvald', role: 'coordinator', does: 'coordinates' },
  { initials: 'BO', name: 'Bram Okonjo', role: 'artist', does: 'animates' },
  { initials: 'LV', name: 'Lucía Verhaegen', role: 'artist', does: 'animates' },
  { initials: 'TF', name: 'Tomasz Ferrow', role: 'artist', does: 'makes the sound' },
  { initials: 'AP', name: 'Aiko Pendry', role: 'artist', does: 'illustrates' },
  { initials: 'SD', name: 'Samir Dunmore', role: 'artist', does: 'runs the projectors' },
  { initials: 'ME', name: 'Maud Éclair', role: 'lead', does: 'produces' },
] as const;

/** The demo's own files lie beside the sources; the bundle lies in dist. */
const here = fileURLToPath(new URL('../demo', import.meta.url));

export async function startDemo(options: DemoOptions): Promise<Running> {
  const log = pino({ level: process.env.NESTING_LOG ?? 'warn' });
  const volumes = ['studio', 'archive', 'arrivals'].map((name) => ({
    name,
    root: path.join(options.data, 'volumes', name),
  }));
  for (const volume of volumes) mkdirSync(volume.root, { recursive: true });
  const config = configOf(
    {
      NESTING_DATABASE: options.databaseUrl,
      NESTING_SECRET: options.secret,
      NESTING_PORT: String(options.port),
      NESTING_DEMO: '1',
      NESTING_VOLUMES: volumes.map((v) => `${v.name}=${v.root}`).join(';'),
    },
    buildPaths(import.meta.url),
  );
  const world = await openWorld(config, log);
  const seeded = await world.db.query('select 1 from person limit 1');
  if (seeded.rowCount === 0) await seed(world, options.say);
  return startServer(world, log);
}

async function seed(world: World, say: (line: string) => void): Promise<void> {
  say('Making the demo studio…');
  // The volumes belong to the database that knows them: a new one begins with empty ones.
  for (const root of world.config.volumes.values())
    for (const name of readdirSync(root)) rmSync(path.join(root, name), { recursive: true });
  const registers = parseRegisters(readFileSync(path.join(here, 'registers.json'), 'utf8'));
  if (!registers.ok) throw new Error(registers.faults[0]);
  const people = await transaction(world.db, async (client) => {
    await upsertRegisters(client, registers.value);
    const people = await seedPeople(client);
    for (const name of readdirSync(path.join(here, 'templates')).filter((f) => f.endsWith('.nest.json')))
      await seedTemplate(client, name);
    for (const [volume, drive] of [
      ['studio', 'S:\\'],
      ['archive', 'T:\\'],
      ['arrivals', 'U:\\'],
    ] as const)
      await writePrefixes(client, volume, { windows: drive, macos: `/Volumes/${volume}`, linux: `/mnt/${volume}` });
    return people;
  });
  for (const volume of world.config.volumes.keys()) await takeUpVolume(world, valueAt(people, 'IT'), volume, false);
  for (const project of DEMO_PROJECTS) await seedProject(world, people, project);
  await newEdition(world);
  layFreelance(world);
  await layArrivals(world, valueAt(people, 'IT'));
  await world.checks.idle();
}

/**
 * Window pieces learned something since the running one was started: sound has its own folder now, and masters are
 * called what clients call them.
 */
async function newEdition({ db }: World): Promise<void> {
  await transaction(db, async (client) => {
    const row = (
      await client.query<{ body: Template }>(
        "select body from template_edition where template_id = 'window-piece' order by edition desc limit 1",
      )
    ).rows[0];
    if (row === undefined) return;
    const { body } = row;
    const folders = (body.root.folders ?? []).map((f) => (f.id === 'masters' ? { ...f, name: 'deliveries' } : f));
    const root = {
      ...body.root,
      numbering: { digits: 2, joiner: '_' },
      folders: [
        ...folders,
        {
          id: 'sound',
          number: 30,
          name: 'sound',
          purpose: 'One loop per window.',
          mark: 'clay' as const,
          accepts: ['document'],
        },
      ],
    };
    await insertEdition(
      client,
      { ...body, edition: (body.edition ?? 1) + 1, root },
      startersBeside(path.join(here, 'templates'), body),
    );
  });
}

/** A job that a freelancer brought along, in a structure of their own; nobody has taken it in yet. */
function layFreelance(world: World): void {
  const root = path.join(valueAt(world.config.volumes, 'archive'), FREELANCE.folder);
  for (const folder of FREELANCE.folders) mkdirSync(path.join(root, folder), { recursive: true });
  for (const file of FREELANCE.files) writeFileSync(path.join(root, file), contentFor(path.basename(file)));
}

/** A card, a recorder's card and a heap of downloads, as they came in. */
async function layArrivals(world: World, by: string): Promise<void> {
  await saveInbox(world, by, 'arrivals', true);
  const root = valueAt(world.config.volumes, 'arrivals');
  const heaps = { 'card-A003': cameraCard(), recorder: recorderCard(), downloads: await downloads() };
  for (const [heap, files] of Object.entries(heaps))
    for (const { path: file, bytes, modified } of files) {
      const at = path.join(root, heap, file);
      mkdirSync(path.dirname(at), { recursive: true });
      writeFileSync(at, bytes);
      utimesSync(at, new Date(modified), new Date(modified));
    }
}

async function seedPeople(client: Client): Promise<Map<string, string>> {
  const hash = await hashPassword(DEMO_PASSWORD);
  const ids = new Map<string, string>();
  for (const p of PEOPLE) {
    const first = elementAt(p.name.normalize('NFD').replace(/\p{M}/gu, '').split(' '), 0);
    ids.set(p.initials, await insertPerson(client, { ...p, email: `${first}@tallow-street.example`, hash }));
  }
  return ids;
}

async function seedTemplate(client: Client, file: string): Promise<void> {
  const folder = path.join(here, 'templates');
  const parsed = parseTemplate(readFileSync(path.join(folder, file), 'utf8'), file);
  if (!parsed.ok) throw new Error(parsed.faults[0]);
  await insertEdition(client, await withHouseBlocks(client, parsed.value), startersBeside(folder, parsed.value));
}

/** Blocks of the demo's templates are the house's: the first template that has one gives it, the others hold a copy. */
async function withHouseBlocks(client: Client, template: Template): Promise<Template> {
  const house = await listBlocks(client);
  const blocks = [];
  for (const block of template.blocks ?? []) {
    if (!house.some((h) => h.id === block.id))
      await insertBlockEdition(
        client,
        block.id,
        1,
        { name: block.name ?? block.id, folders: block.folders },
        `Shared from ${template.name}.`,
        null,
      );
    blocks.push({ ...block, shared: { block: block.id, edition: 1 } });
  }
  return blocks.length === 0 ? template : { ...template, blocks };
}

async function seedProject(world: World, people: ReadonlyMap<string, string>, demo: DemoProject): Promise<void> {
  const editions = await world.db.query<{ edition: number }>(
    'select max(edition) as edition from template_edition where template_id = $1',
    [demo.template],
  );
  const project = await startProject(world, valueAt(people, demo.person), {
    template: demo.template,
    edition: editions.rows[0]?.edition ?? 1,
    volume: 'studio',
    values: { ...demo.values },
  });
  await world.checks.idle();
  const root = path.join(valueAt(world.config.volumes, 'studio'), project.folder);
  const today = Date.parse(`${DEMO_TODAY}T17:00:00Z`);
  for (const folder of demo.removed ?? []) rmSync(path.join(root, folder), { recursive: true });
  const by = valueAt(people, demo.person);
  // Checked on the way: findings come and go over weeks, and not all on one day.
  const stops = [70, 14, 0].map((left) => demo.files.length - left);
  for (const [i, file] of demo.files.entries()) {
    writeDemoFile(
      root,
      demo,
      file,
      new Date(today - Math.round((demo.age * 86_400_000 * (demo.files.length - i)) / demo.files.length)),
    );
    const days = DAYS_AGO[stops.indexOf(i + 1)];
    if (days !== undefined && days > 0) await checkBack(world, project.id, by, days);
  }
  await world.db.query('update project set started_at = $2 where id = $1', [
    project.id,
    new Date(today - demo.age * 86_400_000),
  ]);
  await checkProject(world, project.id, by);
  await world.checks.idle();
}

/** Days before the last check on which those on the way are said to have been. */
const DAYS_AGO = [16, 5, 0] as const;

/** Work is spread over the project's life; the last files listed are today's. */
function writeDemoFile(root: string, demo: DemoProject, file: string, at: Date): void {
  const absolute = path.join(root, file);
  mkdirSync(path.dirname(absolute), { recursive: true });
  if (existsSync(absolute)) return;
  const own = demo.contents?.[file];
  writeFileSync(
    absolute,
    own === undefined ? contentFor(path.basename(file)) : typeof own === 'string' ? own : contentFor(own.like),
  );
  utimesSync(absolute, at, at);
}

/** A check of this moment, put back by some days with all that it found. */
async function checkBack(world: World, project: string, by: string, days: number): Promise<void> {
  const id = await checkProject(world, project, by);
  await world.checks.idle();
  await world.db.query(
    "update check_run set started_at = started_at - $2 * interval '1 day', ended_at = ended_at - $2 * interval '1 day' where project_id = $1 and (id = $3 or started_at > clock_timestamp() - interval '1 hour')",
    [project, days, id],
  );
  await world.db.query(
    "update finding set since_at = since_at - $2 * interval '1 day', until_at = until_at - $2 * interval '1 day' where project_id = $1 and since_at > clock_timestamp() - interval '1 hour'",
    [project, days],
  );
}
