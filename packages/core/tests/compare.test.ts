/** Two projects side by side: what people do to a project between two looks at it is called by its name. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { type Disk, file, goodDisk, listingOf, rules, VALUES } from '../../../corpus/good-disk';
import { type ComparedRow, compareSides, itemsOfSide, type SideItem, sumsOf } from '../src/compare';
import { ProjectRules } from '../src/project';

const { rules: ours, template, registers } = rules();
const next = new ProjectRules({
  template,
  values: { ...VALUES, number: '27003', title: 'Second Curtain', client: 'OTM', date: '2027-04-18' },
  registers,
});

/** The same paths with the other project's number, client and title. */
function carried(disk: Disk): Disk {
  const renamed = (path: string) =>
    path.replaceAll('26011', '27003').replaceAll('curtain-rise', 'second-curtain').replaceAll('FNR', 'OTM');
  return new Map([...disk].map(([path, entry]) => [renamed(path), { ...entry, content: entry.content ?? path }]));
}

const contentOf = (disk: Disk, { path, names }: SideItem): string => {
  const folder = path.slice(0, path.lastIndexOf('/') + 1);
  return names.map((name) => disk.get(`${folder}${name}`)?.content ?? `${folder}${name}`).join('\n');
};

function compared(left: Disk, right: Disk, byRight = ours): ComparedRow[] {
  return compareSides({
    left: itemsOfSide(ours, listingOf(left), true),
    right: itemsOfSide(byRight, listingOf(right), true),
    sameContent: (l, r) => contentOf(left, l) === contentOf(right, r),
    contentOf: (side, item) => contentOf(side === 'left' ? left : right, item),
  });
}

const good = (): Disk => goodDisk(ours);
const working = '40_motion/portico/s01/working';
const differing = (rows: readonly ComparedRow[]) =>
  rows.flatMap((r) => (r.state === 'same' ? [] : [[r.state, r.evidence, r.left?.path ?? null, r.right?.path ?? null]]));
const changed = (change: (disk: Disk) => void) => {
  const disk = good();
  change(disk);
  return differing(compared(good(), disk));
};
const moved = (disk: Disk, from: string, to: string) => {
  const entry = disk.get(from) ?? file();
  disk.delete(from);
  disk.set(to, { ...entry, content: entry.content ?? from });
};
const scene = `${working}/26011_portico_s01_anim_BO_v003.usda`;
const version = (n: number) => scene.replace(/v\d+/, `v${String(n).padStart(3, '0')}`);

describe('one project before and after', () => {
  test('nothing happened', () => expect(changed(() => undefined)).toEqual([]));

  test('a file was written, one came, one went', () => {
    const music = '50_sound/music/26011_MUS_v77.wav';
    expect(
      changed((disk) => {
        disk.set(scene, file(1200, 'other work'));
        disk.set(music, file());
        disk.delete('10_paperwork/2026-03-01_quote_curtain-rise.pdf');
      }).filter(([, , left]) => left === scene || left === null),
    ).toEqual([
      ['changed', 'path', scene, scene],
      ['only-right', null, null, music],
    ]);
  });

  test('a file has another name, or lies in another folder', () => {
    expect(changed((disk) => moved(disk, scene, `${working}/a file.usda`))).toEqual([
      ['renamed', 'content', scene, `${working}/a file.usda`],
    ]);
    expect(changed((disk) => moved(disk, scene, '30_design/a file.usda'))).toEqual([
      ['renamed', 'content', scene, '30_design/a file.usda'],
    ]);
  });

  test('the next version was saved, and the one before lies with the older ones', () => {
    const older = scene.replace(working, `${working}/older`);
    expect(
      changed((disk) => {
        moved(disk, scene, older);
        disk.set(version(90), file(1300, 'went on'));
      }),
    ).toEqual([
      ['renamed', 'content', scene, older],
      ['only-right', null, null, version(90)],
    ]);
  });

  test('it was saved over under the next version: the two are one', () => {
    expect(
      changed((disk) => {
        disk.delete(scene);
        disk.set(version(90), file(1300, 'went on'));
      }),
    ).toEqual([['changed', 'version', scene, version(90)]]);
  });

  test('of a sequence it is said once', () => {
    const frames = (disk: Disk, version: string, count: number, content: string) => {
      for (let n = 1; n <= count; n++)
        disk.set(
          `40_motion/portico/s01/renders/26011_portico_s01_light_${version}.000${n}.exr`,
          file(10, `${content} ${n}`),
        );
    };
    const [left, right] = [good(), good()];
    frames(left, 'v002', 5, 'frame');
    frames(right, 'v002', 4, 'frame');
    const [row, ...others] = compared(left, right).filter((r) => r.state !== 'same');
    expect(others).toEqual([]);
    expect(row).toMatchObject({ state: 'changed', left: { frames: 5 }, right: { frames: 4 } });
    expect(row?.left?.path).toBe('40_motion/portico/s01/renders/26011_portico_s01_light_v002.#.exr');
  });

  test('two copies of one file are nobody’s counterpart by content', () => {
    const rows = changed((disk) => {
      disk.delete(scene);
      for (const name of ['one', 'two']) disk.set(`30_design/${name}.usda`, file(1000, scene));
    });
    expect(rows.map(([state]) => state)).toEqual(['only-right', 'only-right', 'only-left']);
  });
});

