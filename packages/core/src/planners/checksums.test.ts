import { expect, test } from '@jest/globals';
import { rootIdOf } from '../change';
import type { Change } from '../change/change';
import { home } from '../change/place';
import { checkListing } from '../check';
import { NO_REGISTERS } from '../name';
import { readSums } from '../package';
import { ProjectRules } from '../project/rules';
import { normaliseTemplate } from '../template';
import { checksumLists } from './checksums';

const rules = new ProjectRules({
  template: normaliseTemplate({
    format: 'nesting/template',
    formatVersion: 1,
    name: 'Survey',
    fields: [{ key: 'days', type: 'list', of: { type: 'date' } }],
    conventions: [],
    registers: {
      families: [
        { name: 'still', extensions: ['jpg'] },
        { name: 'list', extensions: ['sha256'] },
      ],
    },
    root: {
      name: '{number}',
      folders: [
        {
          id: 'survey',
          name: 'survey',
          checksums: true,
          accepts: ['still'],
          folders: [{ id: 'day', name: '{day}', onePer: { list: 'days', as: 'day' }, accepts: ['still'] }],
        },
        { id: 'office', name: 'office', accepts: ['still'] },
      ],
    },
  }),
  values: { number: '26011', days: ['2026-03-02'] },
  registers: NO_REGISTERS,
  now: Date.UTC(2026, 3, 20),
});

const copied = (to: string, root = home(to)): Change => ({
  id: to,
  subject: { kind: 'file' },
  group: null,
  entry: 'file',
  before: null,
  after: root,
  content: { kind: 'copy', from: { root: rootIdOf('heap'), path: to } },
});
const hash = (digit: string) => digit.repeat(64);
const AT = '2026-11-28T17:30:02.123Z';
const NAME = 'checksums_2026-11-28_17-30-02-123.sha256';

test('a list lies in the nearest folder that keeps one, with paths from there; what nobody proved is not in it', () => {
  const changes = [
    copied('survey/2026-03-02/b.jpg'),
    copied('survey/a name  with "signs"\\.jpg'),
    copied('survey/moved.jpg'),
    copied('office/c.jpg'),
    copied('survey/second.jpg', { root: rootIdOf('double'), path: 'survey/second.jpg' }),
  ];
  const proved = Object.fromEntries(
    changes.filter(({ id }) => !id.includes('moved')).map(({ id }, i) => [id, hash(String(i + 1))]),
  );
  const lists = checksumLists(rules, { changes, proved, at: AT });
  expect(lists.map(({ after }) => after?.path)).toEqual([`survey/${NAME}`]);
  const [list] = lists;
  const text = list?.content?.kind === 'text' ? list.content.text : '';
  // As whoever checks it reads it.
  const { sums, bad } = readSums(text, 'sha256');
  expect(bad).toEqual([]);
  expect(new Map(sums.map((sum) => [sum.path, sum.hash]))).toEqual(
    new Map([
      ['2026-03-02/b.jpg', hash('1')],
      ['a name  with "signs"\\.jpg', hash('2')],
    ]),
  );
});

test('nothing that was proved is no list; a list is no finding where it belongs, and one elsewhere', () => {
  expect(checksumLists(rules, { changes: [copied('survey/a.jpg')], proved: {}, at: AT })).toEqual([]);
  expect(
    checksumLists(rules, { changes: [copied('office/a.jpg')], proved: { 'office/a.jpg': hash('1') }, at: AT }),
  ).toEqual([]);
  const found = (folder: string, name: string) =>
    checkListing(rules, [{ path: folder, folders: [], files: [{ name, size: 90, modified: 1 }], others: [] }])
      .findings.filter(({ path }) => path === `${folder}/${name}`)
      .map(({ rule }) => rule);
  expect(found('survey', NAME)).toEqual([]);
  expect(found('survey', 'checksums.sha256')).toEqual(['family-not-accepted']);
  expect(found('office', NAME)).toEqual(['family-not-accepted']);
});
