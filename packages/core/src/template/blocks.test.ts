import { expect, test } from '@jest/globals';
import { NO_REGISTERS } from '../name/pattern/field';
import { blockFromFolder, dropBlock, placeBlock, rootOfBlock, usesOf, withBlock } from './blocks';
import { insertFolders } from './edit';
import { expandTemplate } from './expand';
import type { Template } from './node';

const template: Template = {
  format: 'nesting/template',
  formatVersion: 1,
  id: 't',
  name: 'T',
  fields: [],
  conventions: [],
  root: {
    id: 'root',
    name: '{number}',
    folders: [
      {
        id: 'papers',
        name: 'papers',
        folders: [
          { id: 'quotes', name: 'quotes' },
          { id: 'rights', name: 'rights', folders: [{ id: 'music', name: 'music' }] },
        ],
      },
      { id: 'sound', name: 'sound' },
    ],
  },
};
const paths = (t: Template) =>
  expandTemplate(t, { number: '26001' }, NO_REGISTERS)
    .lines.map((l) => l.path)
    .sort();

test('what becomes a block makes the same folders, and is changed once for all places that use it', () => {
  const { template: blocked, block } = blockFromFolder(template, 'papers');
  expect(block).toBe('papers');
  expect(paths(blocked)).toEqual(paths(template));
  const twice = placeBlock(blocked, 'sound', 'papers');
  expect(usesOf(twice, 'papers')).toHaveLength(2);
  const root = rootOfBlock(twice.blocks?.[0] as never);
  const changed = withBlock(
    twice,
    'papers',
    insertFolders(root, { parent: root.id, index: 1 }, [{ id: 'permits', name: 'permits' }]),
  );
  expect(paths(changed)).toEqual(expect.arrayContaining(['papers/permits', 'sound/permits']));
  expect(dropBlock(changed, 'papers')).toBe(changed);
  expect(dropBlock({ ...template, blocks: changed.blocks }, 'papers').blocks).toEqual([]);
});

test('an empty folder, or one that is a block already, stays what it is', () => {
  expect(blockFromFolder(template, 'sound')).toEqual({ template, block: null });
  const { template: blocked } = blockFromFolder(template, 'papers');
  expect(blockFromFolder(blocked, 'papers').block).toBeNull();
});
