/**
 * The journal of a batch in a folder of this computer, as on a volume.
 *
 * A browser writes a file anew, whole, for each line that is added to it. So outcomes are written into small files
 * beside the intents, and come to them when the batch has ended.
 */
import {
  BATCHES,
  intentLines,
  JOURNAL,
  type Journal,
  KEPT,
  NEW,
  type Outcome,
  outcomeLine,
  type ReadJournal,
  readJournal,
} from '@nesting/core/change';
import { OWN_FOLDER } from '@nesting/core/project';

type Folder = FileSystemDirectoryHandle;

/** Outcomes in one file. */
const OUTCOMES_A_FILE = 200;

const PART = /^outcomes-\d{6}\.ndjson$/;
const partName = (number: number): string => `outcomes-${String(number).padStart(6, '0')}.ndjson`;

export async function browserJournal(root: Folder, id: string): Promise<Journal> {
  let at = root;
  for (const part of [OWN_FOLDER, BATCHES, id]) at = await at.getDirectoryHandle(part, { create: true });
  for (const part of [NEW, KEPT]) await at.getDirectoryHandle(part, { create: true });
  let number = (await partsIn(at)).length;
  let lines: string[] = [];
  return {
    group: 1,
    begin: (intents) => write(at, JOURNAL, intentLines(intents)),
    outcome: async (outcome) => {
      if (lines.length === OUTCOMES_A_FILE) [number, lines] = [number + 1, []];
      lines.push(outcomeLine(outcome));
      await write(at, partName(number), lines);
      if (isEnd(outcome)) await joined(at);
    },
  };
}

const isEnd = (outcome: Outcome): boolean => 'ended' in outcome && outcome.ended !== 'paused';

export async function readBrowserJournal(folder: Folder): Promise<ReadJournal> {
  const texts = await Promise.all([JOURNAL, ...(await partsIn(folder))].map((name) => textOf(folder, name)));
  return readJournal(texts.join('\n').split('\n'));
}

async function partsIn(folder: Folder): Promise<string[]> {
  const names: string[] = [];
  for await (const [name] of folder.entries()) if (PART.test(name)) names.push(name);
  return names.sort();
}

const textOf = async (folder: Folder, name: string): Promise<string> =>
  (await (await folder.getFileHandle(name)).getFile()).text();

async function write(folder: Folder, name: string, texts: Iterable<string>): Promise<void> {
  const stream = await (await folder.getFileHandle(name, { create: true })).createWritable();
  await stream.write(new Blob([...texts]));
  await stream.close();
}

/** Twice the same outcome, where the page is closed in between, says no more than once. */
async function joined(folder: Folder): Promise<void> {
  const parts = await partsIn(folder);
  await write(folder, JOURNAL, await Promise.all([JOURNAL, ...parts].map((name) => textOf(folder, name))));
  for (const part of parts) await folder.removeEntry(part);
}
