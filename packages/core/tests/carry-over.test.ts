/** A project carried over to the next one: what comes, what it is called, where it lies, what refers to what. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  checkDisk,
  type Disk,
  type Entry,
  file,
  folder,
  goodDisk,
  listingOf,
  rules,
  VALUES,
} from '../../../corpus/good-disk';
import { rootIdOf } from '../src/change';
import { nameOf } from '../src/listing';
import type { Values } from '../src/name';
import { type Carried, type CarryWay, carryOver, namesPlanned, PLAIN_WAY } from '../src/planners';
import { ProjectRules } from '../src/project';
import { distinctTargets, refFormatOf } from '../src/references';

const { rules: source, template, registers } = rules();
const NEXT: Values = { ...VALUES, number: '27003', title: 'Second Curtain', client: 'OTM', date: '2027-04-18' };
const rulesFor = (values: Values) =>
  new ProjectRules({ template: source.template, values, registers, now: Date.UTC(2026, 3, 20) });
const ROOTS = { source: ['/srv/studio/26011_x', 'P:\\26011_x'], target: ['/srv/studio/27003_y', 'P:\\27003_y'] };

interface Asked {
  readonly way?: Partial<CarryWay>;
  readonly target?: ProjectRules;
  readonly from?: ProjectRules;
  readonly picked?: Parameters<typeof carryOver>[0]['picked'];
}

/** Items are those that come. */
type Carrying = Carried & { readonly stay: number };

function carried(disk: Disk, { way = {}, target = rulesFor(NEXT), from = source, picked = {} }: Asked = {}): Carrying {
  const documents = [...disk].flatMap(([path, entry]) => {
    const targets = distinctTargets(refFormatOf(nameOf(path))?.find(entry.content ?? '') ?? []);
    return targets.length === 0 ? [] : [{ path, targets }];
  });
  const whole = carryOver({
    source: from,
    target,
    listings: listingOf(disk),
    way: { ...PLAIN_WAY, ...way },
    picked,
    revision: null,
    startersCome: false,
    documents,
    read: (path) => ({ text: disk.get(path)?.content ?? '', expects: { size: 1, modified: 1 } }),
    roots: ROOTS,
    rootOf: () => rootIdOf('source'),
    there: namesPlanned(target, false),
  });
  return { ...whole, items: whole.items.filter((i) => i.comes), stay: whole.items.filter((i) => !i.comes).length };
}

/** The new project's disk once it was started and the changes are done. */
function after(disk: Disk, { changes }: Carried, target: ProjectRules): Disk {
  const out: Disk = new Map();
  for (const line of target.expansion.lines)
    if (line.made && line.path !== '') out.set(line.path, line.kind === 'folder' ? folder : file());
  for (const { entry, after: to, content } of changes) {
    if (to === null) continue;
    if (out.has(to.path)) throw new Error(`${to.path} is written over`);
    if (entry === 'folder') out.set(to.path, folder);
    else if (content?.kind === 'copy')
      out.set(to.path, patched(disk.get(content.from.path) ?? file(), content.patches));
  }
  return out;
}

function patched(entry: Entry, patches: readonly { at: number; length: number; bytes: string }[] = []): Entry {
  let bytes = Buffer.from(entry.content ?? '');
  for (const { at, length, bytes: now } of [...patches].reverse())
    bytes = Buffer.concat([bytes.subarray(0, at), Buffer.from(now, 'base64'), bytes.subarray(at + length)]);
  return entry.content === undefined ? entry : { ...entry, content: bytes.toString() };
}

const good = (change: (disk: Disk) => void = () => undefined): Disk => {
  const disk = goodDisk(source);
  change(disk);
  return disk;
};
const toOf = (c: Carried, from: string) => c.items.find((item) => item.from === from)?.to ?? null;
const working = '40_motion/portico/s01/working';

