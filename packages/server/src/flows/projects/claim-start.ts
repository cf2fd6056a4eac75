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
  if (known === null) throw new Refused(404, 'no-volume', `No volume is called ${name}. Nothing was written.`);
  const { state } = await stateOfVolume(world, name);
  const where = whereOf(world, { volume: name, folder: '' }) ?? known;
  switch (state) {
    case 'ready':
      return where;
    case 'missing':
      throw new Refused(
        503,
        'volume-missing',
        `The volume ${name} cannot be reached: it is not mounted, or its folder is gone. Nothing was written.`,
      );
    case 'new':
      throw new Refused(
        409,
        'volume-new',
        `Nobody has taken the volume ${name} up yet: a coordinator does that in the list of volumes. Nothing was written.`,
      );
    case 'other':
      throw new Refused(
        503,
        'volume-other',
        `What is found as ${name} is not that volume: it is not mounted, or another one is. Nothing was written.`,
      );
    case 'read-only':
      throw new Refused(
        409,
        'volume-read-only',
        `The volume ${name} is read-only. Nothing was written; give the server the right to write there, or take another volume.`,
      );
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
    if (constraint === 'project_number_once')
      throw new Refused(
        409,
        'number-taken',
        `The number ${number} belongs to another project by now. Nothing was written; take the next number.`,
      );
    if (constraint === 'project_folder_once')
      throw new Refused(
        409,
        'folder-taken',
        `Another project lies in ${folder} on ${request.volume}. Nothing was written.`,
      );
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
  const left =
    outcome.stayed.length === 0
      ? 'Nothing was left behind.'
      : `These could not be taken back: ${outcome.stayed.slice(0, 5).join(', ')}.`;
  const where = outcome.at === '' ? '' : ` at ${outcome.at}`;
  switch (outcome.code) {
    case 'EEXIST':
      throw new Refused(409, 'folder-exists', `A folder ${folder} exists already on ${volume}. ${left}`);
    case 'CANCELLED':
      throw new Refused(409, 'cancelled', `Stopped before it was made. ${left}`);
    case 'ENOSPC':
    case 'EDQUOT':
      throw new Refused(
        507,
        'volume-full',
        `The volume ${volume} is full${where}. ${left} Make room, or take another volume.`,
      );
    case 'EROFS':
    case 'EACCES':
    case 'EPERM':
      throw new Refused(409, 'volume-read-only', `The volume ${volume} may not be written to${where}. ${left}`);
    case 'ENOENT':
      throw new Refused(503, 'volume-missing', `The volume ${volume} went away${where}. ${left}`);
    default:
      throw new Refused(409, 'write-failed', `Writing failed${where} (${outcome.code}). ${left}`);
  }
}
