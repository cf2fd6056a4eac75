/**
 * The same tree that a start would write on a volume, as a zip, a script, or steps that a browser performs in a folder
 * of its own computer.
 */
import { randomUUID } from 'node:crypto';
import { buffer } from 'node:stream/consumers';
import type { StartGiven, WrittenAs } from '@nesting/contract';
import { inMakingOrder, type Made } from '@nesting/core/planners';
import { type FilledStep, planPowerShell, planSh } from '@nesting/core/report';
import { inOnePlace } from '@nesting/core/template';
import { base64 } from '@nesting/core/text';
import { ZipFile } from 'yazl';
import { recordActivity } from '../../db/queries/house/activity';
import type { World } from '../world';
import { type Planned, planStart } from './start-project';

export interface Written {
  readonly name: string;
  readonly type: string;
  readonly body: Uint8Array | string;
}

/** Without what lies on other volumes by itself: it is one tree. */
export const inOneTree = (start: StartGiven): StartGiven => ({ ...start, adjusted: inOnePlace(start.adjusted) });

/** What makes the project's folder, in order. */
export async function startSteps(world: World, start: StartGiven) {
  const planned = await planStart(world, inOneTree(start), { project: randomUUID(), prefix: '' });
  const ordered = inMakingOrder(planned.changes);
  const made = ordered.ok ? ordered.value : [];
  const steps = made.map(
    (one): FilledStep =>
      one.entry === 'folder'
        ? { do: 'make', path: one.path }
        : { do: 'write', path: one.path, base64: base64(planned.bytesOf(one.content)) },
  );
  return { planned, made, steps, folder: planned.expansion.rootName };
}

export async function writeStart(world: World, person: string, given: StartGiven, as: WrittenAs): Promise<Written> {
  const { planned, made, steps: filled } = await startSteps(world, given);
  const { expansion } = planned;
  await recordActivity(world.db, 'start-written', person, null, {
    folder: expansion.rootName,
    as,
    folders: expansion.folders,
    files: expansion.files,
  });
  const name = expansion.rootName;
  switch (as) {
    case 'sh':
      return { name: `${name}.sh`, type: 'text/x-shellscript', body: planSh(name, filled) };
    case 'powershell':
      return { name: `${name}.ps1`, type: 'text/plain', body: `\ufeff${planPowerShell(name, filled)}` };
    case 'steps':
      return { name: `${name}.json`, type: 'application/json', body: JSON.stringify({ root: name, steps: filled }) };
    case 'zip':
      return { name: `${name}.zip`, type: 'application/zip', body: await zipped(planned, made) };
  }
}

/** Empty folders are entries of their own. */
async function zipped({ expansion, bytesOf }: Planned, made: readonly Made[]): Promise<Uint8Array> {
  const zip = new ZipFile();
  zip.addEmptyDirectory(expansion.rootName);
  for (const one of made) {
    const path = `${expansion.rootName}/${one.path}`;
    if (one.entry === 'folder') zip.addEmptyDirectory(path);
    else zip.addBuffer(Buffer.from(bytesOf(one.content)), path);
  }
  zip.end();
  return buffer(zip.outputStream);
}