describe('what comes along', () => {
  test('what is current: the newest version, and nothing that a program made', () => {
    const c = carried(good());
    expect(toOf(c, `${working}/26011_portico_s01_anim_BO_v003.usda`)).toBe(
      `${working}/27003_portico_s01_anim_BO_v001.usda`,
    );
    expect(toOf(c, `${working}/older/26011_portico_s01_anim_BO_v002.usda`)).toBeNull();
    expect(toOf(c, '50_sound/music/26011_MUS_v02.wav')).toBeNull();
    expect(toOf(c, '50_sound/music/26011_MUS_v03.wav')).toBe('50_sound/music/27003_MUS_v01.wav');
    expect(toOf(c, '90_cache/west.cache')).toBeNull();
    expect(c.stay).toBeGreaterThan(10);
  });

  test('said of a folder it holds for what is below it, until that says otherwise', () => {
    const motion = source.planned('40_motion')?.node ?? '';
    const inside = source.planned(working)?.node ?? '';
    const none = carried(good(), { way: { folders: { [motion]: 'nothing' } } });
    expect(none.items.filter((i) => i.from.startsWith('40_motion'))).toEqual([]);
    const some = carried(good(), {
      way: { folders: { [motion]: 'nothing', [inside]: 'everything' }, version: 'keep' },
    });
    const motionItems = some.items.filter((i) => i.from.startsWith('40_motion'));
    expect(motionItems.length).toBeGreaterThan(0);
    expect(motionItems.every((i) => i.from.includes('/working'))).toBe(true);
    expect(toOf(some, `${working}/older/26011_portico_s01_anim_BO_v002.usda`)).toBe(
      `${working}/older/27003_portico_s01_anim_BO_v002.usda`,
    );
  });

  test('folders alone, where they are wanted empty', () => {
    const disk = good((d) =>
      d.set('30_design/boards/first ideas', folder).set('30_design/boards/first ideas/a.png', file()),
    );
    const design = source.planned('30_design')?.node ?? '';
    const c = carried(disk, { way: { folders: { [design]: 'empty' } } });
    expect(c.items.filter((i) => i.from.startsWith('30_design'))).toEqual([]);
    expect(c.changes.map((change) => change.after?.path)).toContain('30_design/boards/first ideas');
  });

  test('by what names say, by family, and single ones; a person’s word is the last', () => {
    const name = `${working}/26011_portico_s01_anim_BO_v003.usda`;
    const left = carried(good(), { way: { leave: [{ reading: { scene: 's01' } }] } });
    expect(left.items.filter((i) => i.from.includes('s01'))).toEqual([]);
    const sounds = carried(good(), { way: { leave: [{ family: source.familyOf('a.wav') ?? '' }] } });
    expect(sounds.items.filter((i) => i.from.endsWith('.wav'))).toEqual([]);
    const taken = carried(good(), { way: { take: [{ reading: { version: '2' } }], version: 'keep' } });
    expect(toOf(taken, '50_sound/music/26011_MUS_v02.wav')).toBe('50_sound/music/27003_MUS_v02.wav');
    expect(toOf(carried(good(), { picked: { [name]: { comes: false } } }), name)).toBeNull();
  });
});

describe('what it is called', () => {
  test('versions are kept, begun anew in their order, or left out where the name lets them', () => {
    const names = (version: CarryWay['version']) => {
      const sound = source.planned('50_sound')?.node ?? '';
      const c = carried(good(), { way: { folders: { [sound]: 'everything' }, version } });
      return c.items.flatMap((i) => (i.from.includes('_MUS_') ? [nameOf(i.to)] : []));
    };
    expect(names('keep')).toEqual(['27003_MUS_v01.wav', '27003_MUS_v02.wav', '27003_MUS_v03.wav']);
    expect(names('restart')).toEqual(['27003_MUS_v01.wav', '27003_MUS_v02.wav', '27003_MUS_v03.wav']);
    // A part that its convention wants is begun anew instead.
    expect(names('drop')).toEqual(['27003_MUS_v01.wav', '27003_MUS_v02.wav', '27003_MUS_v03.wav']);
  });

  test('two versions of one render are two again, and each frame stays the frame it was', () => {
    const at = '40_motion/portico/s01/renders';
    const c = carried(
      new Map([...good(), ...[7, 8].map((f) => [`${at}/26011_portico_s01_comp_v009.000${f}.exr`, file()] as const)]),
    );
    const names = c.items.flatMap((i) => (i.from.startsWith(at) ? [nameOf(i.to)] : []));
    expect(names.slice(-3)).toEqual([
      '27003_portico_s01_comp_v001.0024.exr',
      '27003_portico_s01_comp_v002.0007.exr',
      '27003_portico_s01_comp_v002.0008.exr',
    ]);
    expect(c.items.some((i) => i.clash)).toBe(false);
  });

  test('a title in a name is the new one, another title stays what it was', () => {
    const quote = '10_paperwork/quotes/2026-02-11_quote_curtain-rise.pdf';
    const other = '10_paperwork/quotes/2026-02-11_quote_somebody-elses.pdf';
    const c = carried(good((d) => d.set(other, file())));
    expect(toOf(c, quote)).toBe('10_paperwork/quotes/2026-02-11_quote_second-curtain.pdf');
    expect(toOf(c, other)).toBe(other);
  });

  test('names that read by none: old words become new ones as whole words, in their manner; added ones too', () => {
    const at = '70_library/stock';
    const named = (name: string, words: CarryWay['words'] = []) => {
      const c = carried(
        good((d) => d.set(`${at}/${name}`, file())),
        { way: { words } },
      );
      const to = toOf(c, `${at}/${name}`);
      return to === null ? null : nameOf(to);
    };
    expect(named('CURTAIN RISE 26011.wav')).toBe('SECOND CURTAIN 27003.wav');
    expect(named('126011_curtainrise.wav')).toBe('126011_curtainrise.wav');
    expect(named('draft_curtain_rise.wav', [{ old: 'draft', new: null }])).toBe('second_curtain.wav');
    // A new word that is another's old one is not changed again.
    expect(
      named('one two.wav', [
        { old: 'one', new: 'two' },
        { old: 'two', new: 'one' },
      ]),
    ).toBe('two one.wav');
  });
});

