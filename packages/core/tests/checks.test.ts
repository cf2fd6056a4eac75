/**
 * Checks as laws: frames by one of them as frames one by one, parts put together as the whole, quick as whole; and
 * single rules at their edges.
 */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { damaged, drawDamages } from '../../../corpus/damaged-disk';
import { checkDisk, goodDisk, listingOf, rules as rulesOf } from '../../../corpus/good-disk';
import {
  Checker,
  checkListing,
  contentTasks,
  contentWants,
  judgeWhole,
  keepRows,
  mergeChecks,
  withContents,
} from '../src/check';
import { itemsOf } from '../src/check/items';
import { elementAt } from '../src/element';
import { type FolderListing, foldersFrom, frameRange, parseListing } from '../src/listing';
import { NO_REGISTERS, readName } from '../src/name';
import { type CheckInput, ProjectRules } from '../src/project';
import { normaliseTemplate, type Template } from '../src/template';

const { rules: of } = rulesOf();

const made = (root: object, more: object = {}): Template =>
  normaliseTemplate({
    format: 'nesting/template',
    formatVersion: 1,
    name: 'T',
    fields: [],
    conventions: [],
    root,
    ...more,
  } as never);
const files = (
  path: string,
  all: readonly (string | readonly [string, { size?: number; modified?: number }])[],
  folders: readonly string[] = [],
): FolderListing => ({
  path,
  folders,
  others: [],
  files: all.map((f) =>
    typeof f === 'string'
      ? { name: f, size: 1, modified: 0 }
      : { name: f[0], size: f[1].size ?? 1, modified: f[1].modified ?? 0 },
  ),
});
const found = (input: CheckInput, listings: readonly FolderListing[]) =>
  checkListing(new ProjectRules(input), listings).findings.map((f) => `${f.rule} ${f.path}`);

