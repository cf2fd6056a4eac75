/** What becomes of a project after its start: its state, its notes, what is its own, its first day, its signposts. */
import type { EditProject, System } from '@nesting/contract';
import { LIMITS } from '@nesting/core';
import type { Registers } from '@nesting/core/name';
import { pathOn, printSignposts, type SignpostFormat, signpostsOf } from '@nesting/core/project';
import { expandTemplate, tidyOwn, withConventions } from '@nesting/core/template';
import { transaction } from '../../db/client';
import { recordActivity } from '../../db/queries/house/activity';
import { readRegisters } from '../../db/queries/house/registers';
import { readPrefixes } from '../../db/queries/house/volumes';
import { editProject, putPicture, readOwnRulesBase, tickFirstDay } from '../../db/queries/projects/project-edits';
import { findProject, readProject } from '../../db/queries/projects/projects';
import { volumeRoot } from '../place';
import { Refused, type World } from '../world';

export async function changeProject(world: World, person: string, id: string, edit: EditProject): Promise<void> {
  await transaction(world.db, async (client) => {
    const before = await readProject(client, id);
    if (before === null) throw new Refused(404, 'not-found', 'There is no such project.');
    const rules = edit.own === undefined ? null : await readOwnRulesBase(client, id);
    const own =
      edit.own === undefined || rules === null
        ? undefined
        : tidyOwn(withConventions(rules.body, rules.conventions), edit.own);
    const changed = await editProject(client, id, edit.version, { ...edit, ...(own !== undefined && { own }) });
    if (!changed)
      throw new Refused(
        409,
        'project-changed',
        `Somebody else changed ${before.number} since you opened it. Nothing was changed; look at it anew.`,
      );
    const what = {
      ...(edit.state !== undefined && edit.state !== before.state && { state: `${before.state} → ${edit.state}` }),
      ...(edit.notes !== undefined && { notes: 'written' }),
      ...(own !== undefined && { own: Object.keys({ ...own.conventions, ...own.folders }).join(', ') || 'none' }),
      ...(edit.settings !== undefined && {
        settings: Object.entries(edit.settings)
          .map(([k, v]) => `${k} ${v}`)
          .join(', '),
      }),
    };
    if (Object.keys(what).length > 0)
      await recordActivity(client, 'project-changed', person, id, what, `project:${id}`);
  });
}

/** A picture for the project's page; what is no picture by its first bytes is refused, whatever it is called. */
export async function givePicture(world: World, person: string, id: string, bytes: Uint8Array | null): Promise<void> {
  if (bytes !== null && pictureType(bytes) === null)
    throw new Refused(422, 'no-picture', 'This is no PNG, JPEG or WebP picture. Nothing was changed.');
  if (bytes !== null && bytes.length > LIMITS.pictureBytes)
    throw new Refused(422, 'picture-large', 'The picture is too large. Nothing was changed.');
  if (!(await putPicture(world.db, id, bytes))) throw new Refused(404, 'not-found', 'There is no such project.');
  await recordActivity(
    world.db,
    'project-changed',
    person,
    id,
    { picture: bytes === null ? 'taken away' : 'given' },
    `project:${id}`,
  );
}

export function pictureType(bytes: Uint8Array): string | null {
  const starts = (...codes: number[]) => codes.every((c, i) => bytes[i] === c);
  if (starts(0x89, 0x50, 0x4e, 0x47)) return 'image/png';
  if (starts(0xff, 0xd8, 0xff)) return 'image/jpeg';
  if (starts(0x52, 0x49, 0x46, 0x46) && bytes[8] === 0x57 && bytes[9] === 0x45) return 'image/webp';
  return null;
}

export async function tick(world: World, person: string, id: string, place: number, done: boolean): Promise<void> {
  if (!(await tickFirstDay(world.db, id, place, done ? person : null)))
    throw new Refused(404, 'not-found', 'There is no such line.');
}

/** Signposts in a form programs read, by the project's id or number, with each system's own way to the volume. */
export async function signpostText(
  world: World,
  project: string,
  form: SignpostFormat,
  system: System,
): Promise<string> {
  const found = await findProject(world.db, project);
  const page = found === null ? null : await readProject(world.db, found);
  if (page === null) throw new Refused(404, 'not-found', 'There is no such project.');
  const registers: Registers = await readRegisters(world.db);
  const signposts = signpostsOf(expandTemplate(page.body, page.values, registers));
  const prefixes = await readPrefixes(world.db);
  const prefixOf = (volume: string): string => {
    const prefix = prefixes.get(volume)?.[system] || (system === 'linux' ? (volumeRoot(world, volume) ?? '') : '');
    if (prefix === '')
      throw new Refused(
        409,
        'prefix-missing',
        `Nobody has said how ${system} sees the volume ${volume}: a coordinator does, among the volumes.`,
      );
    return prefix;
  };
  return printSignposts(form, signposts, (s) => pathOn(system, prefixOf(s.volume ?? page.volume), page.folder, s.path));
}
