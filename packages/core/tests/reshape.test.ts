/**
 * Projects that grow and change: what the plan makes, renames and leaves; applied, the disk is as the new rules have
 * it; undone, as it was.
 */
import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { parseTemplate } from '../../contract/src/index';
import { applyBatch, doneAfter, home, leftOf, MemoryDisk, reverseChanges } from '../src/change';
import { Checker, mergeChecks } from '../src/check';
import type { FolderListing } from '../src/listing';
import { nextEntry } from '../src/lists';
import type { Values } from '../src/name';
import { type DiskView, type Reshape, type ReshapeGiven, reshape } from '../src/planners';
import { ProjectRules } from '../src/project';
import type { Template } from '../src/template';
import { REGISTERS } from './names';
import { batchOf, FOLDER, Notes, treeOf, withOwn } from './plans';

const parsed = parseTemplate(readFileSync('demo/templates/facade-show.nest.json', 'utf8'));
if (!parsed.ok) throw new Error(parsed.faults[0]);
const facade = parsed.value;
const registers = {
  ...REGISTERS,
  clients: [
    { code: 'QHT', name: 'Q' },
    { code: 'OTM', name: 'O' },
  ],
  people: [
    { initials: 'IT', name: 'I' },
    { initials: 'BO', name: 'B' },
  ],
};
const values: Values = {
  number: '26014',
  title: 'Harbour Lights',
  client: 'QHT',
  person: 'IT',
  date: '2026-11-27',
  surfaces: ['west-front', 'clock-tower'],
  scenes: ['s01', 's02'],
  stands: ['quay', 'mill-roof'],
  nights: ['2026-03-02'],
  speech: 'spoken',
  languages: ['nl'],
};
const rulesOf = (v: Values = values, template: Template = facade) =>
  new ProjectRules({ template, values: v, registers });
const was = rulesOf();

function diskOf(rules: ProjectRules, ...more: string[]): MemoryDisk {
  const disk = withOwn(new MemoryDisk(), FOLDER);
  for (const line of rules.expansion.lines) if (line.made && line.path !== '') disk.put(home(line.path), line.kind);
  for (const path of more) disk.put(home(path), 'file', { size: 4, modified: 1000 });
  return disk;
}

function listings(disk: MemoryDisk): FolderListing[] {
  const all = new Map<string, { folders: string[]; files: { name: string; size: number; modified: number }[] }>([
    ['', { folders: [], files: [] }],
  ]);
  const paths = [...disk.places().values()].map(({ path }) => path);
  for (const path of paths.filter((p) => !p.startsWith('.nesting')).sort()) {
    const [above, name] = [path.slice(0, Math.max(0, path.lastIndexOf('/'))), path.slice(path.lastIndexOf('/') + 1)];
    const there = disk.look(home(path));
    if (there?.kind === 'folder') {
      all.get(above)?.folders.push(name);
      all.set(path, { folders: [], files: [] });
    } else all.get(above)?.files.push({ name, size: there?.size ?? 0, modified: there?.modified ?? 0 });
  }
  return [...all].map(([path, { folders, files }]) => ({ path, folders, files, others: [] }));
}

const thereOf = (disk: MemoryDisk): DiskView => ({
  look: (path) => disk.look(home(path)),
  files: (folder) =>
    listings(disk)
      .find((l) => l.path === folder)
      ?.files.map((f) => f.name) ?? [],
});

function planned(disk: MemoryDisk, after: ProjectRules, more: Partial<ReshapeGiven> = {}): Reshape {
  return reshape({ before: was, after, there: thereOf(disk), ...more });
}

async function done(disk: MemoryDisk, plan: Pick<Reshape, 'changes'>, id = 'b1') {
  const notes = new Notes(10);
  const outcome = await applyBatch(batchOf(plan.changes, id), withOwn(disk, `.nesting/batches/${id}`), notes, {
    bytesOf: () => new Uint8Array(),
  });
  return { outcome, notes };
}