describe('frames of one sequence', () => {
  const frame = fc.record({
    head: fc.constantFrom('26014_a_v001.', '26014_a_v001', '26014_b_v001.', 'x.', '26014_a_V1.'),
    digits: fc.oneof(
      fc.integer({ min: 0, max: 12_000 }).map((n) => String(n).padStart(4, '0')),
      fc.stringMatching(/^\d{1,6}$/),
    ),
    ext: fc.constantFrom('exr', 'png', 'EXR'),
  });
  const template = made(
    { name: '{number}', folders: [{ id: 'r', name: 'r', conventions: ['f'] }] },
    { conventions: [{ id: 'f', name: 'F', pattern: '{number}_{what}_v{version:000}.{frame:0000}.{ext}' }] },
  );
  const rules = new ProjectRules({ template, values: { number: '26014' }, registers: NO_REGISTERS });
  const line = rules.planned('r');
  if (line === undefined) throw new Error('no folder');

  test('what one frame tells for all of them is what each would say itself', () => {
    fc.assert(
      fc.property(fc.array(frame, { maxLength: 40 }), (all) => {
        const names = [...new Set(all.map((f) => `${f.head}${f.digits}.${f.ext}`))].sort();
        const items = itemsOf(rules, files('r', names), { kind: 'planned', line, older: false });
        const [by] = rules.conventionsIn(line);
        const slow = names.filter((name) => by !== undefined && readName(by.strict, name, by.bound) !== null);
        const fast = [
          ...items.read.map((r) => r.file.name),
          ...items.runs.flatMap((run) =>
            names.filter(
              (n) =>
                n.startsWith(run.head) &&
                n.endsWith(run.tail) &&
                run.frames.includes(Number(n.slice(run.head.length, n.length - run.tail.length))) &&
                slow.includes(n),
            ),
          ),
        ];
        expect(fast.sort()).toEqual(slow);
        expect(items.open.map((o) => o.file.name).sort()).toEqual(names.filter((n) => !slow.includes(n)));
        expect(items.runs.reduce((n, r) => n + r.frames.length, 0) + items.read.length).toBe(slow.length);
      }),
      { numRuns: 2000, seed: 8 },
    );
  });

  test.each([
    ['between first and last', ['0001', '0002', '0004'], {}, ['3']],
    ['within the folder’s own range', ['0003', '0004'], { frames: '1..6' }, ['1–2', '5–6']],
    ['within a field’s range', ['1001', '1002'], { frames: 'range' }, ['1003–1004']],
    ['nothing where all are there', ['0001', '0002'], { frames: '1..2' }, null],
    ['more than expected is no gap', ['0001', '0002', '0003'], { frames: '1..2' }, null],
  ])('%s', (_what, frames, folder, missing) => {
    const input = {
      template: made(
        { name: '{number}', folders: [{ id: 'r', name: 'r', conventions: ['f'], ...folder }] },
        { fields: [{ key: 'range', type: 'text' }], conventions: template.conventions },
      ),
      values: { number: '26014', range: '1001-1004' },
      registers: NO_REGISTERS,
    };
    const findings = checkListing(new ProjectRules(input), [
      files('', [], ['r']),
      files(
        'r',
        frames.map((f) => `26014_a_v001.${f}.exr`),
      ),
    ]).findings;
    expect(findings.map((f) => [f.rule, f.rule === 'sequence-gap' ? f.params.missing : null])).toEqual(
      missing === null ? [] : [['sequence-gap', missing]],
    );
  });

  test('a range written beside a sequence, its sisters, and what still grows', () => {
    const input = { template, values: { number: '26014' }, registers: NO_REGISTERS, now: 1_000_000_000 };
    const run = (what: string, count: number, modified = 0) =>
      Array.from(
        { length: count },
        (_, i) => [`26014_${what}_v001.${String(i + 1).padStart(4, '0')}.exr`, { modified }] as const,
      );
    const gaps = (listing: FolderListing) =>
      checkListing(new ProjectRules(input), [files('', [], ['r']), listing])
        .findings.filter((f) => f.rule === 'sequence-gap')
        .map((f) => f.params.missing);
    expect(gaps({ ...files('r', run('a', 3)), ranges: { '26014_a_v001': [1, 5] } })).toEqual([['4–5']]);
    expect(gaps(files('r', [...run('a', 3), ...run('b', 5)]))).toEqual([['4–5']]);
    expect(gaps(files('r', [...run('a', 3, 1_000_000_000 - 1000), ...run('b', 5)]))).toEqual([]);
    expect(gaps(files('r', [...run('a', 1), ...run('b', 5)]))).toEqual([]);
  });

  test('a sequence may be called by a word every object has: its sisters are its measure all the same', () => {
    const named = made(
      { name: 'p', folders: [{ id: 'r', name: 'r', conventions: ['f'] }] },
      {
        fields: [{ key: 'what', type: 'text' }],
        conventions: [{ id: 'f', name: 'F', pattern: '{what}.{frame:0000}.{ext}', families: [] }],
      },
    );
    const run = (what: string, count: number) => Array.from({ length: count }, (_, i) => `${what}.000${i + 1}.exr`);
    const { findings } = checkListing(new ProjectRules({ template: named, values: {}, registers: NO_REGISTERS }), [
      files('', [], ['r']),
      { ...files('r', [...run('constructor', 3), ...run('b', 5)]), ranges: { b: [1, 5] } },
    ]);
    expect(findings.map((f) => [f.rule, f.rule === 'sequence-gap' ? f.params.missing : null])).toEqual([
      ['sequence-gap', ['4–5']],
    ]);
  });

  test.each([
    ['1..10', [1, 10]],
    ['1001–1100', [1001, 1100]],
    [' 5-5\n', [5, 5]],
    ['10..1', null],
    ['1..', null],
    ['1..99999999999', null],
    ['a..b', null],
  ])('%j as a range', (text, range) => {
    expect(frameRange(text)).toEqual(range);
  });
});

