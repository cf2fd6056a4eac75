/** Loose files and their places: the score holds, what comes leaves no finding, cards, pairs, days, what a person says. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { HABITS } from '../../../corpus/intake/habits';
import { heapsOfNames } from '../../../corpus/intake/heaps';
import { PROJECTS, type ProjectName, REGISTERS } from '../../../corpus/intake/projects';
import { planned, scoreOf, scorePairs } from '../../../corpus/intake/score-intake';
import { rootIdOf } from '../src/change';
import { checkListing } from '../src/check';
import { type MediaFacts, nameOf, parentOf } from '../src/listing';
import { dateIn } from '../src/name/dates/date-in';
import { type IntakeGiven, intake, isTaken, type LooseFile, PLAIN_PAIRING, withEntries } from '../src/planners';
import { ProjectRules } from '../src/project';
import { distinctTargets, refFormatOf } from '../src/references';
import { pairsOtio } from '../src/report';

const NOW = Date.parse('2026-05-15T09:00:00Z');
const PROJECT_NAMES = Object.keys(PROJECTS) as ProjectName[];

const loose = (path: string, facts: MediaFacts = {}, size = 10): LooseFile => ({
  ...{ path, facts, size, modified: NOW - 86_400_000 * 3 },
});

const inputOf = (project: ProjectName) => ({ ...PROJECTS[project], registers: REGISTERS, now: NOW });

function plan(project: ProjectName, files: readonly LooseFile[], more: Partial<IntakeGiven> = {}) {
  const given: IntakeGiven = {
    ...{ input: inputOf(project), files, sourceName: 'A003', placed: {}, pairing: PLAIN_PAIRING, isMove: false },
    ...{ root: rootIdOf('heap'), there: () => [], sameAs: () => null, fileAt: () => null, referrers: () => 0, ...more },
  };
  const made = intake(given);
  return { ...made, of: (from: string) => made.items.find((item) => item.from === from) };
}

describe('the score', () => {
  test.each(['tune', 'measure'] as const)('habits, %s: what people send, by a list that was written first', (part) => {
    const score = scoreOf(part, 'habits');
    expect(score.sureWrong).toEqual([]);
    expect(score.right / score.placed).toBeGreaterThanOrEqual(0.95);
    expect(score.rightName / score.named).toBeGreaterThanOrEqual(0.95);
    expect(score.plainSure / score.plain).toBeGreaterThanOrEqual(0.6);
  });

  test.each(['tune', 'measure'] as const)('good names as they come back, %s', (part) => {
    const score = scoreOf(part, 'names');
    expect(score.sureWrong).toEqual([]);
    expect(score.right / score.placed).toBeGreaterThanOrEqual(0.95);
    expect(score.rightName / score.named).toBeGreaterThanOrEqual(0.95);
  });

  test.each([0, 37, -3600, 90_000 / 24])('pairs, with a clock %d seconds ahead', (ahead) => {
    const { right, all, found } = scorePairs(ahead);
    expect([right, found]).toEqual([all, all]);
  });
});

describe('laws', () => {
  test.each(PROJECT_NAMES)('%s: what comes by itself leaves no finding, and no place is wanted twice', (project) => {
    const habits = [...HABITS[project], ...heapsOfNames(project)];
    const { items, entries } = planned(project, habits);
    const taken = items.filter(isTaken);
    expect(taken.length).toBeGreaterThan(habits.length / 3);
    expect(new Set(taken.map(({ to }) => to?.toLowerCase())).size).toBe(taken.length);
    const before = new ProjectRules(inputOf(project));
    const rules = new ProjectRules({
      ...inputOf(project),
      values: withEntries(before, PROJECTS[project].values, entries),
    });
    const files = new Map<string, string[]>();
    for (const line of rules.expansion.lines) if (line.kind === 'folder' && line.made) files.set(line.path, []);
    for (const line of rules.expansion.lines)
      if (line.kind === 'file') files.get(parentOf(line.path))?.push(nameOf(line.path));
    for (const { to } of taken) {
      for (let at = parentOf(to ?? ''); at !== ''; at = parentOf(at)) if (!files.has(at)) files.set(at, []);
      files.get(parentOf(to ?? ''))?.push(nameOf(to ?? ''));
    }
    const listings = [...files].map(([path, names]) => ({
      path,
      folders: [...files.keys()].filter((other) => other !== path && parentOf(other) === path).map(nameOf),
      files: names.map((name) => ({ name, size: 1000, modified: NOW - 86_400_000 })),
      others: [],
    }));
    const { findings } = checkListing(rules, listings);
    // What hangs on other files (gaps, companions, the same name elsewhere) is not the intake's.
    const OF_OTHERS = [
      'sequence-gap',
      'version-gap',
      'same-name',
      'old-version-on-top',
      'date-mismatch',
      'version-twice',
    ];
    expect(findings.filter(({ rule }) => !OF_OTHERS.includes(rule))).toEqual([]);
  });

  test('a file that tells no day, put into a folder of one, is called by that day', () => {
    const folder = '20_survey/test-nights/pier/2026-03-02';
    expect(new ProjectRules(inputOf('show')).planned(folder)).toBeDefined();
    const { of } = plan('show', [loose('roof.jpg', {})], { placed: { 'roof.jpg': { folder } } });
    expect(of('roof.jpg')?.to).toMatch(/\/pier_2026-03-02_\d+\.jpg$/);
    expect(of('roof.jpg')?.derived).toContain('date');
  });

  test('what was made otherwise than was agreed for its place is said, and nothing where no place is known', () => {
    const { template } = PROJECTS.show;
    const setup = { settings: [{ label: 'Frame rate', value: '25', fact: 'frameRate' as const }] };
    const input = { ...inputOf('show'), template: { ...template, setup } };
    const facts = (frameRate: number): MediaFacts => ({ has: 'picture', content: 'mov', frameRate });
    const folder = input.template.root.folders?.find(({ accepts }) => accepts?.length === undefined);
    const at = new ProjectRules(input).expansion.lines.find(({ node }) => node === folder?.id)?.path ?? '';
    const { of } = plan('show', [loose('a.mov', facts(50)), loose('b.mov', facts(25)), loose('qqq.mov', facts(50))], {
      ...{ input, placed: { 'a.mov': { folder: at }, 'b.mov': { folder: at } } },
    });
    expect(of('a.mov')?.differing).toEqual([{ setting: 'Frame rate', agreed: '25', found: '50' }]);
    expect(of('b.mov')?.differing).toEqual([]);
    expect(of('qqq.mov')).toMatchObject({ to: null, differing: [] });
  });

  test('fields may be called by words every object has', () => {
    const template = {
      ...({ format: 'nesting/template', formatVersion: 1, id: 't', name: 'T' } as const),
      fields: [
        { key: 'constructor', type: 'text' },
        { key: 'toString', type: 'text' },
      ] as const,
      conventions: [{ id: 'c', name: 'C', pattern: '{constructor:kebab}_{toString:kebab}_v{version:000}.{ext}' }],
      root: { id: 'p', name: 'p', folders: [{ id: 'in', name: 'in', conventions: ['c'] }] },
    };
    const input = { template, registers: REGISTERS, values: { constructor: 'Pier', toString: 'Dusk' }, now: NOW };
    const named = (values: Record<string, string>) => {
      const placed = { 'scan 4.png': { folder: 'in' } };
      const { of } = plan('show', [loose('scan 4.png')], { input: { ...input, values }, placed });
      return [of('scan 4.png')?.to, of('scan 4.png')?.missing];
    };
    expect(named(input.values)).toEqual(['in/pier_dusk_v001.png', []]);
    // A text nobody gave is the file's own word.
    expect(named({ constructor: 'Pier' })).toEqual(['in/pier_scan_v001.png', []]);
  });

  test('whatever files are called, each has one line, nothing is thrown, and the same heap gives the same plan', () => {
    const name = fc.oneof(
      fc.string({ unit: 'grapheme', minLength: 1, maxLength: 40 }),
      fc.constantFrom(
        'constructor',
        '__proto__',
        'toString.wav',
        'v.v.v',
        '2026-02-31.jpg',
        '(1)',
        '.',
        'Ü b e r.pdf',
        '9'.repeat(300),
      ),
    );
    const path = fc
      .array(
        name.map((text) => text.replaceAll('/', '') || 'x'),
        { minLength: 1, maxLength: 4 },
      )
      .map((parts) => parts.join('/'));
    const facts = fc.record(
      {
        taken: fc.constantFrom(
          '1970-01-01T00:00:00',
          '2099-12-31T23:59:59',
          '2026-03-02T21:00:00',
          'no time',
          '2026-13-99T99:99:99',
        ),
        has: fc.constantFrom('still' as const, 'picture' as const, 'sound' as const),
        seconds: fc.constantFrom(0, 10, 1e12, Number.NaN),
        timecode: fc.constantFrom('10:00:00:00', 'x', '99:99:99:99'),
        content: fc.constantFrom('jpg', 'wav', 'xyz', ''),
      },
      { requiredKeys: [] },
    );
    fc.assert(
      fc.property(
        fc.constantFrom(...PROJECT_NAMES),
        fc.uniqueArray(fc.tuple(path, facts), { selector: ([at]) => at, maxLength: 12 }),
        (project, some) => {
          const files = some.map(([at, known]) => loose(at, known));
          const made = plan(project, files);
          expect(made.items.map(({ from }) => from).sort()).toEqual(files.map((f) => f.path).sort());
          expect(made.changes).toEqual(plan(project, [...files].reverse()).changes);
          for (const { confidence, state } of made.items) if (confidence === null) expect(state).not.toBe('comes');
        },
      ),
      { numRuns: 150 },
    );
  });
});

describe('pairs as timelines', () => {
  test('each has its offset as a gap, and refers to where its files are brought', () => {
    const { pairs, items } = planned('film', HABITS.film);
    const text = pairsOtio(pairs, items);
    const { children } = JSON.parse(text) as {
      children: { tracks: { children: { kind: string; children: object[] }[] } }[];
    };
    expect(children).toHaveLength(pairs.length);
    const first = children[0]?.tracks.children ?? [];
    // The recorder was begun five seconds before the camera.
    expect(first.map(({ kind, children: inside }) => [kind, inside.length])).toEqual([
      ['Video', 2],
      ['Audio', 1],
    ]);
    expect(first[0]?.children[0]).toMatchObject({
      OTIO_SCHEMA: 'Gap.1',
      source_range: { duration: { value: 125, rate: 25 } },
    });
    const targets = refFormatOf('x.otio')?.find(text) ?? [];
    const brought = new Set(items.map(({ to }) => to));
    expect(distinctTargets(targets).filter((target) => !brought.has(decodeURI(target)))).toEqual([]);
    expect(distinctTargets(targets).length).toBeGreaterThan(4);
  });
});

describe('cards', () => {
  const CARD = ['CLIPS/C1.MP4', 'CLIPS/C1.IDX', 'INDEX/ALL.IDX'];
  const on = (day: string, path: string): MediaFacts =>
    path.endsWith('.IDX') ? {} : { taken: `${day}T10:00:00`, has: 'picture', seconds: 5 };

  test('one that is all of the source has its name; two in one source each their own; a standard camera tree is one too', () => {
    const whole = plan(
      'film',
      CARD.map((path) => loose(path, on('2026-03-02', path))),
    );
    expect(whole.cards).toEqual([{ path: '', to: '20_cards/2026-03-02/A003', files: 3 }]);
    const two = plan(
      'film',
      ['x', 'y'].flatMap((top) => CARD.map((path) => loose(`${top}/${path}`, on('2026-03-03', path)))),
    );
    expect(two.cards.map(({ to }) => to)).toEqual(['20_cards/2026-03-03/x', '20_cards/2026-03-03/y']);
    const standard = plan('film', [
      loose('DCIM/100ABCDE/DSC_0001.JPG', on('2026-03-02', '')),
      loose('DCIM/100ABCDE/DSC_0002.JPG'),
    ]);
    expect(standard.cards).toHaveLength(1);
  });

  test('one of the same name that is there with other content gets the next number; a person says that it is none', () => {
    const files = CARD.map((path) => loose(path, on('2026-03-02', path)));
    const there = (folder: string) => (folder === '20_cards/2026-03-02' ? ['A003'] : []);
    expect(plan('film', files, { there }).cards[0]?.to).toBe('20_cards/2026-03-02/A003-2');
    const sameAs = (path: string) =>
      path === 'CLIPS/C1.MP4' ? ({ where: 'project', path: `20_cards/2026-03-02/A003/${path}` } as const) : null;
    const again = plan('film', files, { there, sameAs });
    expect([again.cards[0]?.to, again.of('CLIPS/C1.MP4')?.state]).toEqual(['20_cards/2026-03-02/A003', 'there']);
    const none = plan('film', files, { placed: { '': { isCard: false } } });
    expect([none.cards, none.of('CLIPS/C1.MP4')?.card]).toEqual([[], null]);
  });

  test('a heap of plain folders is none', () => {
    expect(plan('show', [loose('PIER/IMG_0001.JPG'), loose('PIER/notes.pdf')]).cards).toEqual([]);
  });
});

describe('names', () => {
  test('counters go on from what is there; files of one stem stay together', () => {
    const there = (folder: string) =>
      folder === '20_survey/test-nights/pier/2026-03-02' ? ['pier_2026-03-02_0031.jpg'] : [];
    const at: MediaFacts = { taken: '2026-03-02T21:00:00', has: 'still' };
    const made = plan(
      'show',
      [loose('pier/b.jpg', at), loose('pier/a.jpg', { ...at, taken: '2026-03-02T20:00:00' }), loose('pier/b.tif', at)],
      { there },
    );
    expect(
      [made.of('pier/a.jpg')?.to, made.of('pier/b.jpg')?.to, made.of('pier/b.tif')?.to].map((to) => nameOf(to ?? '')),
    ).toEqual(['pier_2026-03-02_0032.jpg', 'pier_2026-03-02_0033.jpg', 'pier_2026-03-02_0033.tif']);
  });

  test('what is called one thing and is another is said, and not sure', () => {
    const item = plan('show', [loose('board tide v3.jpg', { content: 'png' })]).of('board tide v3.jpg');
    expect([item?.lie, item?.to]).toEqual(['jpg', '30_design/boards/26014_BRD_tide_v003.png']);
    expect(item?.confidence).not.toBe('sure');
  });

  test.each(['../outside', '10_paperwork/../../x', 'con', '10_paperwork/a?'])(
    'a folder called %s takes nothing',
    (folder) => {
      const made = plan('show', [loose('x.pdf')], { placed: { 'x.pdf': { comes: true, folder } } });
      expect(made.of('x.pdf')?.fault).not.toBeNull();
      expect(made.changes).toEqual([]);
      const named = plan('show', [loose('x.pdf')], {
        placed: { 'x.pdf': { comes: true, folder: '10_paperwork', name: '../../y.pdf' } },
      });
      expect([named.of('x.pdf')?.fault === null, named.changes]).toEqual([false, []]);
    },
  );

  test('a path that is longer than the project allows stays', () => {
    const placed = { 'x.pdf': { comes: true, folder: '10_paperwork/rights', name: `${'long '.repeat(45)}.pdf` } };
    expect(plan('show', [loose('x.pdf')], { placed }).of('x.pdf')?.fault?.code).toBe('path-over-budget');
  });

  test('frames are one sequence; one whose place is taken leaves it for no other version', () => {
    const frames = [101, 102, 103].map((n) => `clock tower s02 comp v3/clock_tower_s02_comp_v3_0${n}.exr`);
    const there = (folder: string) =>
      folder === '40_motion/clock-tower/s02/renders' ? ['26014_clock-tower_s02_comp_v003.0102.exr'] : [];
    const made = plan(
      'show',
      frames.map((path) => loose(path)),
      { there },
    );
    expect(new Set(made.items.map(({ run }) => run)).size).toBe(1);
    expect(made.items.map(({ to }) => nameOf(to ?? ''))).toEqual(
      [101, 102, 103].map((n) => `26014_clock-tower_s02_comp_v003.0${n}.exr`),
    );
    expect(made.items.map(({ clash }) => clash)).toEqual([false, true, false]);
  });

  test('two that say one version are not both sure of it', () => {
    const made = plan('show', [loose('26014_MUS_v07.wav'), loose('music v7.wav')]);
    expect(made.of('26014_MUS_v07.wav')?.confidence).toBe('sure');
    expect(made.of('music v7.wav')).toMatchObject({ confidence: 'guess', state: 'look', derived: ['version'] });
  });

  test.each([
    ['11.02.2026 x', '2026-02-11', false],
    ['x 2026-02-11', '2026-02-11', false],
    ['20260211_1', '2026-02-11', false],
    ['3 March', '2026-03-03', true],
    ['3. März 2026', '2026-03-03', false],
    ['maart 3', '2026-03-03', true],
    ['12 mei 2025', '2025-05-12', false],
    ['03-04-2026', '2026-04-03', true],
    ['31.02.2026', null, false],
    ['26014', null, false],
    ['IMG_20261399', null, false],
  ] as const)('a date in “%s”', (text, day, isUnsure) => {
    const found = dateIn(text, '2026')?.found;
    expect([found?.date ?? null, found?.isUnsure ?? false]).toEqual([day, isUnsure]);
  });
});

describe('a corrected file for a name that lasts', () => {
  const MASTER = '80_masters/26014_MST_pier.mov';
  const THERE = { size: 5, modified: Date.parse('2026-04-01T12:00:00Z') };
  const more = (replaces: boolean, there = THERE): Partial<IntakeGiven> => ({
    placed: { 'pier.mov': { folder: '80_masters', name: '26014_MST_pier.mov', replaces } },
    there: (folder) => (folder === '80_masters' ? ['26014_MST_pier.mov'] : folder === '' ? ['80_masters'] : []),
    fileAt: (path) => (path === MASTER ? there : null),
    referrers: (path) => (path === MASTER ? 2 : 0),
  });

  test('says what lies there, and takes its place only where somebody says so', () => {
    const asked = plan('show', [loose('pier.mov')], more(false));
    expect(asked.of('pier.mov')).toMatchObject({ clash: true, inWay: { ...THERE, referrers: 2, keptAs: null } });
    expect(asked.changes).toEqual([]);
    const said = plan('show', [loose('pier.mov')], more(true));
    expect(said.of('pier.mov')).toMatchObject({ clash: false, to: MASTER });
    expect(said.changes.map(({ before, after }) => [before?.path, after?.path])).toEqual([
      [MASTER, undefined],
      [undefined, MASTER],
    ]);
  });

  test('waits while somebody writes to what lies there', () => {
    const writing = { ...THERE, modified: NOW - 1000 };
    expect(plan('show', [loose('pier.mov')], more(true, writing)).of('pier.mov')).toMatchObject({
      ...{ clash: true, inWay: null },
    });
  });

  test('two that want one place: neither takes it', () => {
    const files = [loose('pier.mov'), loose('b/pier.mov')];
    const both = { folder: '80_masters', name: '26014_MST_pier.mov', replaces: true };
    const { changes } = plan('show', files, { ...more(true), placed: { 'pier.mov': both, 'b/pier.mov': both } });
    expect(changes).toEqual([]);
  });

  test('what a folder is told of replacing counts for no file in it', () => {
    const { placed: _placed, ...rest } = more(true);
    const files = [loose('in/26014_MST_pier.mov')];
    const told = { in: { folder: '80_masters', replaces: true } };
    expect(plan('show', files, { ...rest, placed: told }).of('in/26014_MST_pier.mov')).toMatchObject({ clash: true });
  });
});