function findings(disk: MemoryDisk, rules: ProjectRules): string[] {
  const checker = new Checker(rules);
  for (const listing of listings(disk)) checker.folder(listing);
  return mergeChecks(rules, [checker.part()]).findings.map((f) => `${f.rule} ${f.path}`);
}

const brief = (plan: Reshape) =>
  plan.lines.map((l) => `${l.sign} ${l.before ?? '-'} → ${l.after ?? '-'}${l.count > 1 ? ` (${l.count})` : ''}`);

describe('growing', () => {
  test('an entry more makes its folders and starter files, and nothing else', async () => {
    const disk = diskOf(was);
    const after = rulesOf({ ...values, stands: ['quay', 'mill-roof', 'weir'] });
    const plan = planned(disk, after);
    expect(plan.lines.length).toBeGreaterThan(0);
    expect(plan.lines.every((l) => l.sign === 'made' && /(^|\/)weir(\/|$)|_weir/.test(l.after ?? ''))).toBe(true);
    expect((await done(disk, plan)).outcome.state).toBe('done');
    expect(findings(disk, after)).toEqual([]);
  });

  test('what stands there already under its new name is kept, and said; something else of that name is in the way, and what would be in it with it', () => {
    const disk = diskOf(was);
    const after = rulesOf({ ...values, surfaces: ['west-front', 'clock-tower', 'pier'] });
    const folder = after.expansion.lines.find((l) => l.entries.surface === 'pier' && l.name === 'pier')?.path as string;
    disk.put(home(folder), 'folder');
    expect(brief(planned(disk, after))[0]).toBe(`there ${folder} → ${folder}`);
    const other = diskOf(was, folder);
    const plan = planned(other, after);
    expect(plan.lines.every((l) => l.sign === 'taken')).toBe(true);
    expect(plan.changes).toEqual([]);
  });

  test('an optional folder, one that somebody removed above it, and a starter file once more', async () => {
    const demanded: Template = {
      ...facade,
      root: {
        ...facade.root,
        folders: [
          ...(facade.root.folders ?? []),
          {
            id: 'captures',
            name: 'captures',
            number: 40,
            presence: 'on-demand',
            folders: [{ id: 'stills', name: 'stills' }],
          },
        ],
      },
    };
    const was = rulesOf(values, demanded);
    const disk = diskOf(was);
    const optional = was.expansion.lines.find((l) => l.name === '40_captures');
    const starter = was.expansion.lines.find((l) => l.starter !== null);
    if (optional === undefined || starter === undefined) throw new Error('the demo’s template has both');
    const after = rulesOf(values, { ...demanded, adjusted: { [optional.key]: { make: true } } });
    const into = was.expansion.lines.find((l) => l.name === 'working');
    const plan = planned(disk, after, {
      before: was,
      extra: [{ starter: starter.key, folder: into?.key as string, name: 'second.md' }],
    });
    expect(brief(plan)).toEqual([
      `made - → ${optional.path}`,
      `made - → ${optional.path}/stills`,
      `made - → ${into?.path}/second.md`,
    ]);
    expect((await done(disk, plan)).outcome.state).toBe('done');
  });
});

