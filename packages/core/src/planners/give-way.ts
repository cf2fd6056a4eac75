/** A corrected file comes for a name that lasts: what lies there gives way, and is kept. */
import { join } from '../listing/entry';
import { clashKey } from '../portable/name';
import type { PlannedLine } from '../template/expansion';

/** A file that lies where another one is to come. */
export interface GivingWay {
  readonly name: string;
  /** Milliseconds since 1970. */
  readonly modified: number;
}

/**
 * Where it is kept: dated, in the folder for older ones, under a name that is free there; `null` where there is no such
 * folder, and it is kept with the change.
 *
 * @param namesIn - names in a folder of the project, those that others are kept by included
 */
export function placeAmongOlder(
  line: PlannedLine | null,
  { name, modified }: GivingWay,
  namesIn: (folder: string) => readonly string[],
): string | null {
  const older = line?.folder?.older?.folder;
  if (line === null || older === undefined) return null;
  const folder = join(line.path, older);
  const taken = new Set(namesIn(folder).map(clashKey));
  const dot = name.lastIndexOf('.') > 0 ? name.lastIndexOf('.') : name.length;
  const dated = `${name.slice(0, dot)}_${new Date(modified).toISOString().slice(0, 10)}`;
  for (let n = 1; ; n++) {
    const kept = `${dated}${n === 1 ? '' : `_${n}`}${name.slice(dot)}`;
    if (!taken.has(clashKey(kept))) return join(folder, kept);
  }
}
