/**
 * What to call a file: the name its folder's convention asks for, with the next version that is free on the disk at
 * this moment and that
 * nobody else was given. Held for who asks, so that two people never get the same.
 */
import type { AskName, HeldName } from '@nesting/contract';
import {
  nextVersion,
  ordinal,
  type Reading,
  readName,
  type Values,
  type Version,
  withFirstState,
  writeName,
} from '@nesting/core/name';
import { type FolderConvention, ProjectRules } from '@nesting/core/project';
import type { PlannedLine } from '@nesting/core/template';
import type { Where } from '@nesting/disk';
import { transaction } from '../../db/client';
import { readRegisters } from '../../db/queries/house/registers';
import { heldNames, holdName, type NameHold } from '../../db/queries/projects/name-holds';
import { readProject } from '../../db/queries/projects/projects';
import { projectWhere } from '../place';
import { Refused, type World } from '../world';

export async function askName(
  world: World,
  person: { readonly id: string; readonly initials: string },
  projectId: string,
  asked: AskName,
): Promise<HeldName> {
  const project = await readProject(world.db, projectId);
  if (project === null) throw new Refused('no-project');
  if (project.state !== 'running') throw new Refused('not-running');
  const rules = new ProjectRules({
    template: project.body,
    values: project.values,
    registers: await readRegisters(world.db),
  });
  const line = rules.planned(asked.folder);
  const rule =
    line?.kind === 'folder' ? rules.conventionsIn(line).find((c) => c.convention.id === asked.convention) : undefined;
  if (line === undefined || rule === undefined)
    throw new Refused('no-convention', { convention: asked.convention, folder: asked.folder });
  const where = await projectWhere(world, project);
  const values: Values = {
    ...rules.expansion.values.values,
    person: person.initials,
    ...asked.values,
    ...line.entries,
  };
  const place = {
    folder: line.path,
    project: project.folder,
    volume: project.volume,
    folderThere: (await world.disks.run('pathsThere', { where, paths: [line.path] })).length > 0,
  };
  return transaction(world.db, async (client) => {
    // Held ones first: they wait for the project's row, and only then the disk is looked at.
    const held = await heldNames(client, projectId, line.path, person.id);
    const there = await namesThere(world, where, line);
    const name = freeName(rule, values, there, held);
    const until = await holdName(client, projectId, line.path, name, person.id);
    return { ...place, name, until: until.toISOString() };
  });
}

/** Names in the folder and in the one kept for superseded versions. */
async function namesThere(world: World, where: Where, line: PlannedLine): Promise<string[]> {
  const older = line.folder?.older?.folder;
  const paths = older === undefined ? [line.path] : [line.path, `${line.path}/${older}`];
  return (await world.disks.run('namesInEach', { where, paths })).flatMap((names) => names.files);
}

function freeName(
  { strict }: FolderConvention,
  values: Values,
  there: readonly string[],
  held: readonly NameHold[],
): string {
  const all = { ...withFirstState(strict, {}), ...values };
  const first = written(strict, { ...all, version: firstVersion(strict), frame: values.frame ?? 1 });
  const version = nextVersion(strict, first.reading, [...there, ...held.filter((h) => !h.mine).map((h) => h.name)]);
  if (version === null) {
    const lower = first.name.toLowerCase();
    if (there.some((name) => name.toLowerCase() === lower)) throw new Refused('name-taken', { name: first.name });
    const other = held.find((h) => !h.mine && h.name.toLowerCase() === lower);
    if (other) throw new Refused('name-held', { name: first.name, by: other.by });
    return first.name;
  }
  // What this person was given before is given again, until it is saved or something later is.
  const free = ordinal(nextVersion(strict, first.reading, there) ?? 1);
  const own = held.find((h) => {
    const reading = h.mine ? readName(strict, h.name) : null;
    return reading?.version !== undefined && ordinal(reading.version) >= free && sameBut(reading, first.reading);
  });
  return own?.name ?? written(strict, { ...all, version, frame: values.frame ?? 1 }).name;
}

const firstVersion = (strict: FolderConvention['strict']): Version =>
  strict.slots.some((s) => s.field === 'version' && s.domain.kind === 'letters') ? 'A' : 1;

const sameBut = (a: Reading, b: Reading): boolean =>
  Object.keys({ ...a, ...b }).every((field) => field === 'version' || a[field] === b[field]);

function written(strict: FolderConvention['strict'], values: Values): { name: string; reading: Reading } {
  const name = writeName(strict, values);
  if (!name.ok)
    throw new Refused('values-missing', { because: name.faults.map(({ code, params }) => ({ code, params })) });
  const reading = readName(strict, name.value);
  if (reading === null) throw new Refused('name-unreadable', { name: name.value });
  return { name: name.value, reading };
}
