import { NAME_PARAMS, nameFinding } from '../name-causes';
import { rule } from '../rule';

export const ABOUT_NAME = {
  weight: 'must',
  about: 'file',
  params: NAME_PARAMS,
  remedy: { act: 'rename', to: 'suggested' },
} as const;

/** A well-formed code that no register knows. */
export const unknownCode = rule({
  code: 'unknown-code',
  weight: 'must',
  about: 'file',
  params: { ...NAME_PARAMS, codes: 'texts', fields: 'texts' },
  remedy: { act: 'choose', among: ['known-code', 'add-to-lists'] },
  file: (c) => {
    const found = nameFinding(c, 'unknown-code');
    if (found === null) return null;
    const { cause, params, ...more } = found;
    const [codes, fields] = [cause.codes.map((k) => k.found), cause.codes.map((k) => k.field)];
    return { ...more, params: { ...params, codes, fields } };
  },
});
/** A version written otherwise than the convention writes it. */
export const versionStyle = rule({
  code: 'version-style',
  ...ABOUT_NAME,
  file: (c) => nameFinding(c, 'version-style'),
});
/** Frames with other padding than the convention's. */
export const sequencePadding = rule({
  code: 'sequence-padding',
  ...ABOUT_NAME,
  file: (c) => nameFinding(c, 'sequence-padding'),
});
/**
 * A name that does not read by its folder's convention for any other or for several reasons: each part that fails, the
 * likeliest name meant.
 */
export const nameMismatch = rule({
  code: 'name-mismatch',
  ...ABOUT_NAME,
  file: (c) => nameFinding(c, 'name-mismatch'),
});
