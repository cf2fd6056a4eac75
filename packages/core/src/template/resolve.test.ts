import { describe, expect, test } from '@jest/globals';
import { NO_REGISTERS } from '../name/pattern/field';
import { expandTemplate } from './expand';
import type { FolderNode, Template } from './node';
import { normaliseTemplate } from './normalise';
import { type ResolvedFolder, resolveTemplate } from './resolve';
import { visitFolders } from './visit';

const template = (root: Partial<FolderNode>, more: Partial<Template> = {}): Template =>
  normaliseTemplate({
    format: 'nesting/template',
    formatVersion: 1,
    name: 'T',
    fields: [{ key: 'kind', type: 'choice', options: [{ code: 'a' }] }],
    conventions: [{ id: 'c', name: 'C', pattern: '{title}' }],
    root: { id: 'root', name: 'root', ...root },
    ...more,
  } as never);

function flat(folder: ResolvedFolder, depth = 0): string[] {
  return [
    `${' '.repeat(depth)}${folder.numberPrefix}${folder.node.name} #${folder.id}`,
    ...folder.folders.flatMap((f) => flat(f, depth + 1)),
  ];
}
const resolved = (t: Template) =>
  resolveTemplate(t, { ...NO_REGISTERS, families: [{ name: 'still', extensions: ['png'] }] });
const numbering = { digits: 2, joiner: '_', reserved: [{ number: 2 }] };

describe('a template made ready', () => {
  test('numbers: given ones stay, absent ones go on above, reserved ones and those of entries are left out', () => {
    const t = template({
      numbering,
      folders: [
        { id: 'a', name: 'a' },
        { id: 'b', name: 'b' },
        { id: 'e', name: '{x}', onePer: { list: 'l', as: 'x' } },
        { id: 'c', name: 'c', number: 7 },
        { id: 'd', name: 'd' },
      ],
    });
    expect(flat(resolved(t).root).slice(1)).toEqual([' 01_a #a', ' 03_b #b', ' {x} #e', ' 07_c #c', ' 08_d #d']);
  });

  test('a block used twice has two sets of identities, and takes its host’s numbers', () => {
    const t = template(
      {
        numbering,
        folders: [
          { id: 'one', block: 'p' },
          { id: 'two', name: 'two', block: 'p' },
        ],
      } as never,
      { blocks: [{ id: 'p', folders: [{ id: 'q', name: 'q', number: 9, folders: [{ id: 'r', name: 'r' }] }] }] },
    );
    expect(flat(resolved(t).root)).toEqual([
      'root #root',
      ' 01_q #one/q',
      '  r #one/r',
      ' 03_two #two',
      '  q #two/q',
      '   r #two/r',
    ]);
  });

  test('conditions of a block hold for what it brings, beside the folders’ own', () => {
    const t = template({ folders: [{ id: 'h', block: 'p', onlyWhen: { field: 'kind', is: 'a' } }] } as never, {
      blocks: [{ id: 'p', folders: [{ id: 'q', name: 'q', onlyWhen: { field: 'kind', is: ['b', 'c'] } }] }],
    });
    expect(resolved(t).root.folders[0]?.conditions).toEqual([
      { field: 'kind', is: 'a' },
      { field: 'kind', is: ['b', 'c'] },
    ]);
  });

  test('families and conventions hold below until replaced', () => {
    const t = template({
      folders: [
        {
          id: 'a',
          name: 'a',
          accepts: ['still'],
          conventions: ['c'],
          folders: [
            { id: 'b', name: 'b' },
            { id: 'n', name: 'n', accepts: [], conventions: [] },
          ],
        },
      ],
    });
    const [a] = resolved(t).root.folders;
    expect([a?.rules.accepts, a?.folders[0]?.rules.accepts, a?.folders[1]?.rules.accepts]).toEqual([
      ['still'],
      ['still'],
      [],
    ]);
    expect([a?.folders[0]?.rules.conventions, a?.folders[1]?.rules.conventions]).toEqual([['c'], []]);
    expect([a?.rules.holdsFolders, a?.folders[0]?.rules.holdsFolders]).toEqual([true, false]);
  });

  test.each<[string, Partial<FolderNode>, string[]]>([
    [
      'a number given twice',
      {
        numbering,
        folders: [
          { id: 'a', name: 'a', number: 3 },
          { id: 'b', name: 'b', number: 3 },
        ],
      },
      ['b number-twice'],
    ],
    ['a reserved number', { numbering, folders: [{ id: 'a', name: 'a', number: 2 }] }, ['a number-twice']],
    ['an unknown family', { folders: [{ id: 'a', name: 'a', accepts: ['smells'] }] }, ['a family-unknown']],
    [
      'a condition on nothing',
      { folders: [{ id: 'a', name: 'a', onlyWhen: { field: 'nobody', is: 'x' } }] },
      ['a field-unknown'],
    ],
    ['a folder without a name', { folders: [{ id: 'a' }] }, ['a name-absent']],
    ['an unknown block', { folders: [{ id: 'a', block: 'none' }] }, ['a block-unknown']],
  ])('%s is said at its node', (_what, root, said) => {
    expect(resolved(template(root)).diagnostics.map((d) => `${d.node} ${d.code}`)).toEqual(said);
  });

  test('blocks that hold each other end, and it is said', () => {
    const t = template({ folders: [{ id: 'h', block: 'a' }] } as never, {
      blocks: [
        { id: 'a', folders: [{ id: 'x', name: 'x', block: 'b' }] },
        { id: 'b', folders: [{ id: 'y', name: 'y', block: 'a' }] },
      ],
    });
    expect(resolved(t).diagnostics.map((d) => d.code)).toContain('block-in-itself');
    expect(flat(resolved(t).root).length).toBeLessThan(10);
  });

  test('a visitor may pass folders over', () => {
    const seen: string[] = [];
    visitFolders(
      template({
        folders: [
          { id: 'a', name: 'a', folders: [{ id: 'b', name: 'b' }] },
          { id: 'c', name: 'c' },
        ],
      }).root,
      (node, depth) => {
        seen.push(`${depth}${node.id}`);
        return node.id === 'a' ? 'skip' : undefined;
      },
    );
    expect(seen).toEqual(['0root', '1a', '1c']);
  });
});

test('a named folder that holds a block may hold it once more beside what is in it: no circle', () => {
  const template = normaliseTemplate({
    format: 'nesting/template',
    formatVersion: 1,
    name: 'T',
    fields: [],
    conventions: [],
    blocks: [{ id: 'paper', folders: [{ name: 'quotes' }, { name: 'permits' }] }],
    root: {
      name: 'p',
      folders: [
        { id: 'office', name: 'office', block: 'paper', folders: [{ id: 'older', name: 'older', block: 'paper' }] },
      ],
    },
  } as never);
  const { lines, diagnostics } = expandTemplate(template, {}, NO_REGISTERS);
  expect(diagnostics).toEqual([]);
  expect(lines.map((l) => l.path).sort()).toEqual([
    '',
    'office',
    'office/older',
    'office/older/permits',
    'office/older/quotes',
    'office/permits',
    'office/quotes',
  ]);
});
