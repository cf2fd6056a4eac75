import { GENERATED } from '../../project/generated';
import { isForGenerated } from '../../project/rules';
import { rule } from '../rule';

/**
 * A cache, preview, autosave or temporary file outside the folder meant for such. One that belongs to a document beside
 * it is its companion.
 */
export const strayGenerated = rule({
  code: 'stray-generated',
  weight: 'should',
  about: 'file',
  params: { name: 'text', bytes: 'count', home: 'text' },
  remedy: { act: 'choose', among: ['move', 'clear'] },
  file: (c) => {
    if (!c.rules.isGenerated(c.file.name) || c.line.rules.accepts?.includes(GENERATED)) return null;
    const home = c.rules.expansion.lines.find(isForGenerated);
    return { path: c.path, params: { name: c.file.name, bytes: c.file.size, home: home?.path ?? '' } };
  },
});
