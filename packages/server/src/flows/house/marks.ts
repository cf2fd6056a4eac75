/** What the house means by its marks. */
import type { Mark } from '@nesting/core/template';
import { sqlFault, transaction } from '../../db/client';
import { recordActivity } from '../../db/queries/house/activity';
import { writeMeaning } from '../../db/queries/house/marks';
import { Refused, type World } from '../world';

/** Gives a mark other words, or none. `was` is what it meant when this was begun. */
export async function saveMeaning(world: World, person: string, mark: Mark, words: string, was: string): Promise<void> {
  try {
    await transaction(world.db, async (client) => {
      if (!(await writeMeaning(client, mark, words, was))) throw new Refused('meaning-changed');
      await recordActivity(client, 'meaning-changed', person, null, { mark, was, now: words }, 'marks');
    });
  } catch (error) {
    if (sqlFault(error)?.constraint === 'mark_meaning_words') throw new Refused('meaning-taken', { words });
    throw error;
  }
}
