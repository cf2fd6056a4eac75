/**
 * Damages put right: what is sure is gone at the next check, nothing else is touched, nothing new is found. The corpus
 * says which of them a person would put right without asking.
 */
import { describe, expect, test } from '@jest/globals';
import { damaged, drawDamages } from '../../../corpus/damaged-disk';
import { DISK_DAMAGES } from '../../../corpus/disk-damages';
import { FIXABLE } from '../../../corpus/fixable';
import { checkDisk, file, goodDisk, listingOf, rules, VALUES } from '../../../corpus/good-disk';
import { applied, planRepair, putRight } from '../../../corpus/repaired-disk';
import { rootIdOf } from '../src/change';
import type { Neighbour } from '../src/planners';
import { ProjectRules } from '../src/project';

const { rules: of, template, registers } = rules();

describe('put right by what is sure', () => {
  test.each(DISK_DAMAGES.map((d) => [d.kind, d] as const))('%s', async (_kind, damage) => {
    for (let seed = 1; seed <= 3; seed++) {
      const { disk } = damaged(of, [damage], seed);
      expect(await putRight(of, disk)).toMatchObject({ stayed: [], made: [], needless: [], isRefused: false });
    }
  });

  test('most of what a person would put right without asking', async () => {
    const kinds = DISK_DAMAGES.filter((d) => FIXABLE.has(d.kind));
    expect(kinds).toHaveLength(FIXABLE.size);
    let fixed = 0;
    for (const damage of kinds) {
      const { sure, findings, stayed } = await putRight(of, damaged(of, [damage], 5).disk);
      if (sure === findings && stayed.length === 0) fixed++;
    }
    expect(fixed / kinds.length).toBeGreaterThanOrEqual(0.6);
  });

  test('twenty at once', async () => {
    for (let seed = 1; seed <= 40; seed++) {
      const { disk } = damaged(of, drawDamages(20, seed), seed);
      const outcome = await putRight(of, disk);
      expect(outcome).toMatchObject({ stayed: [], needless: [], isRefused: false });
      // A gap that was there is told of the last of its chain, which has come home.
      expect(outcome.made.filter((m) => !m.startsWith('version-gap'))).toEqual([]);
    }
  });

  test('what was put right has nothing left to be put right by the same plan', async () => {
    const { disk } = damaged(of, drawDamages(20, 3), 3);
    const plan = planRepair({ rules: of, disk, findings: checkDisk(of, disk) });
    const after = await applied(disk, plan.changes);
    if (after === null) throw new Error('refused');
    const again = planRepair({ rules: of, disk: after, findings: checkDisk(of, disk) });
    const done = new Set(plan.lines.filter((l) => l.state === 'ready').map((l) => l.id));
    for (const line of again.lines)
      if (done.has(line.id)) expect([line.path, line.state]).not.toEqual([line.path, 'ready']);
  });
});

const planFor = (change: (disk: ReturnType<typeof goodDisk>) => void, given: object = {}) => {
  const disk = goodDisk(of);
  change(disk);
  const findings = checkDisk(of, disk);
  return { disk, findings, plan: planRepair({ rules: of, disk, findings, ...given }) };
};

