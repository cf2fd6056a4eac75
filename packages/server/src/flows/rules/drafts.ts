/** Drafts that several people may write: templates, conventions, shared parts. Whoever comes late loses nothing. */
import { sqlFault } from '../../db/client';
import { Refused } from '../world';

/** What there is no draft of any more: its code and what is said. */
interface Gone {
  readonly code: string;
  readonly words: string;
}

/** @param save - gives the draft's new version, or `null` where somebody else has changed it since */
export async function keptDraft(save: () => Promise<number | null>, gone: Gone): Promise<{ version: number }> {
  const version = await save().catch((error: unknown) => {
    throw sqlFault(error)?.state === NO_PARENT ? new Refused(404, gone.code, gone.words) : error;
  });
  if (version !== null) return { version };
  throw new Refused(
    409,
    'draft-changed',
    'Somebody else has changed this draft since. What you wrote is still in this window; what they changed can be looked at first.',
  );
}

/** SQLSTATE of a foreign key that leads nowhere. */
const NO_PARENT = '23503';

/** Whoever puts a draft in force looked at another one. */
export const draftNotLookedAt = (): Refused =>
  new Refused(
    409,
    'draft-changed',
    'The draft is not the one you looked at any more. Nothing was put in force; reload to see it.',
  );
