import { describe, expect, test } from '@jest/globals';
import { foldersFrom } from './folders';
import { commonRoot, formatOfListing, parseListing } from './text';

const TREE = [
  '26014',
  '├── 01_paper',
  '│   └── quote.pdf',
  '└── 20_survey',
  '    ├── a b.jpg',
  '    └── night',
  '',
  '3 directories, 2 files',
].join('\n');
const OUTLINE = '26014\n\t01_paper\n\t\tquote.pdf\n\t20_survey\n\t\ta b.jpg\n\t\tnight/\n';
const PATHS =
  './26014\n./26014/01_paper\n./26014/01_paper/quote.pdf\n./26014/20_survey\n./26014/20_survey/a b.jpg\n./26014/20_survey/night\n';
const CSV =
  'path;type;size\r\n26014/01_paper/quote.pdf;file;12\r\n26014/20_survey/a b.jpg;file;7\r\n26014/20_survey/night;folder;\r\n';
const JSON_LIST = JSON.stringify([
  { path: '26014/01_paper/quote.pdf', size: 12 },
  '26014/20_survey/a b.jpg',
  { path: '26014/20_survey/night', type: 'folder' },
]);

describe('listings as text', () => {
  test.each([
    ['tree', TREE],
    ['outline', OUTLINE],
    ['paths', PATHS],
    ['csv', CSV],
    ['json', JSON_LIST],
  ])('%s is told from its looks, and says the same as the others', (form, text) => {
    expect(formatOfListing(text)).toBe(form);
    const lines = parseListing(text);
    expect(commonRoot(lines)).toBe('26014');
    const folders = foldersFrom(lines, '26014')
      .map((f) => [f.path, [...f.folders].sort(), f.files.map((x) => x.name)])
      .sort();
    expect(folders).toEqual([
      ['', ['01_paper', '20_survey'], []],
      ['01_paper', [], ['quote.pdf']],
      ['20_survey', ['night'], ['a b.jpg']],
      ['20_survey/night', [], []],
    ]);
  });

  test.each([
    [
      'a separator, a line and quotes in a name',
      'path,type\n"a, b/c ""x"".mov",file\n"two\nlines.txt",file\n',
      ['a, b/c "x".mov', 'two\nlines.txt'],
    ],
    ['a quote never closed', 'path,type\n"a.mov,file\nb.mov,file\n', ['"a.mov', 'b.mov']],
    ['a byte order mark, other columns, a short line', '\ufeffsize;Path\r\n3;a.mov\r\n;\r\n4\r\n', ['a.mov']],
  ])('CSV with %s', (_, text, paths) => {
    expect(parseListing(text).map((l) => l.path)).toEqual(paths);
  });
});