describe('changing', () => {
  test('another number, client and title: names that carry them follow, frames as one line, what breaks the rules stays', async () => {
    const folder = was.expansion.lines.find(
      (l) => l.name === 'renders' && l.entries.surface === 'west-front' && l.entries.scene === 's02',
    )?.path as string;
    const paper = was.expansion.lines.find((l) => l.depth === 1 && l.name.includes('paperwork'))?.path as string;
    const papers = was.expansion.lines.find((l) => l.path.startsWith(paper) && l.rules.conventions !== null)
      ?.path as string;
    const frames = [1, 2, 3].map((n) => `${folder}/26014_west-front_s02_comp_v004.000${n}.exr`);
    const disk = diskOf(
      was,
      ...frames,
      `${folder}/final_v2_NEW.exr`,
      `${papers}/2026-02-11_quote_harbour-lights.pdf`,
      `${papers}/2026-02-11_quote_other-title.pdf`,
    );
    const after = rulesOf({ ...values, number: '26033', title: 'Harbour Nights', client: 'OTM' });
    const plan = planned(disk, after);
    expect(brief(plan)).toEqual(
      expect.arrayContaining([
        `renamed ${frames[0]} → ${folder}/26033_west-front_s02_comp_v004.0001.exr (3)`,
        `renamed ${papers}/2026-02-11_quote_harbour-lights.pdf → ${papers}/2026-02-11_quote_harbour-nights.pdf`,
      ]),
    );
    expect(brief(plan).join('\n')).not.toMatch(/final_v2_NEW|other-title/);
    const before = findings(disk, was).map((f) => f.split(' ')[0]);
    expect((await done(disk, plan)).outcome.state).toBe('done');
    expect(findings(disk, after).map((f) => f.split(' ')[0])).toEqual(before);
    // A line that one does not want renamed stays, with all the frames it stands for.
    expect(
      planned(diskOf(was, ...frames), after, { keep: new Set([`file:${frames[0]}`]) }).changes.filter((c) =>
        c.id.startsWith('file:'),
      ),
    ).toEqual([]);
  });

  test('an entry called otherwise is renamed with all that is in it and all that names it, not made anew', async () => {
    const working = was.expansion.lines.find(
      (l) => l.name === 'working' && l.entries.surface === 'west-front' && l.entries.scene === 's01',
    )?.path as string;
    const disk = diskOf(was, `${working}/26014_west-front_s01_anim_BO_v004.usda`);
    const after = rulesOf({ ...values, surfaces: ['harbour-wall', 'clock-tower'] });
    const plan = planned(disk, after, { renamed: { surfaces: { 'west-front': 'harbour-wall' } } });
    expect(plan.lines.filter((l) => l.sign === 'made' || l.sign === 'left-over')).toEqual([]);
    expect((await done(disk, plan)).outcome.state).toBe('done');
    expect(
      disk.look(home(`${working.replace('west-front', 'harbour-wall')}/26014_harbour-wall_s01_anim_BO_v004.usda`))
        ?.kind,
    ).toBe('file');
    expect(findings(disk, after)).toEqual([]);
  });

  test('the wrong kind becomes the right one: what it lacks is made, what it has too much is left, and nothing is removed', async () => {
    const disk = diskOf(was);
    const speech = was.expansion.lines.find(
      (l) =>
        l.kind === 'folder' &&
        was.expansion.lines.every((o) => o.key !== l.key || o.path === l.path) &&
        !rulesOf({ ...values, speech: 'none' }).expansion.lines.some((o) => o.key === l.key),
    );
    const after = rulesOf({ ...values, speech: 'none' });
    const plan = planned(disk, after);
    expect(brief(plan)).toEqual([`left-over ${speech?.path} → ${speech?.path}`]);
    expect(plan.changes).toEqual([]);
  });
});

describe('a new edition', () => {
  test('folders are renamed by their identity, swaps too; new ones are made; some of it can be left out', async () => {
    const [first, second] = facade.root.folders ?? [];
    const edition: Template = {
      ...facade,
      edition: 99,
      root: {
        ...facade.root,
        folders: [
          { ...first, name: second?.name, number: 20, id: first?.id ?? '' },
          { ...second, name: first?.name, number: 21, id: second?.id ?? '' },
          ...(facade.root.folders ?? []).slice(2),
          { id: 'brand-new', name: 'brand_new', number: 30 },
        ],
      },
    };
    const disk = diskOf(was, `${was.expansion.lines.find((l) => l.depth === 1)?.path}/kept.pdf`);
    const start = treeOf(disk);
    const after = rulesOf(values, edition);
    const plan = planned(disk, after);
    expect(plan.lines.filter((l) => l.sign === 'renamed' && l.after?.split('/').length === 1)).toHaveLength(2);
    expect(plan.lines.filter((l) => l.sign === 'made').map((l) => l.after)).toEqual(['30_brand_new']);
    const { outcome, notes } = await done(disk, plan);
    expect(outcome.state).toBe('done');
    for (const line of after.expansion.lines)
      if (line.made && line.path !== '')
        expect([line.path, disk.look(home(line.path))?.kind]).toEqual([line.path, line.kind]);
    const intents = notes.intents as NonNullable<typeof notes.intents>;
    expect(
      (
        await done(
          disk,
          { changes: reverseChanges(doneAfter(intents, intents.steps.length, leftOf(notes.outcomes), FOLDER)) },
          'b2',
        )
      ).outcome.state,
    ).toBe('done');
    expect(treeOf(disk)).toEqual(start);
    const part = rulesOf(values, {
      ...edition,
      adjusted: {
        [first?.id as string]: { name: was.expansion.lines.find((l) => l.node === first?.id)?.name ?? '' },
        'brand-new': { leaveOut: true },
      },
    });
    expect(
      planned(disk, part)
        .lines.filter((l) => l.after?.split('/').length === 1)
        .map((l) => l.key),
    ).toEqual([second?.id]);
  });
});