describe('choices', () => {
  const foreign = '50_sound/music/26009_MUS_v04.wav';

  test('a foreign number is a person’s to decide', () => {
    const { plan } = planFor((disk) => disk.set(foreign, file()));
    const line = plan.lines.find((l) => l.path === foreign);
    expect(line).toMatchObject({ state: 'ask', chosen: null });
    expect(line?.options.map((o) => [o.way, o.to])).toEqual([['take-number', '50_sound/music/26011_MUS_v04.wav']]);
  });

  test('an answer is taken, and one can be given that it stays', () => {
    const { plan, findings, disk } = planFor((d) => d.set(foreign, file()));
    const id = plan.lines.find((l) => l.path === foreign)?.id ?? '';
    const key = plan.lines.find((l) => l.path === foreign)?.options[0]?.key ?? '';
    const take = planRepair({ rules: of, disk, findings, answers: { [id]: { key } } });
    expect(take.lines.find((l) => l.id === id)).toMatchObject({
      state: 'ready',
      after: '50_sound/music/26011_MUS_v04.wav',
    });
    const leave = planRepair({ rules: of, disk, findings, answers: { [id]: { key: null } } });
    expect(leave.lines.find((l) => l.id === id)?.state).toBe('left');
    expect(leave.changes).toEqual([]);
  });

  test('a name of a person’s own: every frame follows, and one no system takes is refused', () => {
    const at = '40_motion/portico/s01/renders';
    const { plan, findings, disk } = planFor((d) => {
      for (const n of [1, 2, 3]) d.set(`${at}/26011_portico_s01_light_v001.${n}.exr`, file());
    });
    const line = plan.lines.find((l) => l.rule === 'sequence-padding');
    const answer = (name: string) => ({ [line?.id ?? '']: { key: line?.options[0]?.key ?? '', name } });
    const named = planRepair({ rules: of, disk, findings, answers: answer('26011_portico_s01_light_v002.0001.exr') });
    expect(named.changes.map((c) => c.after?.path)).toEqual(
      [1, 2, 3].map((n) => `${at}/26011_portico_s01_light_v002.000${n}.exr`),
    );
    const refused = planRepair({ rules: of, disk, findings, answers: answer('con.exr') });
    expect(refused.lines.find((l) => l.id === line?.id)).toMatchObject({
      state: 'clash',
      fault: { code: 'name-reserved' },
    });
    expect(refused.changes).toEqual([]);
  });
});

describe('another folder', () => {
  const at = '50_sound/music';
  const answered = (answer: object) => {
    const { plan, findings, disk } = planFor((d) => d.set(`${at}/26011_MUS_v4.wav`, file()));
    const line = plan.lines.find((l) => l.path === `${at}/26011_MUS_v4.wav`);
    const answers = { [line?.id ?? '']: { key: line?.options[0]?.key ?? '', ...answer } };
    const placed = planRepair({ rules: of, disk, findings, answers });
    return placed.lines.find((l) => l.id === line?.id);
  };

  test('of a person’s own, with the proposed name or with another', () => {
    expect(answered({ folder: '50_sound/takes' })).toMatchObject({
      state: 'ready',
      after: '50_sound/takes/26011_MUS_v04.wav',
    });
    expect(answered({ folder: '', name: 'song.wav' })).toMatchObject({ state: 'ready', after: 'song.wav' });
  });

  test('is written plainly, and lies in no file', () => {
    expect(answered({ folder: '/50_sound//takes/' })).toMatchObject({ after: '50_sound/takes/26011_MUS_v04.wav' });
    expect(answered({ folder: '70_library/stock/gulls.wav/in it' })).toMatchObject({ state: 'clash' });
  });

  test.each(['../out', 'a/../../b', '.nesting/batches', 'con/a', 'a//b/nul'])('%s is refused', (folder) => {
    expect(answered({ folder })).toMatchObject({ state: 'clash', fault: { code: expect.stringMatching(/^name-/) } });
  });
});

