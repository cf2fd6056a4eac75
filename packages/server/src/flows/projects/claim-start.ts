/** What a start claims before anything is written, and gives up where it comes to nothing. */
import type { StartGiven } from '@nesting/contract';
import type { Expansion } from '@nesting/core/template';
import type { StartOutcome, Where } from '@nesting/disk';
import { sqlFault, transaction } from '../../db/client';
import { recordActivity } from '../../db/queries/house/activity';
import { insertFirstDay } from '../../db/queries/projects/project-edits';
import { insertProject, type NewProject, removeUnstarted } from '../../db/queries/projects/projects';
import { claimNumber, freeNumber } from '../house/numbers';
import { stateOfVolume } from '../house/volumes';
import { whereOf } from '../place';
import { Refused, type World } from '../world';

export async function readyVolume(world: World, name: string): Promise<Where> {
  const known = whereOf(world, { volume: name, folder: '' });
  if (known === null) throw new Refused('no-volume', { volume: name });
  const { state } = await stateOfVolume(world, name);
  const where = whereOf(world, { volume: name, folder: '' }) ?? known;
  switch (state) {
    case 'ready':
      return where;
    case 'missing':
      throw new Refused('volume-missing', { volume: name });
    case 'new':
      throw new Refused('volume-new', { volume: name });
    case 'other':
      throw new Refused('volume-other', { volume: name });
    case 'read-only':
      throw new Refused('volume-read-only', { volume: name });
  }
}

export interface ToClaim {
  readonly id: string;
  readonly request: StartGiven;
  readonly expansion: Expansion;
  readonly editions: NewProject['conventions'];
  readonly firstDay: readonly string[];
  readonly folder: string;
}

/**
 * The project's row holds its number and folder before anything is written; constraints decide between two who ask at
 * once.
 */
export async function claim(world: World, person: string, to: ToClaim): Promise<void> {
  const { id, request, expansion, editions: conventions, firstDay, folder } = to;
  const values = expansion.values.values;
  const number = String(values.number);
  try {
    await transaction(world.db, async (client) => {
      await claimNumber(client, person, number, folder);
      await insertProject(client, {
        id,
        number,
        client: typeof values.client === 'string' ? values.client : null,
        title: typeof values.title === 'string' ? values.title : '',
        template: request.template,
        edition: request.edition,
        conventions,
        values,
        volume: request.volume,
        folder,
        person,
        adjusted: request.adjusted,
        own: {},
        settings: request.settings,
      });
      await insertFirstDay(client, id, firstDay);
    });
  } catch (error) {
    const constraint = sqlFault(error)?.constraint;
    if (constraint === 'project_number_once') throw new Refused('number-taken', { number });
    if (constraint === 'project_folder_once') throw new Refused('folder-taken', { folder });
    throw error;
  }
}

export async function giveUp(
  world: World,
  person: string,
  id: string,
  volume: string,
  folder: string,
  outcome: Extract<StartOutcome, { ok: false }>,
): Promise<never> {
  await transaction(world.db, async (client) => {
    const number = await removeUnstarted(client, id);
    if (number !== null) await freeNumber(client, number, `the start of ${folder} failed`);
    await recordActivity(client, 'start-failed', person, null, { folder, volume, code: outcome.code, at: outcome.at });
  });
  const { at, stayed } = outcome;
  switch (outcome.code) {
    case 'EEXIST':
      throw new Refused('folder-exists', { folder, volume, stayed });
    case 'CANCELLED':
      throw new Refused('start-cancelled', { stayed });
    case 'ENOSPC':
    case 'EDQUOT':
      throw new Refused('volume-full', { volume, at, stayed });
    case 'EROFS':
    case 'EACCES':
    case 'EPERM':
      throw new Refused('volume-closed', { volume, at, stayed });
    case 'ENOENT':
      throw new Refused('volume-lost', { volume, at, stayed });
    default:
      throw new Refused('write-failed', { at, stayed, system: outcome.code });
  }
}
