/** What a package says of itself to somebody who has only the package. */
import { expect, test } from '@jest/globals';
import { NO_REGISTERS } from '../name/pattern/field';
import { layoutOf } from '../package';
import { ProjectRules } from '../project/rules';
import { normaliseTemplate } from '../template';
import { packageRecord } from './packed';

test('its sheet has what the project chose, and what is usual where it chose nothing', () => {
  const template = normaliseTemplate({
    ...{ format: 'nesting/template', formatVersion: 1, name: 'T', fields: [], conventions: [], root: { name: 'x' } },
    setup: {
      settings: [
        { label: 'Frame rate', value: '25', allowed: ['24', '25'], why: 'What the media servers play.' },
        { label: 'Picture size', value: '3840 × 2160' },
        { label: 'constructor', value: 'nobody' },
      ],
    },
  } as never);
  const rules = new ProjectRules({ template, values: { number: '1' }, registers: NO_REGISTERS });
  const about = {
    number: '1',
    title: '',
    client: '',
    folder: 'x',
    recipient: '',
    note: '',
    at: '2026-03-09T10:00:00Z',
    by: '',
  };
  const texts = packageRecord({
    ...{ kind: 'zip' as const, layout: layoutOf('zip', 'x', new Set()), about, project: 'p', rules, values: {} },
    ...{
      settings: { 'Frame rate': '24', 'Sound rate': '96 kHz' },
      accepted: [],
      licensed: [],
      files: [],
      emptyFolders: [],
      leftOut: [],
    },
  });
  expect(texts.find(({ path }) => path.endsWith('sheet.txt'))?.text).toBe(
    'Frame rate: 24 (What the media servers play.)\nPicture size: 3840 × 2160\nconstructor: nobody\n',
  );
});
