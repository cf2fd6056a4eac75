import { COMPARED, type ComparedRow, toldRow } from '@nesting/core/compare';
import { comparedCsv, comparedJson } from '@nesting/core/report';
import { shown } from '@nesting/core/text';
import { comparedWords } from '@nesting/core/words';
import { ALL_OF_IT, type SideTask, TASKS } from '@nesting/disk';
import { EXIT, type Exit, Unusable } from '../fail';
import type { Options } from '../input';
import { print, say } from '../output';
import { inputOf, isMarked, requireFolder } from '../project-folder';

const FORMS = ['text', 'json', 'csv'];

/** Two folders side by side: by what names mean where they are projects, else by their paths and contents. */
export async function compare(options: Options): Promise<Exit> {
  const as = options.as ?? 'text';
  if (!FORMS.includes(as)) throw new Unusable(`--as ${as}: one of ${FORMS.join(', ')}`);
  const [left, right, ...others] = options.positionals;
  if (left === undefined || right === undefined || others.length > 0) throw new Unusable('give two folders');
  const task = { left: sideOf(options, left), right: sideOf(options, right), mostRead: Number.POSITIVE_INFINITY };
  const context = { cancel: new AbortController().signal, tell: async () => undefined };
  const { rows, unseen } = await TASKS.compareFolders.run(task, context);
  for (const { side, path, code } of unseen) say(`not seen: ${path} (${side}, ${code})`);
  const told = rows.map(toldRow);
  const printers = { json: comparedJson, csv: comparedCsv };
  await print(as === 'text' ? textOf(rows) : printers[as as 'json' | 'csv'](told));
  return rows.some(({ state }) => state !== 'same') ? EXIT.findings : EXIT.ok;
}

function sideOf(options: Options, dir: string): SideTask {
  requireFolder(dir);
  const rules = isMarked(dir) ? inputOf(options, undefined, dir) : null;
  return { where: { base: dir, folder: '' }, mounts: [], rules, ...ALL_OF_IT };
}

/** What differs line by line, and how much there is of everything. */
function textOf(rows: readonly ComparedRow[]): string {
  const lines = rows.flatMap((row) => (row.state === 'same' ? [] : [`${shown(comparedWords(row))}\n`]));
  const counts = COMPARED.map((state) => `${state}: ${rows.filter((row) => row.state === state).length}`);
  return `${lines.join('')}${counts.join(', ')}\n`;
}
