/** The journal of a batch in a folder of this computer, as on a volume. */
import { BATCHES, intentLines, JOURNAL, type Journal, KEPT, NEW, outcomeLine } from '@nesting/core/change';
import { OWN_FOLDER } from '@nesting/core/project';

export async function browserJournal(root: FileSystemDirectoryHandle, id: string): Promise<Journal> {
  let at = root;
  for (const part of [OWN_FOLDER, BATCHES, id]) at = await at.getDirectoryHandle(part, { create: true });
  for (const part of [NEW, KEPT]) await at.getDirectoryHandle(part, { create: true });
  const file = await at.getFileHandle(JOURNAL, { create: true });
  const write = async (texts: Iterable<string>, from: number) => {
    const stream = await file.createWritable({ keepExistingData: from > 0 });
    await stream.seek(from);
    await stream.write(new Blob([...texts]));
    await stream.close();
  };
  return {
    group: 1,
    begin: (intents) => write(intentLines(intents), 0),
    outcome: async (outcome) => write([outcomeLine(outcome)], (await file.getFile()).size),
  };
}
