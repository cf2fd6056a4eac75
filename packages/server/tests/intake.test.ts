/** Loose files brought into a project on a real disk with a real database: a card, a recorder's card, downloads. */
import { execFileSync } from 'node:child_process';
import { createHash, randomUUID } from 'node:crypto';
import { existsSync, lstatSync, readdirSync, readFileSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import {
  type ActivityPage,
  type BatchAnswer,
  type FindingList,
  type Inbox,
  type IntakePlan,
  type ProjectPage,
  parseTemplate,
} from '@nesting/contract';
import { cameraCard, downloads, type HeapFile, recorderCard } from '../../../demo/heaps';
import { insertEdition } from '../src/index';
import { type Lived, laidIn, openTestWorld, startedIn, type TestWorld } from './world';

let t: TestWorld;
const editions = new Map<string, number>();
beforeAll(async () => {
  t = await openTestWorld();
  for (const name of ['making-of', 'facade-show']) {
    const parsed = parseTemplate(readFileSync(`demo/templates/${name}.nest.json`, 'utf8'));
    if (!parsed.ok) throw new Error(parsed.faults[0]);
    editions.set(name, parsed.value.edition ?? 1);
    const starters = ['starters/brief.md', 'starters/show.otio'].map((at) => [at, Buffer.from('{number}\n')] as const);
    await insertEdition(t.world.db, parsed.value, name === 'facade-show' ? new Map(starters) : new Map());
  }
});
afterAll(() => t.close());

let numbers = 94_000;
const C = 'coordinator';
const WAIT = { prefer: 'wait=60' };

const film = (days: readonly string[] = ['2026-03-01']): Promise<Lived> => {
  const number = String(++numbers);
  const values = { number, title: 'Ropes', client: 'QHT', places: ['pier', 'workshop'], days, cameras: ['a', 'b'] };
  return startedIn(t, number, { template: 'making-of', values });
};

const show = (): Promise<Lived> => {
  const number = String(++numbers);
  const values = {
    ...{ number, title: 'Harbour Lights', client: 'QHT', surfaces: ['clock-tower'], scenes: 's01..s05' },
    ...{ stands: ['pier', 'mill-roof'], nights: ['2026-03-02'], speech: 'spoken', languages: ['en', 'nl'] },
  };
  return startedIn(t, number, { template: 'facade-show', edition: editions.get('facade-show') ?? 1, values });
};

/** A heap as it lies on the volume; each has a folder of its own. */
const lay = (files: readonly HeapFile[]): string => laidIn(t, files);

const text = (at: string, content = at): HeapFile => ({
  ...{ path: at, bytes: Buffer.from(content), modified: '2026-03-05T08:00:00Z' },
});

/** Every name with its bytes and time. */
function wholeTree(root: string): string[] {
  return readdirSync(root, { recursive: true })
    .map(String)
    .sort()
    .map((name) => {
      const at = path.join(root, name);
      const stats = lstatSync(at);
      return stats.isFile() ? `${name} ${stats.mtimeMs} ${readFileSync(at, 'base64')}` : name;
    });
}

const read = (id: string, folder: string) =>
  t.ask(C, 'POST', `/api/projects/${id}/intake/read`, { volume: 'studio', folder });
const ask = (id: string, folder: string, said: object = {}) =>
  t.ask(C, 'POST', `/api/projects/${id}/intake`, { volume: 'studio', folder, ...said });
const plan = async (id: string, folder: string, said: object = {}): Promise<IntakePlan> =>
  (await (await ask(id, folder, said)).json()) as IntakePlan;
const apply = (id: string, folder: string, fingerprint: string, said: object = {}) => {
  const body = { volume: 'studio', folder, ...said, fingerprint, key: randomUUID() };
  return t.ask(C, 'POST', `/api/projects/${id}/intake/batches`, body, WAIT);
};

async function codeOf(response: Response): Promise<[number, string]> {
  return [response.status, ((await response.json()) as { code: string }).code];
}

async function brought(p: Lived, folder: string, said: object = {}): Promise<{ shown: IntakePlan; batch: string }> {
  expect((await read(p.id, folder)).status).toBe(204);
  const shown = await plan(p.id, folder, said);
  const response = await apply(p.id, folder, shown.fingerprint, said);
  expect(response.status).toBe(201);
  return { shown, batch: ((await response.json()) as BatchAnswer).batch };
}

const hashOf = (at: string) => createHash('sha256').update(readFileSync(at)).digest('hex');
const isOwn = (line: string) => line.startsWith('.nesting');

describe('bringing in', () => {
  test('a card stays whole under the day it was made, which the project gets; the card is only read; undone, nothing is left', async () => {
    const p = await film();
    const folder = lay(cameraCard());
    const [before, card] = [wholeTree(p.root), wholeTree(path.join(t.studio, folder))];
    const { shown, batch } = await brought(p, folder);
    expect(shown).toMatchObject({
      entries: [{ list: 'days', outer: null, entry: '2026-03-02' }],
      files: 11,
      hindered: 0,
    });
    expect(shown.cards).toEqual([{ path: '', to: `20_cards/2026-03-02/${folder}`, files: 11 }]);
    for (const { path: at } of cameraCard())
      expect(hashOf(path.join(p.root, `20_cards/2026-03-02/${folder}`, at))).toBe(
        hashOf(path.join(t.studio, folder, at)),
      );
    expect(wholeTree(path.join(t.studio, folder))).toEqual(card);
    const page = (await (await t.ask('lead', 'GET', `/api/projects/${p.id}`)).json()) as ProjectPage;
    expect(page.values.days).toEqual(['2026-03-01', '2026-03-02']);
    await t.idle();
    const found = (await (
      await t.ask('lead', 'GET', `/api/projects/${p.id}/findings?group=none`)
    ).json()) as FindingList;
    // One take was made at the fast setting: that a card may well bring.
    expect(found.rows.map(({ message }) => message)).toEqual(['“Frame rate” is 50 in C0117.MP4; 25 was agreed.']);
    const told = (await (await t.ask('lead', 'GET', `/api/activity?project=${p.id}`)).json()) as ActivityPage;
    expect(told.rows[0]).toMatchObject({ what: 'files-brought', params: { files: 11, from: folder } });
    // Every copy has its checksum, which an independent program holds against what lies there now.
    const printed = async (as: string) =>
      (await t.ask('artist', 'GET', `/api/projects/${p.id}/batches/${batch}/print?as=${as}`)).text();
    const sums = await printed('checksums');
    expect(sums.trim().split('\n')).toHaveLength(11);
    expect(() =>
      execFileSync('sha256sum', ['-c', '--strict', '-'], { cwd: p.root, input: sums, stdio: 'pipe' }),
    ).not.toThrow();
    expect((await printed('names')).split('\r\n').slice(0, 2)).toEqual([
      'from,to,sha256',
      expect.stringMatching(new RegExp(`^CLIPS/C0114.IDX,20_cards/2026-03-02/${folder}/CLIPS/C0114.IDX,[0-9a-f]{64}$`)),
    ]);
    // Again it offers only what is new.
    writeFileSync(path.join(t.studio, folder, 'CLIPS/C0119.IDX'), 'one more');
    expect((await read(p.id, folder)).status).toBe(204);
    const again = await plan(p.id, folder);
    expect([again.counts.there, again.files]).toEqual([11, 1]);
    expect(again.items.find(({ state }) => state === 'comes')?.to).toBe(
      `20_cards/2026-03-02/${folder}/CLIPS/C0119.IDX`,
    );
    const undone = await t.ask(C, 'POST', `/api/projects/${p.id}/batches/${batch}/undo`, {}, WAIT);
    expect(undone.status).toBe(201);
    expect(wholeTree(p.root).filter((line) => !isOwn(line))).toEqual(before.filter((line) => !isOwn(line)));
    const after = (await (await t.ask('lead', 'GET', `/api/projects/${p.id}`)).json()) as ProjectPage;
    expect(after.values.days).toEqual(['2026-03-01']);
  });

  test('sound whose clock is 37 seconds ahead finds its pictures; parted and joined by hand, and as a table', async () => {
    const p = await film(['2026-03-02']);
    const folder = lay([...cameraCard().map((file) => ({ ...file, path: `card/${file.path}` })), ...recorderCard()]);
    expect((await read(p.id, folder)).status).toBe(204);
    const shown = await plan(p.id, folder);
    expect(shown.pairs.map(({ picture, sound }) => [picture.slice(-8, -4), sound.slice(5, 8)])).toEqual(
      [1, 2, 3, 4, 5].map((n) => [`011${n + 3}`, `T0${n}`]),
    );
    expect(shown.shift).toMatchObject({ pairs: 5 });
    // Begun some seconds earlier by hand: what is left of 37.
    expect(Math.abs((shown.shift?.seconds ?? 0) - 32)).toBeLessThanOrEqual(2);
    const [first, second] = shown.pairs;
    const one = { picture: first?.picture ?? '', sound: first?.sound ?? '' };
    const other = { picture: second?.picture ?? '', sound: first?.sound ?? '' };
    const byHand = await plan(p.id, folder, { pairing: { parted: [one], joined: [other] } });
    expect(byHand.pairs.filter(({ sound }) => sound === one.sound)).toMatchObject([{ ...other, by: 'hand' }]);
    const table = await t.ask(C, 'POST', `/api/projects/${p.id}/intake/print?as=pairs`, { volume: 'studio', folder });
    expect((await table.text()).split('\r\n')[0]).toBe('picture,sound,offset,overlap,by');
    const lines = await t.ask(C, 'POST', `/api/projects/${p.id}/intake/print?as=otio`, { volume: 'studio', folder });
    expect(((await lines.json()) as { children: object[] }).children).toHaveLength(5);
    const asTheyAre = await plan(p.id, folder, { pairing: { shift: 0 } });
    expect(asTheyAre.pairs.length).toBeLessThan(5);
  });

  test('downloads: each to its place under its name, doubled ones once, what nobody can place stays', async () => {
    const p = await show();
    const folder = lay((await downloads()).map((file) => ({ ...file, path: file.path.replace('26014', p.number) })));
    const { shown } = await brought(p, folder);
    const toOf = (from: string) => shown.items.find((item) => item.from === from)?.to ?? null;
    const stateOf = (from: string) => shown.items.find((item) => item.from === from)?.state ?? null;
    expect(toOf('pier/IMG_2207.JPG')).toBe('20_survey/test-nights/pier/2026-03-02/pier_2026-03-02_0001.jpg');
    expect(toOf('mill roof/20260304_203155.jpg')).toBe(
      '20_survey/test-nights/mill-roof/2026-03-04/mill-roof_2026-03-04_0001.jpg',
    );
    expect(toOf('Quote Harbour Lights 2026-03-01.pdf')).toBe('10_paperwork/quotes/2026-03-01_quote_harbour-lights.pdf');
    expect(toOf('clock tower s02 comp LV v7.usda')).toContain('40_motion/clock-tower/s02/working/');
    expect(stateOf('IMG_2207 (1).JPG')).toBe('twice');
    expect(stateOf('Thumbs.db')).toBe('system');
    expect([stateOf('IMG_2301.JPG'), stateOf('Untitled.pdf'), stateOf('from Samir.zip')]).toEqual([
      'orphan',
      'orphan',
      'orphan',
    ]);
    // What says that it is another project's is no file of this one.
    expect(shown.items.find(({ foreign }) => foreign === '26009') ?? null).toBeNull();
    for (const { from, to, state } of shown.items)
      if (state === 'comes' && to !== null)
        expect(hashOf(path.join(p.root, to))).toBe(hashOf(path.join(t.studio, folder, from)));
    await t.idle();
    const found = (await (
      await t.ask('lead', 'GET', `/api/projects/${p.id}/findings?group=none`)
    ).json()) as FindingList;
    expect(found.rows).toEqual([]);
  });

  test('what a person says is stronger: a folder, a name, a place for many, a value that a list does not have yet', async () => {
    const p = await show();
    const folder = lay([text('x/one.jpg'), text('x/two.jpg'), text('note.pdf')]);
    expect((await read(p.id, folder)).status).toBe(204);
    const placed = {
      x: { comes: true, values: { stands: 'lighthouse', nights: '2026-03-05' } },
      'note.pdf': { comes: true, folder: '10_paperwork/rights', name: 'as it is.pdf' },
    };
    const shown = await plan(p.id, folder, { placed });
    const tos = shown.items.map(({ to }) => to);
    expect(tos).toContain('10_paperwork/rights/as it is.pdf');
    expect(tos).toContain('20_survey/test-nights/lighthouse/2026-03-05/lighthouse_2026-03-05_0001.jpg');
    expect(tos).toContain('20_survey/test-nights/lighthouse/2026-03-05/lighthouse_2026-03-05_0002.jpg');
    const response = await apply(p.id, folder, shown.fingerprint, { placed });
    expect(response.status).toBe(201);
    expect(
      existsSync(path.join(p.root, '20_survey/test-nights/lighthouse/2026-03-05/lighthouse_2026-03-05_0002.jpg')),
    ).toBe(true);
  });

  test('moved instead of copied, and moved back', async () => {
    const p = await show();
    const folder = lay([text(`${p.number}_MUS_v01.wav`, 'music')]);
    const heap = path.join(t.studio, folder);
    const before = wholeTree(heap);
    const { batch } = await brought(p, folder, { isMove: true });
    expect(wholeTree(heap)).toEqual([]);
    expect(readFileSync(path.join(p.root, `50_sound/music/${p.number}_MUS_v01.wav`), 'utf8')).toBe('music');
    expect((await t.ask(C, 'POST', `/api/projects/${p.id}/batches/${batch}/undo`, {}, WAIT)).status).toBe(201);
    expect(wholeTree(heap)).toEqual(before);
  });

  test.each([false, true])(
    'a corrected file takes the place of one that lasts, which comes back (moved: %s)',
    async (isMove) => {
      const p = await show();
      const to = `80_masters/${p.number}_MST_pier.mov`;
      const folder = lay([text('pier corrected.mov', 'the corrected film')]);
      p.put(to, 'the first film');
      const week = new Date(Date.now() - 7 * 86_400_000);
      utimesSync(path.join(p.root, to), week, week);
      const [project, heap] = [wholeTree(p.root).filter((l) => !isOwn(l)), wholeTree(path.join(t.studio, folder))];
      const placed = { 'pier corrected.mov': { folder: '80_masters', name: path.basename(to), comes: true } };
      expect((await read(p.id, folder)).status).toBe(204);
      const [asked] = (await plan(p.id, folder, { placed, isMove })).items;
      expect(asked).toMatchObject({ clash: true, inWay: { size: 14, referrers: 0, keptAs: null } });
      const said = {
        ...{ placed: { 'pier corrected.mov': { ...placed['pier corrected.mov'], replaces: true } }, isMove },
      };
      const { batch } = await brought(p, folder, said);
      expect(readFileSync(path.join(p.root, to), 'utf8')).toBe('the corrected film');
      expect((await t.ask(C, 'POST', `/api/projects/${p.id}/batches/${batch}/undo`, {}, WAIT)).status).toBe(201);
      expect(wholeTree(p.root).filter((l) => !isOwn(l))).toEqual(project);
      expect(wholeTree(path.join(t.studio, folder))).toEqual(heap);
    },
  );

  test('a loose file is looked at only where it was looked through', async () => {
    const p = await show();
    const folder = lay([text('look.pdf', 'seen')]);
    const at = (name: string) =>
      t.ask(
        C,
        'GET',
        `/api/projects/${p.id}/intake/file?volume=studio&folder=${folder}&path=${name.replace('../', '..%2F')}`,
      );
    expect(await codeOf(await at('look.pdf'))).toEqual([409, 'heap-unread']);
    expect((await read(p.id, folder)).status).toBe(204);
    expect(await (await at('look.pdf')).text()).toBe('seen');
    expect(await codeOf(await at('../secret'))).toEqual([404, 'file-gone']);
    // Of a large one its beginning alone.
    writeFileSync(path.join(t.studio, folder, 'large.jpg'), Buffer.alloc(300_000, 7));
    expect((await read(p.id, folder)).status).toBe(204);
    const head = Buffer.from(await (await at('large.jpg&part=head')).arrayBuffer());
    expect([head.length, head.every((byte) => byte === 7)]).toEqual([256 * 1024, true]);
    expect((await (await at('large.jpg')).arrayBuffer()).byteLength).toBe(300_000);
    expect(await (await at('look.pdf&part=head')).text()).toBe('seen');
    rmSync(path.join(t.studio, folder, 'look.pdf'));
    expect(await codeOf(await at('look.pdf'))).toEqual([404, 'file-gone']);
  });
});

describe('trouble', () => {
  test('a heap in a project, or around one, is refused; so is one that nobody looked through', async () => {
    const p = await show();
    expect(await codeOf(await read(p.id, path.basename(p.root)))).toEqual([409, 'heap-in-project']);
    expect(await codeOf(await read(p.id, `${path.basename(p.root)}/10_paperwork`))).toEqual([409, 'heap-in-project']);
    expect(await codeOf(await read(p.id, ''))).toEqual([409, 'heap-in-project']);
    expect(await codeOf(await ask(p.id, lay([text('x.pdf')])))).toEqual([409, 'heap-unread']);
    expect(await codeOf(await read(p.id, '../etc'))).toEqual([400, 'path-refused']);
    expect(await codeOf(await read(p.id, 'nowhere'))).toEqual([404, 'path-missing']);
  });

  test('what changed since it was looked through stops the batch before it began', async () => {
    const p = await show();
    const folder = lay([text(`${p.number}_MUS_v01.wav`, 'music')]);
    expect((await read(p.id, folder)).status).toBe(204);
    const shown = await plan(p.id, folder);
    writeFileSync(path.join(t.studio, folder, `${p.number}_MUS_v01.wav`), 'longer music');
    expect(await codeOf(await apply(p.id, folder, shown.fingerprint))).toEqual([409, 'plan-stale']);
    expect(existsSync(path.join(p.root, `50_sound/music/${p.number}_MUS_v01.wav`))).toBe(false);
    // What took the place meanwhile is left: the plan is another one.
    p.put(`50_sound/music/${p.number}_MUS_v01.wav`, 'other');
    expect((await read(p.id, folder)).status).toBe(204);
    expect(await codeOf(await apply(p.id, folder, shown.fingerprint))).toEqual([409, 'disk-changed']);
  });

  test('two take in the same card at once: each file comes once', async () => {
    const p = await film(['2026-03-02']);
    const folder = lay(cameraCard());
    expect((await read(p.id, folder)).status).toBe(204);
    const shown = await plan(p.id, folder);
    const answers = await Promise.all([apply(p.id, folder, shown.fingerprint), apply(p.id, folder, shown.fingerprint)]);
    const statuses = answers.map(({ status }) => status).sort();
    expect(statuses[0]).toBe(201);
    expect(statuses[1]).toBe(409);
    const there = wholeTree(path.join(p.root, '20_cards'));
    expect(there.filter((line) => line.includes(' '))).toHaveLength(11);
  });

  test('hostile heaps: names that lead out, no extension, empty files, broken media; all is said, nothing breaks', async () => {
    const p = await show();
    const folder = lay([
      text('con.pdf', 'a name that some systems refuse'),
      text('a: b?.pdf', 'quote 2026-02-01'),
      text('broken.jpg', '\xff\xd8\xff\xe1\xff\xff broken'),
      text('broken.wav', 'RIFF\xff\xff\xff\x7fWAVEfmt \xff\xff\xff\xff'),
      text('broken.mp4', '\0\0\0\x18ftypisom\0\0\0\0isomavc1\0\0\0\x08moov'),
      text('empty.pdf', ''),
      text(`${'long '.repeat(40)}.pdf`),
      text('constructor/toString/__proto__.wav', 'x'),
    ]);
    expect((await read(p.id, folder)).status).toBe(204);
    const placed = { '': { comes: true, folder: '20_survey/measurements' } };
    const shown = await plan(p.id, folder, { placed });
    expect(shown.all).toBe(8);
    expect(shown.items.find(({ from }) => from === 'con.pdf')?.fault).not.toBeNull();
    expect(shown.items.find(({ from }) => from === 'a: b?.pdf')?.fault).not.toBeNull();
    const response = await apply(p.id, folder, shown.fingerprint, { placed });
    expect(response.status).toBe(201);
  });
});

describe('inboxes', () => {
  test('a volume on which material arrives says what lies there, and where it was brought', async () => {
    const p = await show();
    const folder = lay([text(`${p.number}_MUS_v01.wav`, 'music')]);
    expect((await t.ask(C, 'PUT', '/api/volumes/studio/inbox', { isInbox: true })).status).toBe(204);
    const inbox = async () => ((await (await t.ask(C, 'GET', '/api/inboxes')).json()) as Inbox[])[0];
    const heap = async () => (await inbox())?.heaps.find((one) => one.folder === folder);
    expect(await heap()).toMatchObject({ brought: null });
    await brought(p, folder);
    expect(await heap()).toMatchObject({ brought: { project: p.id, number: p.number } });
    expect(await codeOf(await t.ask(C, 'PUT', '/api/volumes/nowhere/inbox', { isInbox: true }))).toEqual([
      404,
      'no-volume',
    ]);
    expect((await t.ask(C, 'PUT', '/api/volumes/studio/inbox', { isInbox: false })).status).toBe(204);
    expect(await (await t.ask(C, 'GET', '/api/inboxes')).json()).toEqual([]);
  });
});
