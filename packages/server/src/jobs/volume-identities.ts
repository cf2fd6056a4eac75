/** What the volumes that were taken up are known by, as this server last read it. */
import type { Db } from '../db/client';
import { readIdentities } from '../db/queries/house/volumes';

export class VolumeIdentities {
  private known: ReadonlyMap<string, string> = new Map();

  constructor(private readonly db: Db) {}

  /** Other servers take up volumes too. */
  async refresh(): Promise<void> {
    this.known = await readIdentities(this.db);
  }

  /** Empty for a volume that nobody took up: nothing is known by that. */
  of(volume: string): string {
    return this.known.get(volume) ?? '';
  }
}