describe('parts and the whole', () => {
  const cases = fc.record({
    seed: fc.integer({ min: 1, max: 10_000 }),
    cuts: fc.array(fc.nat({ max: 3 }), { minLength: 60, maxLength: 60 }),
  });

  test('whoever looked at which folders, in whatever order, together they find the same', () => {
    fc.assert(
      fc.property(cases, ({ seed, cuts }) => {
        const listings = listingOf(damaged(of, drawDamages(8, seed), seed).disk);
        const by = new Map(listings.map((l) => [l.path, l]));
        const again = (path: string) => by.get(path) ?? null;
        const whole = checkListing(of, listings);
        const checkers = [0, 1, 2, 3].map(() => new Checker(of));
        const shuffled = listings
          .map(
            (l, i) =>
              [
                (cuts[i % cuts.length] as number) * 1000 + ((i * 7919) % 1000),
                l,
                cuts[i % cuts.length] as number,
              ] as const,
          )
          .sort((a, b) => a[0] - b[0]);
        for (const [, listing, who] of shuffled) checkers[who]?.folder(listing);
        expect(
          mergeChecks(
            of,
            checkers.map((c) => c.part()),
            again,
          ),
        ).toEqual(whole);
      }),
      { numRuns: 40, seed: 8 },
    );
  });

  test('folders kept from before and those looked at again make what a whole check makes', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 10_000 }), (seed) => {
        const before = listingOf(damaged(of, drawDamages(3, seed), seed).disk);
        const after = listingOf(damaged(of, drawDamages(6, seed + 1), seed).disk);
        const old = new Checker(of);
        for (const listing of before) old.folder(listing);
        const text = (l: FolderListing) => JSON.stringify(l);
        const same = new Set(before.filter((b) => after.some((a) => text(a) === text(b))).map((l) => l.path));
        const fresh = new Checker(of);
        for (const listing of after) if (!same.has(listing.path)) fresh.folder(listing);
        const by = new Map(after.map((l) => [l.path, l]));
        expect(
          mergeChecks(
            of,
            [keepRows(old.part(), (row) => same.has(row.path)), fresh.part()],
            (path) => by.get(path) ?? null,
          ),
        ).toEqual(checkListing(of, after));
      }),
      { numRuns: 40, seed: 8 },
    );
  });

  test('ids are those of what is found, not of when or in what company', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 10_000 }), (seed) => {
        const findings = checkDisk(of, damaged(of, drawDamages(20, seed), seed).disk);
        expect(new Set(findings.map((f) => f.id)).size).toBe(findings.length);
        const heavier = new ProjectRules({
          template: {
            ...of.template,
            edition: 9,
            checks: {
              ...of.template.checks,
              rules: { ...of.template.checks?.rules, 'name-mismatch': 'note', 'loose-file': 'must' },
            },
          },
          values: of.expansion.values.values,
          registers: of.registers,
          now: of.now,
        });
        const again = checkDisk(heavier, damaged(of, drawDamages(20, seed), seed).disk);
        expect(again.map((f) => f.id)).toEqual(findings.map((f) => f.id));
      }),
      { numRuns: 20, seed: 8 },
    );
  });
});