describe('a project beside it', () => {
  const foreign = '50_sound/music/26009_MUS_v04.wav';
  const neighbour = (there: (disk: ReturnType<typeof goodDisk>) => void): Neighbour => {
    const theirs = new ProjectRules({ template, values: { ...VALUES, number: '26009' }, registers });
    const disk = goodDisk(theirs);
    there(disk);
    const listings = new Map(listingOf(disk).map((l) => [l.path, l]));
    const root = rootIdOf('studio/26009_x');
    return { root, folder: '26009_x', rules: theirs, list: (path) => listings.get(path) ?? null };
  };
  const sent = (beside: Neighbour, change: (disk: ReturnType<typeof goodDisk>) => void = () => undefined) => {
    const { plan, findings, disk } = planFor(
      (d) => {
        d.set(foreign, file());
        change(d);
      },
      { neighbours: [beside] },
    );
    const line = plan.lines.find((l) => l.path === foreign);
    const key = line?.options.find((o) => o.way === 'move-to-project')?.key ?? '';
    return planRepair({ rules: of, disk, findings, neighbours: [beside], answers: { [line?.id ?? '']: { key } } });
  };

  test('takes what carries its number, and makes the folders it lacks, outer ones first', () => {
    const beside = neighbour((disk) => {
      for (const path of [...disk.keys()]) if (path.startsWith('50_sound')) disk.delete(path);
    });
    expect(sent(beside).changes.map((c) => [c.before?.path ?? null, c.after])).toEqual([
      [null, { root: 'studio/26009_x', path: '50_sound' }],
      [null, { root: 'studio/26009_x', path: '50_sound/music' }],
      [foreign, { root: 'studio/26009_x', path: foreign }],
    ]);
  });

  test('is not written over, nor where a file stands for a folder', () => {
    const clashOf = (beside: Neighbour) => sent(beside).lines.find((l) => l.path === foreign);
    expect(
      clashOf(neighbour((d) => d.set(foreign.toUpperCase().replace('50_SOUND/MUSIC', '50_sound/music'), file()))),
    ).toMatchObject({ state: 'clash' });
    const blocked = neighbour((disk) => {
      for (const path of [...disk.keys()]) if (path.startsWith('50_sound')) disk.delete(path);
      disk.set('50_sound', file());
    });
    expect(clashOf(blocked)).toMatchObject({ state: 'clash' });
  });

  test('of a sequence every frame goes', () => {
    const frames = [1, 2, 3].map((n) => `40_motion/portico/s01/renders/26009_portico_s01_comp_v001.000${n}.exr`);
    const beside = neighbour(() => undefined);
    const { plan, findings, disk } = planFor(
      (d) => {
        for (const frame of frames) d.set(frame, file());
      },
      { neighbours: [beside] },
    );
    const line = plan.lines.find((l) => l.rule === 'foreign-project');
    const key = line?.options.find((o) => o.way === 'move-to-project')?.key ?? '';
    const { changes } = planRepair({
      rules: of,
      disk,
      findings,
      neighbours: [beside],
      answers: { [line?.id ?? '']: { key } },
    });
    expect(changes.flatMap((c) => (c.entry === 'file' ? [c.after?.path] : []))).toEqual(frames);
  });
});

describe('what tells choices apart', () => {
  test('of two that are the same it is said when each was written, and what refers to it', () => {
    const [one, two] = ['50_sound/music/26011_MUS_v04.wav', '50_sound/music/26011_MUS_v05.wav'];
    const { plan } = planFor((disk) => {
      for (const path of [one, two]) disk.set(path, file(1000, 'one content'));
      disk.set(
        '40_motion/portico/s01/working/26011_portico_s01_anim_BO_v003.usda',
        file(1000, `#usda 1.0\n(a = @../../../../${two}@, b = @../../../../${two}@)`),
      );
    });
    const line = plan.lines.find((l) => l.rule === 'same-content');
    expect(line?.options.map((o) => [o.value, o.facts?.size, o.facts?.referrers])).toEqual([
      [one, 1000, 0],
      [two, 1000, 1],
    ]);
  });
});

describe('in each other’s way', () => {
  test('two that want one name both stay, and say so', () => {
    const { plan } = planFor((disk) => {
      disk.set('50_sound/music/26011_MUS_v4.wav', file());
      disk.set('50_sound/music/26011_MUS_V04.wav', file());
    });
    const lines = plan.lines.filter((l) => l.rule === 'version-style');
    expect(lines.map((l) => l.state)).toEqual(['clash', 'clash']);
    expect(lines.map((l) => l.clash?.other)).toEqual([lines[1]?.id, lines[0]?.id]);
    expect(plan.changes).toEqual([]);
  });

  test('a name that somebody has already stays with them', () => {
    const { plan } = planFor((disk) => disk.set('50_sound/music/26011_MUS_v3.wav', file()));
    expect(plan.lines.find((l) => l.rule === 'version-style')).toMatchObject({
      state: 'clash',
      clash: { at: '50_sound/music/26011_MUS_v03.wav', other: null },
    });
  });
});

