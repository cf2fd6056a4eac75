import { rule } from '../rule';

/** Files that tell something else than the setup sheet agreed: those of one folder that have the same are one finding. */
export const settingMismatch = rule({
  code: 'setting-mismatch',
  weight: 'should',
  about: 'file',
  params: { name: 'text', setting: 'text', agreed: 'text', found: 'text', count: 'count' },
  remedy: { act: 'none' },
});
