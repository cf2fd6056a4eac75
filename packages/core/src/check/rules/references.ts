import { rule } from '../rule';

const about = {
  weight: 'must',
  about: 'file',
  params: { name: 'text', targets: 'texts', count: 'count' },
  remedy: { act: 'point-to-file' },
} as const;

/** A reference by a whole path: it holds on one machine alone. */
export const absoluteReference = rule({ code: 'absolute-reference', ...about });
/** A reference out of the project. */
export const outsideReference = rule({ code: 'outside-reference', ...about });
/** A reference to nothing. */
export const brokenReference = rule({ code: 'broken-reference', ...about });
