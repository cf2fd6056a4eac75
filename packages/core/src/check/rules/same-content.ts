import { rule } from '../rule';

/** Files that are the same to the last byte, or sequences of such files. */
export const sameContent = rule({
  code: 'same-content',
  weight: 'should',
  about: 'file',
  params: { name: 'text', count: 'count', bytes: 'count' },
  remedy: { act: 'choose', among: ['which-stays'] },
});
