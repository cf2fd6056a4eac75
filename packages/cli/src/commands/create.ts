import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { planPaths } from '@nesting/core/report';
import { expandTemplate } from '@nesting/core/template';
import { inRoot, startOnDisk, volumeState } from '@nesting/disk';
import { EXIT, type Exit, Unusable } from '../fail';
import { type Options, registersOf, templateOf, valuesOf } from '../input';
import { print, say } from '../output';
import { makingOf } from '../starters';
import { planJson, refused, sayDiagnostics } from './expand';

/** Writes a project into a folder: whole, or not at all. */
export async function create(options: Options): Promise<Exit> {
  const [file] = options.positionals;
  if (file === undefined) throw new Unusable('give a template file');
  if (options.into === undefined) throw new Unusable('say where, with --into PARENT');
  const { template, folder } = templateOf(file);
  const parent = options.into;
  const state = volumeState(parent).state;
  if (state === 'missing') throw new Unusable(`${parent}: no such folder`);
  const expansion = expandTemplate(template, valuesOf(options), registersOf(options), { prefix: `${parent}/` });
  const json = options.as === 'json';
  if (refused(expansion)) {
    sayDiagnostics(expansion);
    say('nothing was written');
    return EXIT.findings;
  }
  const project = randomUUID();
  const { changes, bytesOf } = makingOf(template, folder, expansion, project, new Date().toISOString());
  if (options.dryRun) {
    sayDiagnostics(expansion);
    await print(json ? planJson(expansion) : planPaths(expansion));
    return EXIT.ok;
  }
  const root = join(parent, expansion.rootName);
  const outcome = await inRoot({ base: parent, folder: '' }, (volume) =>
    startOnDisk({ parent: volume, folder: expansion.rootName, project, changes, bytesOf }),
  );
  if (!outcome.ok) {
    const why =
      outcome.code === 'EEXIST'
        ? `${root} exists already`
        : `${outcome.at === '' ? parent : outcome.at}: ${outcome.code}`;
    say(`${why}; ${outcome.stayed.length === 0 ? 'nothing was written' : `left behind: ${outcome.stayed.join(', ')}`}`);
    return EXIT.findings;
  }
  await print(
    json
      ? `${JSON.stringify({ root, project, folders: expansion.folders, files: expansion.files })}\n`
      : `made ${expansion.folders} folders and ${expansion.files} files in ${root}\n`,
  );
  return EXIT.ok;
}
