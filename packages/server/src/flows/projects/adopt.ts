/**
 * A folder that grew without a template becomes a project: the best fitting template, the values its names carry, and
 * it is taken as it is.
 */

import { randomUUID } from 'node:crypto';
import type { AdoptGiven, Fits, ProjectRow } from '@nesting/contract';
import { coded } from '@nesting/core';
import type { Values } from '@nesting/core/name';
import { startChanges } from '@nesting/core/planners';
import { expandTemplate, fitTemplate, folderTree, type Template, withConventions } from '@nesting/core/template';
import type { Where } from '@nesting/disk';
import { recordActivity } from '../../db/queries/house/activity';
import { readRegisters } from '../../db/queries/house/registers';
import { readProjectRow } from '../../db/queries/projects/projects';
import { conventionsOf } from '../../db/queries/rules/conventions';
import { listTemplates, readEdition } from '../../db/queries/rules/templates';
import { untilAskerLeaves } from '../../request-context';
import { checkProject } from '../checks/check-project';
import { underLease } from '../once';
import { reached } from '../place';
import { Refused, type World } from '../world';
import { claim, giveUp, readyVolume } from './claim-start';
import { requireOrder } from './contents';
import { concludeStart, foundOut, onDisk } from './start-project';

/** Folders looked at: a job with more of them is no single project. */
const MOST_FOLDERS = 100_000;

export async function fitFolder(world: World, volume: string, folder: string, given: Values): Promise<Fits> {
  const where = await folderToAdopt(world, volume, folder);
  const { folders, whole } = await world.disks.run('foldersBelow', { where, most: MOST_FOLDERS }, untilAskerLeaves());
  const tree = folderTree(folders);
  const registers = await readRegisters(world.db);
  const name = folder.split('/').at(-1) ?? folder;
  const rows = (await listTemplates(world.db)).filter((t) => t.edition > 0 && !t.archived);
  const fits = [];
  for (const row of rows) {
    fits.push({
      template: row.id,
      edition: row.edition,
      name: row.name,
      ...fitTemplate(row.template, registers, name, tree, given),
    });
    await new Promise((resolve) => setImmediate(resolve));
  }
  return { fits: fits.sort((a, b) => b.score - a.score), folders: folders.length, whole };
}

async function folderToAdopt(world: World, volume: string, folder: string): Promise<Where> {
  await readyVolume(world, volume);
  const where = await reached(world, { volume, folder });
  if (where === null || folder === '') throw new Refused('no-folder', { folder, volume });
  if ((await world.disks.run('marker', { where })) !== null) throw new Refused('folder-taken', { folder });
  return where;
}

export async function adoptFolder(world: World, person: string, given: AdoptGiven): Promise<ProjectRow> {
  const { volume, folder } = given;
  await folderToAdopt(world, volume, folder);
  const edition = await readEdition(world.db, given.template, given.edition);
  if (edition === null) throw new Refused('no-template');
  const { bodies, editions } = await conventionsOf(world.db, given.template);
  const template: Template = {
    ...withConventions(edition, bodies),
    ...(Object.keys(given.adjusted).length > 0 && { adjusted: given.adjusted }),
  };
  const expansion = expandTemplate(template, given.values, await readRegisters(world.db));
  const refused = expansion.diagnostics.find((d) => d.weight === 'refused');
  if (refused) throw new Refused('plan-refused', { at: refused.line ?? refused.field ?? '', because: coded(refused) });
  if (String(expansion.values.values.number ?? '') === '') throw new Refused('number-missing');
  const id = randomUUID();
  await underLease(world, id, async ({ lost }) => {
    const request = { ...given, settings: {}, into: true };
    const firstDay = template.setup?.firstDay ?? [];
    await claim(world, person, { id, request, expansion, editions, firstDay, folder });
    // Nothing of it is touched: only Nesting's own folder is made in it, and, where one wants them, the folders it lacks.
    const changes = requireOrder(
      startChanges({ template, expansion, project: id, started: new Date().toISOString() }),
    ).filter(({ subject, entry }) => subject.kind === 'own' || (given.makeMissing && entry === 'folder'));
    const where = await readyVolume(world, volume);
    const task = { where, folder, project: id, changes, contents: new Map() };
    const outcome = await onDisk(world.disks.run('addTo', task, { lost }), lost);
    if (!outcome.ok && outcome.code === 'DISK-ENDED') return foundOut(world, id, volume, folder);
    if (!outcome.ok) return giveUp(world, person, id, volume, folder, outcome);
    await concludeStart(world, id, (client) =>
      recordActivity(
        client,
        'project-adopted',
        person,
        id,
        { folder, volume, template: edition.name },
        `project:${id}`,
      ),
    );
  });
  await checkProject(world, id, person);
  const project = await readProjectRow(world.db, id);
  if (project === null) throw new Refused('project-gone');
  return project;
}