describe('single rules at their edges', () => {
  test('the volume’s prefix counts for paths', () => {
    const template = made(
      { name: '{number}', folders: [{ id: 'a', name: 'a', free: true }] },
      { checks: { pathBudget: 40 } },
    );
    const listings = [files('', [], ['a']), files('a', ['123456789012345678901234567890'])];
    expect(found({ template, values: { number: '26014' }, registers: NO_REGISTERS }, listings)).toEqual([]);
    expect(found({ template, values: { number: '26014' }, registers: NO_REGISTERS, prefix: 3 }, listings)).toEqual([
      'path-too-long a/123456789012345678901234567890',
    ]);
  });

  test('a side file beside its document is no matter of names; one apart, or alone, is', () => {
    const template = made(
      {
        name: '{number}',
        folders: [
          { id: 'a', name: 'a', conventions: ['c'] },
          { id: 'b', name: 'b', conventions: ['c'] },
        ],
      },
      {
        conventions: [{ id: 'c', name: 'C', pattern: '{number}_{what:kebab}.{ext}', families: ['scene'] }],
        registers: { families: [{ name: 'scene', extensions: ['obj'], companions: ['mtl'] }] },
      },
    );
    const input = { template, values: { number: '26014' }, registers: NO_REGISTERS };
    const top = files('', [], ['a', 'b']);
    expect(found(input, [top, files('a', ['26014_x.obj', '26014_x.mtl']), files('b', [])])).toEqual([]);
    expect(found(input, [top, files('a', ['26014_x.obj']), files('b', ['26014_x.mtl'])])).toEqual([
      'companion-apart b/26014_x.mtl',
    ]);
    expect(found(input, [top, files('a', []), files('b', ['26014_x.mtl'])])).toEqual([
      'companion-missing b/26014_x.mtl',
    ]);
  });

  test('a folder is to be filled some days after its own date, or the project’s; starter files fill nothing', () => {
    const template = made(
      {
        name: '{number}',
        folders: [
          { id: 'd', name: '{day:yyyy-MM-dd}', onePer: { list: 'days', as: 'day' }, filledWithinDays: 2 },
          {
            id: 'w',
            name: 'work',
            filledWithinDays: 10,
            starters: [{ id: 's', name: 'blank.txt', from: 'starters/b.txt' }],
          },
        ],
      },
      {
        fields: [
          { key: 'days', type: 'list', of: { type: 'date' } },
          { key: 'date', type: 'date' },
        ],
      },
    );
    const on = (now: string) =>
      found(
        {
          template,
          values: { number: '26014', days: ['2026-03-01', '2026-03-20'], date: '2026-03-05' },
          registers: NO_REGISTERS,
          now: Date.parse(now),
        },
        [
          files('', [], ['2026-03-01', '2026-03-20', 'work']),
          files('2026-03-01', []),
          files('2026-03-20', []),
          files('work', ['blank.txt']),
        ],
      );
    expect(on('2026-03-02T12:00:00Z')).toEqual([]);
    expect(on('2026-03-04T00:00:00Z')).toEqual(['empty-folder 2026-03-01']);
    expect(on('2026-03-16T00:00:00Z')).toEqual(['empty-folder 2026-03-01', 'empty-folder work']);
  });

  test('one name in two folders is said once, in whatever capitals; not of licence notes, and not where anything goes', () => {
    const template = made(
      {
        name: '{number}',
        folders: [
          { id: 'a', name: 'a', accepts: ['doc'] },
          { id: 'b', name: 'b', accepts: ['doc'] },
          { id: 'c', name: 'c', free: true },
        ],
      },
      { registers: { families: [{ name: 'doc', extensions: ['txt'] }] } },
    );
    const input = { template, values: { number: '26014' }, registers: NO_REGISTERS };
    expect(
      found(input, [
        files('', [], ['a', 'b', 'c']),
        files('a', ['x.txt', 'licence.txt']),
        files('b', ['X.txt', 'licence.txt']),
        files('c', ['x.txt']),
      ]),
    ).toEqual(['same-name a/x.txt']);
  });

  test('the same content: only what is equally large is looked into; a copy of what is in order is that alone', () => {
    const template = made(
      { name: '{number}', folders: [{ id: 'a', name: 'a', conventions: ['c'] }] },
      { conventions: [{ id: 'c', name: 'C', pattern: '{number}_{what:kebab}.{ext}' }] },
    );
    const rules = new ProjectRules({ template, values: { number: '26014' }, registers: NO_REGISTERS });
    const listing = files('a', [
      ['26014_x.png', { size: 7 }],
      ['26014_x (1).png', { size: 7 }],
      ['26014_y.png', { size: 8 }],
      ['26014_z.png', { size: 0 }],
      ['26014_q.png', { size: 0 }],
    ]);
    const checker = new Checker(rules);
    checker.folder(files('', [], ['a']));
    checker.folder(listing);
    const part = checker.part();
    expect(contentTasks(rules, listing, contentWants(part)).hash.map((f) => f.name)).toEqual([
      '26014_x.png',
      '26014_x (1).png',
    ]);
    const outcome = judgeWhole(rules, part, () => null);
    expect(outcome.findings.map((f) => f.rule)).toEqual(['name-mismatch']);
    const facts = ['26014_x.png', '26014_x (1).png'].map((name) => ({
      kind: 'hash' as const,
      path: `a/${name}`,
      frames: 1,
      size: 7,
      modified: 0,
      sha256: 'same',
    }));
    expect(
      withContents(rules, outcome, { facts, roots: [], namesIn: () => null }).findings.map((f) => [
        f.rule,
        f.path,
        f.related,
      ]),
    ).toEqual([['same-content', 'a/26014_x (1).png', ['a/26014_x.png']]]);
  });

  test('a listing made by hand is judged by the same rules', () => {
    const disk = goodDisk(of);
    const paths = [...disk].map(([path, e]) => (e.folder ? `${path}/` : path)).join('\n');
    const rules = new Set(checkListing(of, foldersFrom(parseListing(paths), null)).findings.map((f) => f.rule));
    // Names alone: nothing is said of times and sizes.
    expect([...rules]).toEqual([]);
  });
});