describe('what travels together', () => {
  const working = '40_motion/portico/s01/working';

  test('side files go with their document, and versions that it supersedes make way', () => {
    const { plan } = planFor((disk) => {
      disk.set(`${working}/26011_portico_s01_anim_BO_V004.usda`, file());
      disk.set(`${working}/26011_portico_s01_anim_BO_V004.mtl`, file());
    });
    expect(plan.changes.map((c) => [c.before?.path, c.after?.path]).sort()).toEqual(
      [
        [`${working}/26011_portico_s01_anim_BO_V004.usda`, `${working}/26011_portico_s01_anim_BO_v004.usda`],
        [`${working}/26011_portico_s01_anim_BO_V004.mtl`, `${working}/26011_portico_s01_anim_BO_v004.mtl`],
        [`${working}/26011_portico_s01_anim_BO_v003.usda`, `${working}/older/26011_portico_s01_anim_BO_v003.usda`],
      ].sort(),
    );
  });

  test('documents that refer to it are rewritten, and whole folders take their references along', async () => {
    const sound = '50_sound/music/26011_MUS_V04.wav';
    const text = `#usda 1.0\n(a = @../../../../${sound}@, b = @../../../../30_design/x.usda@)`;
    const { plan, disk } = planFor((d) => {
      d.set(sound, file());
      d.set(`${working}/26011_portico_s01_anim_BO_v003.usda`, file(1000, text));
    });
    expect(plan.documents).toEqual([
      {
        path: `${working}/26011_portico_s01_anim_BO_v003.usda`,
        after: `${working}/26011_portico_s01_anim_BO_v003.usda`,
        changes: [{ from: `../../../../${sound}`, to: '../../../../50_sound/music/26011_MUS_v04.wav' }],
      },
    ]);
    const after = await applied(disk, plan.changes);
    expect(after?.get(`${working}/26011_portico_s01_anim_BO_v003.usda`)?.content).toBe(text.replace('_V04', '_v04'));
  });

  test('a file that is open in a program waits', () => {
    const { plan } = planFor((disk) => {
      disk.set('50_sound/music/26011_MUS_V04.wav', file());
      disk.set('50_sound/music/.~lock.26011_MUS_V04.wav#', file());
    });
    expect(plan.lines.find((l) => l.rule === 'version-style')?.state).toBe('held');
  });
});

describe('names that a person gives in a circle and in a row', () => {
  const wrong = (n: number) => `50_sound/music/26011_MUS_V${n + 1000}.wav`;
  const nameOfWrong = (n: number) => wrong(n).slice('50_sound/music/'.length);

  /** Each takes the name that `next` says, all at once. */
  async function renamed(count: number, next: (n: number) => string) {
    const list = '30_design/boards/list.csv';
    const disk = goodDisk(of);
    for (let n = 0; n < count; n++) disk.set(wrong(n), file(1000 + n));
    disk.set(list, file(60, `first,"../../${wrong(0)}"\n`));
    const found = checkDisk(of, disk).filter((f) => f.path.startsWith('50_sound/music/26011_MUS_V'));
    expect(found).toHaveLength(count);
    const answers = Object.fromEntries(
      found.map((f) => {
        const n = Number(/V(\d+)/.exec(f.path)?.[1]) - 1000;
        return [f.id, { key: 'rename:', name: next(n) }];
      }),
    );
    const plan = planRepair({ rules: of, disk, findings: found, answers });
    expect(plan.lines.filter((l) => l.state !== 'ready')).toEqual([]);
    const after = await applied(disk, plan.changes);
    const sizes = Array.from({ length: count }, (_, n) => after?.get(`50_sound/music/${next(n)}`)?.size);
    return { sizes, list: after?.get(list)?.content };
  }

  test('two swap their names, and what refers to one still refers to it', async () => {
    const { sizes, list } = await renamed(2, (n) => nameOfWrong(1 - n));
    expect(sizes).toEqual([1000, 1001]);
    expect(list).toBe(`first,"../../${wrong(1)}"\n`);
  });

  test('ten thousand take the name of the next one each', async () => {
    const count = 10_000;
    const { sizes, list } = await renamed(count, (n) => nameOfWrong(n + 1));
    expect(sizes).toEqual(Array.from({ length: count }, (_, n) => 1000 + n));
    expect(list).toBe(`first,"../../${wrong(1)}"\n`);
  });
});
