/** What of a project is compared: revisions that names alone tell, and files that somebody brought at one time. */
import { describe, expect, test } from '@jest/globals';
import { compareSides, itemsOfSide, type Scope } from '../src/compare';
import type { FolderListing } from '../src/listing';
import { NO_REGISTERS } from '../src/name';
import { ProjectRules } from '../src/project';
import { normaliseTemplate } from '../src/template';

const template = normaliseTemplate({
  format: 'nesting/template',
  formatVersion: 1,
  name: 'Plans',
  fields: [{ key: 'issues', type: 'list', of: { type: 'letters' }, revisions: 'issue' }],
  conventions: [{ id: 'plan', name: 'Plan', pattern: '{number}_{part:kebab}_{issue}.{ext}', families: ['plan'] }],
  registers: { families: [{ name: 'plan', extensions: ['dxf'] }] },
  root: {
    name: '{number}',
    folders: [
      { id: 'plans', name: 'plans', accepts: ['plan'], conventions: ['plan'] },
      {
        id: 'boards',
        name: 'boards',
        folders: [{ id: 'issue', name: 'issue-{issue}', onePer: { list: 'issues', as: 'issue' } }],
      },
    ],
  },
});
const rules = new ProjectRules({
  template,
  values: { number: '26011', issues: ['A', 'B'] },
  registers: NO_REGISTERS,
  now: Date.UTC(2026, 3, 20),
});

/** Files by their paths, each with what is in it. */
type Files = Readonly<Record<string, string>>;

function listingsOf(files: Files): FolderListing[] {
  const folders = ['', 'plans', 'boards', 'boards/issue-A', 'boards/issue-B'];
  const inside = (folder: string, path: string) => path.slice(0, Math.max(0, path.lastIndexOf('/'))) === folder;
  const nameIn = (path: string) => path.slice(path.lastIndexOf('/') + 1);
  return folders.map((path) => ({
    path,
    folders: folders.filter((other) => other !== '' && inside(path, other)).map(nameIn),
    files: Object.keys(files)
      .filter((file) => inside(path, file))
      .map((file) => ({ name: nameIn(file), size: 9, modified: 1 })),
    others: [],
  }));
}

const ALL: Scope = { within: '', revision: null, holds: null };

function compared(files: Files, left: Partial<Scope>, right: Partial<Scope>): (string | null)[][] {
  const side = (scope: Partial<Scope>) => itemsOfSide(rules, listingsOf(files), true, { ...ALL, ...scope });
  const rows = compareSides({
    left: side(left),
    right: side(right),
    sameContent: (one, other) => files[one.path] === files[other.path],
    contentOf: (_side, item) => files[item.path] ?? '',
  });
  return rows.map((row) => [row.state, row.left?.path ?? null, row.right?.path ?? null]).sort();
}

const revision = (entry: string): Partial<Scope> => ({ revision: { as: 'issue', entry } });

describe('one revision and another', () => {
  test('told by names alone, and by folders: what belongs to neither is left out', () => {
    const files = {
      'plans/26011_stage_A.dxf': 'stage',
      'plans/26011_stage_B.dxf': 'stage, wider',
      'plans/26011_roof_A.dxf': 'roof',
      'plans/26011_roof_B.dxf': 'roof',
      'plans/26011_cellar_B.dxf': 'cellar',
      'plans/notes.txt': 'of both',
      'boards/issue-A/overview.png': 'overview',
      'boards/issue-B/overview.png': 'overview, later',
    };
    expect(compared(files, revision('A'), revision('B'))).toEqual([
      ['changed', 'boards/issue-A/overview.png', 'boards/issue-B/overview.png'],
      ['changed', 'plans/26011_stage_A.dxf', 'plans/26011_stage_B.dxf'],
      ['only-right', null, 'plans/26011_cellar_B.dxf'],
      ['renamed', 'plans/26011_roof_A.dxf', 'plans/26011_roof_B.dxf'],
    ]);
    // One and itself are the same, and what the other has does not matter.
    expect(compared(files, revision('A'), revision('A')).filter(([state]) => state !== 'same')).toEqual([]);
    expect(compared(files, revision('C'), revision('B')).length).toBe(4);
  });
});

describe('what came at one time, and at another', () => {
  test('only those files, whatever else is there', () => {
    const files = {
      'plans/26011_stage_A.dxf': 'stage',
      'plans/scan 1.png': 'a scan',
      'boards/scan 1 again.png': 'a scan',
      'boards/scan 2.png': 'another',
    };
    const first = new Set(['plans/scan 1.png']);
    expect(
      compared(files, { holds: (path) => first.has(path) }, { holds: (path) => path.startsWith('boards/') }),
    ).toEqual([
      ['only-right', null, 'boards/scan 2.png'],
      ['renamed', 'plans/scan 1.png', 'boards/scan 1 again.png'],
    ]);
    expect(compared(files, { holds: () => false }, { holds: () => false })).toEqual([]);
  });
});