describe('law', () => {
  const entries = (all: readonly string[]) => fc.subarray([...all], { minLength: 1 });
  const others = fc.record({
    number: fc.constantFrom('26014', '26099'),
    title: fc.constantFrom('Harbour Lights', 'A Quiet Pier'),
    client: fc.constantFrom('QHT', 'OTM'),
    person: fc.constantFrom('IT', 'BO'),
    date: fc.constant('2026-11-27'),
    surfaces: entries(['west-front', 'clock-tower', 'pier']),
    scenes: entries(['s01', 's02', 's03']),
    stands: entries(['quay', 'mill-roof', 'weir']),
    nights: entries(['2026-03-02', '2026-03-03']),
    speech: fc.constantFrom('spoken', 'none'),
    languages: entries(['nl', 'de']),
  });

  test('whatever values become: done, the new rules find only what was left over; undone, all is as it was', async () => {
    await fc.assert(
      fc.asyncProperty(others, async (next) => {
        const disk = diskOf(was);
        const start = treeOf(disk);
        const after = rulesOf(next);
        const plan = planned(disk, after);
        const { outcome, notes } = await done(disk, plan);
        expect(outcome.state).toBe('done');
        expect(findings(disk, after).sort()).toEqual(
          plan.lines
            .filter((l) => l.sign === 'left-over')
            .map((l) => `unplanned-folder ${l.before}`)
            .sort(),
        );
        const intents = notes.intents as NonNullable<typeof notes.intents>;
        const back = reverseChanges(doneAfter(intents, intents.steps.length, leftOf(notes.outcomes), FOLDER));
        expect((await done(disk, { changes: back }, 'b2')).outcome.state).toBe('done');
        expect(treeOf(disk)).toEqual(start);
      }),
      { numRuns: 40 },
    );
  });
});

describe('the entry that comes next', () => {
  test.each([
    [{ type: 'text', like: 's00' }, ['s01', 's06'], 's07'],
    [{ type: 'text', like: 's00' }, ['s09'], 's10'],
    [{ type: 'text' }, ['A', 'B'], 'C'],
    [{ type: 'text' }, ['west-front'], null],
    [{ type: 'text', like: 's00' }, [], 's01'],
    [{ type: 'date' }, ['2026-11-25'], '2026-11-26'],
    [{ type: 'date' }, ['2026-03-02'], '2026-11-25'],
    [{ type: 'date' }, [], '2026-11-25'],
    [{ type: 'date' }, ['2026-02-28', '2026-11-25', '2026-03-01'], null],
    [{ type: 'choice', options: [{ code: 'nl' }, { code: 'de' }] }, ['nl'], 'de'],
    [{ type: 'text' }, ['take 9'], 'take 10'],
    [{ type: 'text' }, ['2', '1'], null],
  ] as const)('%j after %j is %s', (rule, entries, next) =>
    expect(nextEntry(rule as never, entries, '2026-11-25')).toBe(next),
  );
});
