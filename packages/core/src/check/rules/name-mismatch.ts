import { nameRule } from '../name-causes';

/** A well-formed code that no register knows. */
export const unknownCode = nameRule('unknown-code');
/** A version written otherwise than the convention writes it. */
export const versionStyle = nameRule('version-style');
/** Frames with other padding than the convention's. */
export const sequencePadding = nameRule('sequence-padding');
/**
 * A name that does not read by its folder's convention for any other or for several reasons: each part that fails, the
 * likeliest name meant.
 */
export const nameMismatch = nameRule('name-mismatch');
/** A banned word as a whole word of the name, where that is all that is wrong. */
export const bannedWord = nameRule('banned-word');