describe('a folder that is one document', () => {
  test('comes with what is in it as its program called it; its own name follows', () => {
    const families = [
      ...registers.families,
      { name: 'bundle', extensions: ['scenebox'], document: { folder: true as const } },
    ];
    const rulesOf = (values: Values) => new ProjectRules({ template, values, registers: { ...registers, families } });
    const box = '30_design/boards/26011 first.scenebox';
    const c = carried(new Map([...good(), [box, folder], [`${box}/26011 data.bin`, file()]]), {
      from: rulesOf(VALUES),
      target: rulesOf(NEXT),
    });
    expect(toOf(c, `${box}/26011 data.bin`)).toBe('30_design/boards/27003 first.scenebox/26011 data.bin');
  });
});

describe('where it lies', () => {
  test('entries that the new project has no folder for lie as they lay', () => {
    const c = carried(good(), { target: rulesFor({ ...NEXT, surfaces: ['portico'] }) });
    const tower = c.items.filter((i) => i.from.startsWith('40_motion/fly-tower'));
    expect(tower.length).toBeGreaterThan(0);
    for (const { to } of tower) expect(to.startsWith('40_motion/fly-tower/')).toBe(true);
  });

  test('another edition that calls a folder otherwise still places it', () => {
    const folders = template.root.folders?.map((node) => (node.name === 'sound' ? { ...node, name: 'audio' } : node));
    const renamed = { ...template, root: { ...template.root, folders } };
    const target = new ProjectRules({ template: renamed, values: NEXT, registers });
    expect(toOf(carried(good(), { target }), '50_sound/music/26011_MUS_v03.wav')).toBe(
      '50_audio/music/27003_MUS_v01.wav',
    );
  });
});

describe('references', () => {
  const doc = `${working}/26011_portico_s01_anim_BO_v003.usda`;
  const song = '50_sound/music/26011_MUS_v03.wav';
  const inside = (text: string, more: Asked = {}) => {
    const disk = good((d) => d.set(doc, file(text.length, text)));
    const c = carried(disk, more);
    const target = more.target ?? rulesFor(NEXT);
    return { c, text: after(disk, c, target).get(toOf(c, doc) ?? '')?.content };
  };

  test('follow: relative ones, whole ones of each system, places of frames', () => {
    const { text, c } = inside(
      [
        '#usda 1.0',
        `@../../../../${song}@`,
        `@/srv/studio/26011_x/${song}@`,
        '@P:\\26011_x\\50_sound\\music\\26011_MUS_v03.wav@',
        '@../renders/26011_portico_s01_comp_v003.####.exr@ # é',
      ].join('\n'),
    );
    expect(text).toBe(
      [
        '#usda 1.0',
        '@../../../../50_sound/music/27003_MUS_v01.wav@',
        '@/srv/studio/27003_y/50_sound/music/27003_MUS_v01.wav@',
        '@P:\\27003_y\\50_sound\\music\\27003_MUS_v01.wav@',
        '@../renders/27003_portico_s01_comp_v001.####.exr@ # é',
      ].join('\n'),
    );
    expect([c.needed, c.outside]).toEqual([[], []]);
  });

  test('what is needed and does not come, what would be torn off, and what lies outside are said', () => {
    const { c } = inside('#usda 1.0\n@../../../../50_sound/music/26011_MUS_v01.wav@\n@/home/somebody/a.png@\n');
    expect(c.needed).toEqual([{ document: doc, target: '50_sound/music/26011_MUS_v01.wav' }]);
    expect(c.outside).toEqual([{ document: doc, target: '/home/somebody/a.png' }]);
    const left = inside(`#usda 1.0\n@../../../../${song}@\n`, { picked: { [doc]: { comes: false } } }).c;
    expect(left.referring).toEqual([{ document: doc, target: song }]);
  });

  test('in a circle each leads to the other’s new name', () => {
    const other = '40_motion/portico/s02/working/26011_portico_s02_anim_BO_v003.usda';
    const disk = good((d) => {
      d.set(doc, file(9, `@../../s02/working/${nameOf(other)}@`));
      d.set(other, file(9, `@../../s01/working/${nameOf(doc)}@`));
    });
    const c = carried(disk);
    const there = after(disk, c, rulesFor(NEXT));
    expect(there.get(toOf(c, doc) ?? '')?.content).toBe('@../../s02/working/27003_portico_s02_anim_BO_v001.usda@');
    expect(there.get(toOf(c, other) ?? '')?.content).toBe('@../../s01/working/27003_portico_s01_anim_BO_v001.usda@');
  });
});

