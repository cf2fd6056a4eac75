/** Drafts that several people may write: templates, conventions, shared parts. Whoever comes late loses nothing. */
import { sqlFault } from '../../db/client';
import { Refused } from '../world';

/** What there is no draft of any more. */
type Gone = 'no-template' | 'no-block' | 'convention-gone';

/** @param save - gives the draft's new version, or `null` where somebody else has changed it since */
export async function keptDraft(save: () => Promise<number | null>, gone: Gone): Promise<{ version: number }> {
  const version = await save().catch((error: unknown) => {
    throw sqlFault(error)?.state === NO_PARENT ? new Refused(gone) : error;
  });
  if (version !== null) return { version };
  throw new Refused('draft-changed');
}

/** SQLSTATE of a foreign key that leads nowhere. */
const NO_PARENT = '23503';

/** Whoever puts a draft in force looked at another one. */
export const draftNotLookedAt = (): Refused => new Refused('draft-not-seen');