describe('a project and the next one', () => {
  test('is found by meaning, whatever number, client and title its names carry', () => {
    const right = carried(good());
    const rows = compared(good(), right, next);
    expect(sumsOf(rows).counts).toMatchObject({ changed: 0, 'only-left': 0, 'only-right': 0 });
    const renamed = rows.filter((r) => r.state === 'renamed');
    expect(renamed.length).toBeGreaterThan(20);
    for (const { left, right: other } of renamed)
      expect(other?.path).toBe(
        carried(new Map([[left?.path ?? '', file()]]))
          .keys()
          .next().value,
      );
  });

  test('what was worked on since is told from what is as it was', () => {
    const right = carried(good());
    const there = scene.replaceAll('26011', '27003');
    right.set(there, file(1400, 'worked on'));
    expect(compared(good(), right, next).filter((r) => r.state === 'changed')).toMatchObject([
      { evidence: 'meaning', left: { path: scene }, right: { path: there } },
    ]);
  });
});

describe('laws', () => {
  const paths = [...good().keys()].filter((path) => !good().get(path)?.folder);
  const act = fc.oneof(
    fc.record({
      do: fc.constant('write' as const),
      at: fc.nat(paths.length - 1),
      size: fc.integer({ min: 0, max: 9 }),
    }),
    fc.record({ do: fc.constant('delete' as const), at: fc.nat(paths.length - 1) }),
    fc.record({ do: fc.constant('move' as const), at: fc.nat(paths.length - 1), to: fc.nat(9) }),
    fc.record({ do: fc.constant('copy' as const), at: fc.nat(paths.length - 1), to: fc.nat(9) }),
  );
  const disks = fc.array(act, { maxLength: 12 }).map((acts) => {
    const disk = good();
    for (const one of acts) {
      const path = paths[one.at] ?? '';
      const entry = disk.get(path);
      if (one.do === 'write') disk.set(path, file(one.size, `written ${one.size}`));
      else if (one.do === 'delete') disk.delete(path);
      else if (entry !== undefined) {
        disk.set(`30_design/${one.to}.dat`, { ...entry, content: entry.content ?? path });
        if (one.do === 'move') disk.delete(path);
      }
    }
    return disk;
  });
  const itemsIn = (disk: Disk) => [...itemsOfSide(ours, listingOf(disk), true)].map((i) => i.path).sort();

  test('every item of both sides stands in one row, and only there', () => {
    fc.assert(
      fc.property(disks, disks, (left, right) => {
        const rows = compared(left, right);
        expect(rows.flatMap((r) => r.left?.path ?? []).sort()).toEqual(itemsIn(left));
        expect(rows.flatMap((r) => r.right?.path ?? []).sort()).toEqual(itemsIn(right));
      }),
      { numRuns: 60 },
    );
  });

  test('the other way round it says the same', () => {
    const mirrored = {
      same: 'same',
      renamed: 'renamed',
      changed: 'changed',
      'only-left': 'only-right',
      'only-right': 'only-left',
    };
    const said = (rows: readonly (readonly [string, string, string])[]) => rows.map((r) => r.join(' ')).sort();
    fc.assert(
      fc.property(disks, disks, (left, right) => {
        const there = compared(left, right).map(
          (r) => [mirrored[r.state], r.right?.path ?? '', r.left?.path ?? ''] as const,
        );
        const back = compared(right, left).map((r) => [r.state, r.left?.path ?? '', r.right?.path ?? ''] as const);
        expect(said(back)).toEqual(said(there));
      }),
      { numRuns: 60 },
    );
  });

  test('what is called the same has the same content', () => {
    fc.assert(
      fc.property(disks, disks, (left, right) => {
        for (const { state, left: l, right: r } of compared(left, right))
          if (l !== null && r !== null)
            expect(contentOf(left, l) === contentOf(right, r) && l.size === r.size).toBe(state !== 'changed');
      }),
      { numRuns: 60 },
    );
  });
});