describe('a fresh project', () => {
  const NOW = Date.UTC(2026, 3, 20);
  const template = made(
    {
      name: 'p',
      starters: [{ id: 'edit', name: 'edit.md', text: '![](sound/theme.wav) ![](stills/later/one.png)' }],
      folders: [
        {
          id: 'nights',
          name: 'nights',
          folders: [{ id: 'night', name: '{night}', onePer: { list: 'nights', as: 'night' }, filledWithinDays: 3 }],
        },
        { id: 'sound', name: 'sound', limitBytes: 100, starters: [{ id: 'tone', name: 'tone.wav' }] },
        { id: 'stills', name: 'stills', folders: [{ id: 'later', name: 'later' }] },
      ],
    },
    { fields: [{ key: 'nights', type: 'list', of: { type: 'date' } }] },
  );
  const input: CheckInput = { template, registers: NO_REGISTERS, values: { nights: ['2026-01-05'] }, now: NOW };
  const of = new ProjectRules(input);
  const listed = (changed: number | undefined, more: readonly string[] = []): FolderListing[] => [
    files('', ['edit.md'], ['nights', 'sound', 'stills']),
    files('nights', [], ['2026-01-05']),
    { ...files('nights/2026-01-05', []), ...(changed !== undefined && { changed }) },
    files('sound', [['tone.wav', { size: 5000 }], ...more]),
    files('stills', [], ['later']),
    files('stills/later', []),
  ];
  const brokenIn = (listings: readonly FolderListing[]) =>
    withContents(of, checkListing(of, listings), {
      facts: [
        {
          kind: 'references',
          path: 'edit.md',
          modified: NOW,
          targets: ['sound/theme.wav', 'stills/later/one.png'],
          holdsRoot: false,
        },
      ],
      roots: [],
      namesIn: (folder) => {
        const listing = listings.find((l) => l.path === folder);
        return listing === undefined ? null : new Set([...listing.files.map((f) => f.name), ...listing.folders]);
      },
    }).findings.map((f) => `${f.rule} ${(f.params as { count?: number }).count ?? ''}`);

  test('has no finding: its days count from when it was made, its own files break no limit, what it refers to may come', () => {
    expect(found(input, listed(NOW))).toEqual([]);
    expect(brokenIn(listed(NOW))).toEqual([]);
  });

  test('once it is used it is judged', () => {
    expect(found(input, listed(NOW - 10 * 86_400_000))).toEqual(['empty-folder nights/2026-01-05']);
    expect(found(input, listed(undefined))).toEqual(['empty-folder nights/2026-01-05']);
    expect(
      found(
        input,
        listed(
          NOW,
          ['gong.wav'].map((n) => n),
        ),
      ),
    ).toEqual([]);
    expect(
      found(input, [
        ...listed(NOW).filter((l) => l.path !== 'sound'),
        files('sound', ['tone.wav', ['gong.wav', { size: 101 }]]),
      ]),
    ).toEqual(['over-limit sound']);
    // Something has come into the folder: what is still not there is missed.
    expect(brokenIn(listed(NOW, ['gong.wav']))).toEqual(['broken-reference 1']);
  });
});

