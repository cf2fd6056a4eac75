/**
 * The same tree that a start would write on a volume, as a zip, a script, or steps that a browser performs in a folder
 * of its own computer.
 */
import { randomUUID } from 'node:crypto';
import { buffer } from 'node:stream/consumers';
import type { StartGiven, WrittenAs } from '@nesting/contract';
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

export async function writeStart(world: World, person: string, given: StartGiven, as: WrittenAs): Promise<Written> {
  const planned = await planStart(world, { ...given, adjusted: inOnePlace(given.adjusted) }, '');
  const { expansion } = planned;
  const steps = planned.stepsFor(randomUUID(), new Date().toISOString());
  const filled = steps.map(
    (s): FilledStep =>
      s.do === 'make' ? s : { key: s.key, do: 'write', path: s.path, base64: base64(planned.bytesOf(s.content)) },
  );
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
      return { name: `${name}.zip`, type: 'application/zip', body: await zipped(planned, steps) };
  }
}

/** Empty folders are entries of their own. */
async function zipped({ expansion, bytesOf }: Planned, steps: ReturnType<Planned['stepsFor']>): Promise<Uint8Array> {
  const zip = new ZipFile();
  zip.addEmptyDirectory(expansion.rootName);
  for (const step of steps) {
    if (step.do === 'make') zip.addEmptyDirectory(`${expansion.rootName}/${step.path}`);
    else zip.addBuffer(Buffer.from(bytesOf(step.content)), `${expansion.rootName}/${step.path}`);
  }
  zip.end();
  return buffer(zip.outputStream);
}