describe('what cannot be', () => {
  const at = '70_library/stock';
  const clashing = (names: readonly string[], words: CarryWay['words']) =>
    carried(
      good((d) => names.forEach((n) => void d.set(`${at}/${n}`, file()))),
      { way: { words } },
    ).items.filter((i) => names.includes(nameOf(i.from)));

  test('two that would be one stay, both; so does a name that is none, and one that no system takes', () => {
    const two = clashing(['a x.wav', 'b x.wav'], [{ old: 'b', new: 'a' }]);
    expect(two.map((i) => i.clash)).toEqual([true, true]);
    const none = clashing(['draft'], [{ old: 'draft', new: null }]);
    expect(none.map((i) => i.fault?.code)).toEqual(['name-empty']);
    const refused = clashing(['a.wav'], [{ old: 'a', new: 'con' }]);
    expect(refused.map((i) => i.fault?.code)).toEqual(['name-reserved']);
    const slash = clashing(['a.wav'], [{ old: 'a', new: '../../b' }]);
    expect(slash.map((i) => i.fault !== null)).toEqual([true]);
    expect(clashing(['a.wav'], [{ old: 'a', new: 'b/c' }]).map((i) => i.fault !== null)).toEqual([true]);
    const long = clashing(['a.wav'], [{ old: 'a', new: 'x'.repeat(200) }]);
    expect(long.map((i) => i.fault?.code)).toEqual(['path-over-budget']);
  });

  test('a file and a folder do not want one place, and folders that differ in capitals become one', () => {
    const both = carried(
      new Map([...good(), [`${at}/draft`, folder], [`${at}/draft/a.txt`, file()], [`${at}/idea`, file()]]),
      { way: { words: [{ old: 'idea', new: 'draft' }] } },
    );
    expect(both.items.find((i) => i.from === `${at}/idea`)?.clash).toBe(true);
    const capitals = carried(
      new Map([
        ...good(),
        ...['Ideas', 'ideas'].flatMap(
          (n) =>
            [
              [`${at}/${n}`, folder],
              [`${at}/${n}/${n}.txt`, file()],
            ] as const,
        ),
      ]),
    );
    const made = capitals.changes.filter((c) => c.entry === 'folder' && /ideas/i.test(c.after?.path ?? ''));
    expect(made).toHaveLength(1);
    expect(
      capitals.items.filter((i) => /ideas/i.test(i.to)).every((i) => i.to.startsWith(`${made[0]?.after?.path}/`)),
    ).toBe(true);
  });

  test('what is in the way is not carried out, and the rest is', () => {
    const c = carried(
      good((d) => d.set(`${at}/a x.wav`, file()).set(`${at}/b x.wav`, file())),
      {
        way: { words: [{ old: 'b', new: 'a' }] },
      },
    );
    const done = new Set(c.changes.flatMap((x) => (x.content?.kind === 'copy' ? [x.content.from.path] : [])));
    expect(done.has(`${at}/a x.wav`) || done.has(`${at}/b x.wav`)).toBe(false);
    expect(done.size).toBe(c.items.length - 2);
  });
});

describe('laws', () => {
  test('the same edition, the same now: the new project has no finding that its source had not', () => {
    const target = rulesFor(NEXT);
    for (const version of ['keep', 'restart'] as const) {
      const disk = good();
      const there = after(disk, carried(disk, { way: { version }, target }), target);
      const known = new Set(checkDisk(source, disk).map((f) => f.rule));
      expect(
        checkDisk(target, there)
          .filter((f) => !known.has(f.rule))
          .map((f) => `${f.rule} ${f.path}`),
      ).toEqual([]);
    }
  });

  test('there and back with versions kept: the names are the first ones again', () => {
    const values = fc.record({
      number: fc.integer({ min: 27001, max: 27999 }).map(String),
      title: fc.array(fc.stringMatching(/^[A-Z][a-z]{2,7}$/), { minLength: 1, maxLength: 3 }).map((w) => w.join(' ')),
      client: fc.constantFrom('QHT', 'OTM', 'MSW'),
    });
    fc.assert(
      fc.property(values, (given) => {
        fc.pre(!/paper|quote|music|nights|return|tide|opening/i.test(given.title));
        const [target, way] = [rulesFor({ ...VALUES, ...given }), { ...PLAIN_WAY, version: 'keep' as const }];
        const disk = good();
        const there = carried(disk, { way, target });
        const middle = after(disk, there, target);
        const back = carried(middle, { way, from: target, target: source });
        expect(back.items.map((i) => i.to).sort()).toEqual(there.items.map((i) => i.from).sort());
      }),
      { numRuns: 25 },
    );
  });
});