describe('one cause, one finding', () => {
  test('a thousand folders that nobody planned beside each other are as many; more of them are one', () => {
    const template = made({ name: 'p', folders: [{ id: 'r', name: 'r' }] });
    const checked = (count: number) => {
      const names = Array.from({ length: count }, (_, i) => `x${String(i).padStart(5, '0')}`);
      const { findings } = checkListing(new ProjectRules({ template, registers: NO_REGISTERS, values: {} }), [
        files('', [], ['r']),
        files('r', [], names),
        ...names.map((name) => files(`r/${name}`, [])),
      ]);
      return findings.map((f) => [f.rule, f.path, (f.params as { more?: number }).more ?? 0]);
    };
    expect(checked(1000)).toHaveLength(1000);
    expect(checked(5000)).toEqual([['unplanned-folder', 'r/x00000', 4999]]);
  });

  test('empty frames of one sequence are one, with their ranges, and all of them are set aside', () => {
    const template = made({ name: 'p', folders: [{ id: 'r', name: 'r' }] });
    const frames = Array.from({ length: 1000 }, (_, i): [string, { size: number; modified: number }] => [
      `walk.${String(i + 1).padStart(4, '0')}.exr`,
      { size: i % 10 === 9 || i < 3 ? 0 : 1, modified: 1000 },
    ]);
    const { findings } = checkListing(
      new ProjectRules({ template, registers: NO_REGISTERS, values: {}, now: 10_000_000 }),
      [files('', [], ['r']), files('r', frames)],
    );
    expect(findings.map((f) => [f.rule, f.path, f.related.length])).toEqual([['empty-file', 'r/walk.0001.exr', 102]]);
    expect((elementAt(findings, 0).params as unknown as { ranges: string[] }).ranges.slice(0, 3)).toEqual([
      '1–3',
      '10',
      '20',
    ]);
  });

  test('a banned word in a name that reads is said with the name without it; a title that holds one is not', () => {
    const template = made(
      {
        name: 'p',
        conventions: ['c'],
        accepts: ['document'],
        folders: [{ id: 'open', name: 'open', conventions: [] }],
      },
      {
        fields: [{ key: 'title', type: 'text' }],
        conventions: [{ id: 'c', name: 'C', pattern: '{title:kebab}_{subject:kebab}.{ext}', families: ['document'] }],
        registers: { families: [{ name: 'document', extensions: ['md'] }], banned: ['final', 'new'] },
      },
    );
    const input: CheckInput = { template, registers: NO_REGISTERS, values: { title: 'New Pier' } };
    const listings = [
      files('', ['new-pier_quote.md', 'new-pier_new-quote.md', 'new-pier_renewal.md'], ['open']),
      files('open', ['notes FINAL.md', 'finalists.md']),
    ];
    const { findings } = checkListing(new ProjectRules(input), listings);
    expect(findings.map((f) => [f.rule, f.path, f.suggestion?.name, f.suggestion?.confidence])).toEqual([
      ['banned-word', 'new-pier_new-quote.md', 'new-pier_quote.md', 'likely'],
      ['banned-word', 'open/notes FINAL.md', 'notes.md', 'likely'],
    ]);
  });

  test('a list of frames beside a sequence, in the program’s own form, is never a finding', () => {
    const template = made(
      { name: 'p', folders: [{ id: 'r', name: 'r', accepts: ['still'] }] },
      {
        registers: {
          families: [
            { name: 'still', extensions: ['exr'] },
            { name: 'document', extensions: ['txt'] },
          ],
        },
      },
    );
    expect(
      found({ template, registers: NO_REGISTERS, values: {} }, [
        files('', [], ['r']),
        files('r', ['walk.frames.txt', 'notes.txt']),
      ]),
    ).toEqual(['family-not-accepted r/notes.txt']);
  });
});
