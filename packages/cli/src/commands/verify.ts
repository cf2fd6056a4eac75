import path from 'node:path';
import { codeOf } from '@nesting/core/change';
import { shown } from '@nesting/core/text';
import { packageFaultWords } from '@nesting/core/words';
import { TASKS, type Verified } from '@nesting/disk';
import { EXIT, type Exit, Unusable } from '../fail';
import type { Options } from '../input';
import { print, progressLine } from '../output';
import { useHashThreads } from '../project-folder';

const FORMS = ['text', 'json'];

/** Whether a package is whole: a zip, a bag, a folder with a list of checksums. */
export async function verify(options: Options): Promise<Exit> {
  const as = options.as ?? 'text';
  if (!FORMS.includes(as)) throw new Unusable(`--as ${as}: one of ${FORMS.join(', ')}`);
  const [given, ...others] = options.positionals;
  if (given === undefined || others.length > 0) throw new Unusable('give one package: a file or a folder');
  useHashThreads();
  const verdict = await verdictOn(given);
  if (verdict.form === 'none' && verdict.faults.length === 0)
    throw new Unusable(`${given}: no list of checksums in it`);
  await print(as === 'json' ? `${JSON.stringify(verdict)}\n` : textOf(verdict, given));
  return verdict.isWhole ? EXIT.ok : EXIT.findings;
}

/** @throws Unusable where there is no such thing */
async function verdictOn(given: string): Promise<Verified> {
  const whole = path.resolve(given);
  const context = {
    cancel: new AbortController().signal,
    tell: async ({ files, allFiles }: { readonly files: number; readonly allFiles: number }) =>
      progressLine(`${files} of ${allFiles} files proved`),
  };
  try {
    return await TASKS.verifyFiles.run(
      { where: { base: path.dirname(whole), folder: '' }, path: path.basename(whole) },
      context,
    );
  } catch (error) {
    throw new Unusable(`${given}: cannot be read (${codeOf(error)})`);
  } finally {
    progressLine('');
  }
}

function textOf({ isWhole, proved, bytes, missing, changed, extra, faults, beside }: Verified, given: string): string {
  const lines = [
    ...missing.map((at) => `missing: ${at}`),
    ...changed.map(({ path: at, isUnreadable }) => `${isUnreadable ? 'unreadable' : 'changed'}: ${at}`),
    ...extra.map((at) => `extra: ${at}`),
    ...faults.map((fault) => packageFaultWords(fault)),
    ...beside.map((at) => `not covered by any list: ${at}`),
    `${isWhole ? 'whole' : 'not whole'}: ${proved} files, ${bytes} bytes proved: ${given}`,
  ];
  return lines.map((line) => `${shown(line)}\n`).join('');
}
