import { randomUUID } from 'node:crypto';
import path from 'node:path';
import { parseRegisters, parseTemplate } from '@nesting/contract';
import { codeOf } from '@nesting/core/change';
import { NO_REGISTERS } from '@nesting/core/name';
import { ownFiles } from '@nesting/core/planners';
import type { ReadPackage } from '@nesting/core/report';
import { expandTemplate } from '@nesting/core/template';
import { shown } from '@nesting/core/text';
import { TASKS, volumeState } from '@nesting/disk';
import { EXIT, type Exit, Unusable } from '../fail';
import type { Options } from '../input';
import { print, progressLine, say } from '../output';
import { useHashThreads } from '../project-folder';

/** A project from its package, with its rules beside it. */
export async function unpack(options: Options): Promise<Exit> {
  const [given] = options.positionals;
  const { into } = options;
  if (given === undefined) throw new Unusable('give a package: a file or a folder');
  if (into === undefined) throw new Unusable('say where, with --into PARENT');
  if (volumeState(into).state === 'missing') throw new Unusable(`${into}: no such folder`);
  useHashThreads();
  const whole = path.resolve(given);
  const at = { where: { base: path.dirname(whole), folder: '' }, path: path.basename(whole) };
  const context = {
    cancel: new AbortController().signal,
    tell: async ({ files, allFiles }: { readonly files: number; readonly allFiles: number }) =>
      progressLine(`${files} of ${allFiles} files`),
  };
  try {
    const { verdict, read } = await TASKS.lookAtPackage.run(at, context);
    progressLine('');
    if (verdict.form !== 'none' && !verdict.isWhole) {
      say(`${given} is not whole: nothing was unpacked (nesting verify says what is wrong)`);
      return EXIT.findings;
    }
    if (read === null) throw new Unusable(`${given}: no package of this program`);
    const { folder } = read.record;
    const task = { ...at, read, into: { base: into, folder: '' }, folder, own: ownOf(read), id: randomUUID() };
    await TASKS.unpackPackage.run(task, context);
    progressLine('');
    await print(`${read.files.length} files: ${shown(path.join(into, folder))}\n`);
    return EXIT.ok;
  } catch (error) {
    if (error instanceof Unusable) throw error;
    const code = codeOf(error);
    throw new Unusable(
      code === 'EEXIST' ? `the project's folder exists already in ${into}` : `${given}: cannot be unpacked (${code})`,
    );
  }
}

/** The marker and the rules, as a start writes them. */
function ownOf({ record, template: text, registers: known }: ReadPackage): ReturnType<typeof ownFiles> {
  const template = parseTemplate(text, "the package's template");
  if (!template.ok) throw new Unusable(template.faults[0] ?? 'its template cannot be read');
  const parsed = known === '' ? null : parseRegisters(known);
  const registers = parsed?.ok ? parsed.value : NO_REGISTERS;
  const expansion = expandTemplate(template.value, record.values, registers);
  return ownFiles({ template: template.value, expansion, project: record.project || randomUUID(), started: record.at });
}
