/** Loose files brought in, in the browser: the heap, the card and the recorder of the demo, by keyboard. */
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
  existsSync,
  lstatSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Page } from '@playwright/test';
import { faults } from './axe';
import { expect, folderOf, idOf, test } from './demo';

const hashOf = (at: string) => createHash('sha256').update(readFileSync(at)).digest('hex');

/** Every name with its bytes and time. */
const wholeTree = (root: string): string[] =>
  readdirSync(root, { recursive: true })
    .map(String)
    // What is the program's own comes and goes while it works.
    .filter((name) => !name.startsWith('.nesting'))
    .sort()
    .map((name) => {
      const at = path.join(root, name);
      const { mtimeMs } = lstatSync(at);
      return lstatSync(at).isFile() ? `${name} ${mtimeMs} ${hashOf(at)}` : name;
    });

/** From the page of what has arrived, by keyboard. */
async function lookThrough(page: Page, heap: string, project: string): Promise<void> {
  await page.goto('/projects');
  await expect(page.getByRole('heading', { name: 'All projects' })).toBeVisible();
  await page.keyboard.press('i');
  await page.getByRole('button', { name: new RegExp(`^${heap}`) }).press('Enter');
  const finder = page.getByRole('combobox', { name: 'The project it is for' });
  await finder.fill(project);
  await expect(page.getByRole('option', { name: new RegExp(project) })).toBeVisible();
  await finder.press('Enter');
  await page.getByRole('button', { name: 'Look through it' }).press('Enter');
}

const filesOf = (page: Page) => page.getByRole('listbox', { name: 'Loose files' });
const settled = (page: Page) => expect(filesOf(page)).toHaveAttribute('aria-busy', 'false');

async function done(page: Page): Promise<void> {
  await expect(page.getByRole('button', { name: 'Undo it' })).toBeVisible();
}

test('a heap of downloads: each file shown with its place and why; one answered by hand; brought, proved, undone', async ({
  as,
  demo,
}) => {
  const page = await as('Ines Thorvald');
  const arrivals = path.join(path.dirname(demo.studio), 'arrivals/downloads');
  const root = folderOf(demo.studio, '26014');
  const [heapBefore, before] = [wholeTree(arrivals), wholeTree(root)];
  await lookThrough(page, 'downloads', '26014');
  const list = filesOf(page);
  await expect(list.getByRole('option', { name: /26009_town-hall/ })).toContainText('of 26009');
  await expect(list.getByRole('option', { name: /IMG_2208\.JPG/ })).toContainText(
    '20_survey/test-nights/pier/2026-03-02/pier_2026-03-02_',
  );
  const burst = list.getByRole('option', { name: /IMG_2209\.JPG … IMG_2211\.JPG/ });
  await expect(burst).toContainText('a burst of 3');
  expect(await faults(page)).toEqual([]);
  // What is said of a burst is said of all of it.
  await burst.click();
  await page.getByRole('button', { name: 'Leave it here' }).click();
  await expect(page.getByRole('button', { name: 'Bring it in' })).toBeVisible();
  await expect(burst).toHaveAttribute('aria-selected', 'false');
  await page.getByRole('button', { name: 'As it was' }).click();
  await expect(page.getByRole('button', { name: 'Leave it here' })).toBeVisible();
  // A photograph is looked at before it is filed.
  await list.getByRole('option', { name: /IMG_2208\.JPG/ }).click();
  await expect(page.getByRole('img', { name: 'IMG_2208.JPG' })).toBeVisible();
  // The stand was mistyped: said for what is found, in one act.
  await page.getByRole('textbox', { name: 'Part of a name or a folder' }).fill('pire');
  await expect(list.getByRole('option')).toHaveCount(1);
  await page.getByRole('combobox', { name: 'What is said of them' }).click();
  await page.getByRole('option', { name: 'Stands' }).click();
  await page
    .getByRole('combobox', { name: 'Stands' })
    .or(page.getByRole('textbox', { name: 'Stands' }))
    .fill('pier');
  await page.getByRole('button', { name: 'Set', exact: true }).click();
  await page.getByRole('button', { name: 'Take them' }).click();
  const pire = list.getByRole('option', { name: /IMG_2251/ });
  await expect(pire).toContainText('20_survey/test-nights/pier/2026-03-04/pier_2026-03-04_0001.jpg');
  await expect(pire).toHaveAttribute('aria-selected', 'true');
  // What was said is kept, also over a reload.
  await page.reload();
  await expect(pire).toContainText('pier_2026-03-04_0001.jpg');
  await page.getByRole('textbox', { name: 'Part of a name or a folder' }).fill('');
  await settled(page);
  await expect(page.getByText(/^Adds 2026-03-04, copies 14 files/)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await done(page);
  expect(wholeTree(arrivals)).toEqual(heapBefore);
  for (const [from, to] of [
    ['pire/IMG_2251.JPG', '20_survey/test-nights/pier/2026-03-04/pier_2026-03-04_0001.jpg'],
    ['Quote Harbour Lights 2026-03-01.pdf', '10_paperwork/quotes/2026-03-01_quote_harbour-lights.pdf'],
    ['26014_SPK_nl_s04_v02.wav', '50_sound/speech/nl/26014_SPK_nl_s04_v02.wav'],
  ] as const)
    expect(hashOf(path.join(root, to))).toBe(hashOf(path.join(arrivals, from)));
  await page.getByRole('button', { name: 'Undo it' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Undo it' }).click();
  await expect.poll(() => wholeTree(root)).toEqual(before);
});

test('a card stays whole under its day, the recorder’s sound goes beside it; taken in again it offers only what is new', async ({
  as,
  demo,
}) => {
  const page = await as('Ines Thorvald');
  const arrivals = path.join(path.dirname(demo.studio), 'arrivals');
  const root = folderOf(demo.studio, '26012');
  await lookThrough(page, 'card-A003', '26012');
  await expect(filesOf(page).getByRole('option')).toHaveCount(1);
  await expect(filesOf(page).getByRole('option')).toContainText('20_cards/2026-03-02/card-A003');
  expect(await faults(page)).toEqual([]);
  await page.getByRole('button', { name: 'Bring 11 files in' }).click();
  await done(page);
  for (const name of readdirSync(path.join(arrivals, 'card-A003'), { recursive: true }).map(String))
    if (lstatSync(path.join(arrivals, 'card-A003', name)).isFile())
      expect(hashOf(path.join(root, '20_cards/2026-03-02/card-A003', name))).toBe(
        hashOf(path.join(arrivals, 'card-A003', name)),
      );
  await lookThrough(page, 'recorder', '26012');
  await expect(filesOf(page).getByRole('option').first()).toContainText(
    '40_sound/2026-03-02/26012_20260302_pier_T001.wav',
  );
  await page.getByRole('button', { name: 'Bring 5 files in' }).click();
  await done(page);
  expect(existsSync(path.join(root, '40_sound/2026-03-02/26012_20260302_pier_T005.wav'))).toBe(true);
  await page.goto(`/projects/${await idOf(page, '26012')}/intake?volume=arrivals&folder=card-A003`);
  await page.getByRole('button', { name: 'Look again' }).click();
  await expect(page.getByText('Nothing comes in yet.')).toBeVisible();
  await page.goto('/intake');
  await expect(page.getByRole('button', { name: /^recorder/ })).toContainText('brought into 26012 Ropes and Lamps');
});

test('names that follow a convention of their own are learned from, and what their parts say is filled in', async ({
  as,
  demo,
}) => {
  const page = await as('Ines Thorvald');
  const heap = path.join(path.dirname(demo.studio), 'arrivals/from the roof');
  mkdirSync(heap);
  for (const stand of ['pier', 'mill-roof'])
    for (const who of ['BO', 'LV'])
      for (const n of [1, 2, 3]) writeFileSync(path.join(heap, `${stand}_${who}_00${n}.jpg`), `${stand} ${who} ${n}`);
  await page.goto(`/projects/${await idOf(page, '26014')}/intake?volume=arrivals&folder=from the roof`);
  await expect(filesOf(page).getByRole('option')).toHaveCount(12);
  await page.getByRole('button', { name: 'Learn from these names…' }).click();
  await expect(page.getByText('12 of 12 names follow it.')).toBeVisible();
  await page.getByRole('button', { name: 'Use it for the files' }).click();
  const says = page.getByRole('region', { name: 'What their names say' });
  await expect(says.getByRole('combobox', { name: 'What Title stands for' })).toHaveText('Stands');
  await expect(says.getByText('mill-roof, pier')).toBeVisible();
  expect(await faults(page)).toEqual([]);
  await says.getByRole('button', { name: 'Fill it in for 12 files' }).click();
  await settled(page);
  await expect(page.getByRole('button', { name: 'Learn from these names…' })).toBeVisible();
  // A day is all that is lacking: said for all of them in one act.
  await page.getByRole('combobox', { name: 'What is said of them' }).click();
  await page.getByRole('option', { name: 'Test nights' }).click();
  await page
    .getByRole('textbox', { name: 'Test nights' })
    .or(page.getByRole('combobox', { name: 'Test nights' }))
    .fill('2026-03-02');
  await page.getByRole('button', { name: 'Set', exact: true }).click();
  await expect(filesOf(page).getByRole('option', { name: /mill-roof_BO_001/ })).toContainText(
    '20_survey/test-nights/mill-roof/2026-03-02/',
  );
  rmSync(heap, { recursive: true });
});

test('a volume is said to be where material arrives; artists send files there, and bring nothing in', async ({
  as,
}) => {
  const page = await as('Ines Thorvald');
  await page.goto('/registers/volumes?volume=archive');
  const tick = page.getByRole('checkbox', { name: 'Loose material arrives here' });
  await expect(tick).not.toBeChecked();
  await tick.click();
  await expect(tick).toBeChecked();
  await page.goto('/intake');
  await expect(page.getByRole('button', { name: /^26008_SAK_candle-nave/ })).toBeVisible();
  await page.goto('/registers/volumes?volume=archive');
  await tick.click();
  await expect(tick).not.toBeChecked();
  const artist = await as('Bram Okonjo');
  await artist.goto('/intake');
  await expect(artist.getByRole('heading', { name: 'Send files in' })).toBeVisible();
  await expect(artist.getByText('not brought in yet')).toHaveCount(0);
});

test('a zip that arrived is unpacked, what is in it stands in two places, and only then may it be erased', async ({
  as,
  demo,
}) => {
  const page = await as('Ines Thorvald');
  const volumes = path.dirname(demo.studio);
  const made = mkdtempSync(path.join(tmpdir(), 'nesting-zip-'));
  writeFileSync(path.join(made, '26014_MUS_v71.wav'), 'music that nobody has yet');
  writeFileSync(path.join(made, 'who knows.xyz'), 'of no kind');
  const zip = path.join(volumes, 'arrivals/from the composer.zip');
  execFileSync('python3', ['-m', 'zipfile', '-c', zip, '26014_MUS_v71.wav', 'who knows.xyz'], { cwd: made });
  writeFileSync(path.join(volumes, 'arrivals/cut off.zip'), 'PK');
  // Said once, for all that comes in on the volume.
  await page.goto('/registers/volumes?volume=studio');
  await page.getByRole('combobox', { name: 'A second copy of what is brought in' }).click();
  await page.getByRole('option', { name: 'on archive' }).click();
  await page.goto('/intake');
  const broken = page.getByRole('listitem').filter({ hasText: 'cut off.zip' });
  await broken.getByRole('button', { name: 'Unpack it' }).click();
  await expect(broken).toContainText('this is no zip, or its end is missing. Nothing was changed.');
  await page
    .getByRole('listitem')
    .filter({ hasText: 'from the composer.zip' })
    .getByRole('button', { name: 'Unpack it' })
    .click();
  await expect(page.getByRole('button', { name: /^from the composer/, pressed: true })).toBeVisible();
  expect(await faults(page)).toEqual([]);
  await lookThrough(page, 'from the composer', '26014');
  await expect(page.getByRole('checkbox', { name: 'A second copy on archive' })).toBeChecked();
  await expect(page.getByText(/and once more to archive/)).toBeVisible();
  await page.getByRole('button', { name: 'Bring 1 file in' }).click();
  await done(page);
  const copies = page.getByRole('region', { name: 'Copies of these files' });
  await expect(copies).toContainText('Not yet. 2 files: 1 in two places, 1 in none.');
  const at = '50_sound/music/26014_MUS_v71.wav';
  const [root, double] = [folderOf(demo.studio, '26014'), path.join(volumes, 'archive')];
  expect(hashOf(path.join(folderOf(double, '26014'), at))).toBe(hashOf(path.join(root, at)));
  // What nobody can place is taken by hand, and then all of it is safe.
  rmSync(path.join(volumes, 'arrivals/from the composer/who knows.xyz'));
  await page.goto(`/projects/${await idOf(page, '26014')}/intake?volume=arrivals&folder=from+the+composer`);
  await expect(copies).toContainText('Yes. The file of from the composer stands in two places, archive, studio');
  expect(await faults(page)).toEqual([]);
  // On the second volume it goes: nobody may erase anything any more.
  rmSync(path.join(folderOf(double, '26014'), at));
  await page.reload();
  await expect(copies).toContainText('Not yet. 1 file: 1 in one.');
  await page.goto('/registers/volumes?volume=studio');
  await page.getByRole('combobox', { name: 'A second copy of what is brought in' }).click();
  await page.getByRole('option', { name: 'none' }).click();
  rmSync(made, { recursive: true });
  rmSync(path.join(volumes, 'arrivals/cut off.zip'));
});

/** Bytes that no two places of a file have alike. */
function content(size: number): Buffer {
  const bytes = Buffer.alloc(size);
  for (let i = 0; i + 4 <= size; i += 4) bytes.writeUInt32LE(Math.imul(i + 1, 2_654_435_761) >>> 0, i);
  return bytes;
}

test('a folder of this computer is sent, goes on after the connection was down and after a reload, and is proved', async ({
  as,
  demo,
}) => {
  const laptop = mkdtempSync(path.join(tmpdir(), 'nesting-laptop-'));
  const files = { 'stills/pier.jpg': content(3000), 'empty.txt': Buffer.alloc(0), 'walk.mov': content(40 * 2 ** 20) };
  for (const [at, bytes] of Object.entries(files)) {
    mkdirSync(path.dirname(path.join(laptop, at)), { recursive: true });
    writeFileSync(path.join(laptop, at), bytes);
    utimesSync(path.join(laptop, at), 1_772_000_000, 1_772_000_000);
  }
  const page = await as('Bram Okonjo');
  await page.goto('/intake');
  const from = page.getByRole('region', { name: 'From this computer' });
  await expect(from.getByRole('button', { name: 'Files…' })).toBeVisible();
  expect(await faults(page)).toEqual([]);
  await from.getByLabel('What it is').fill('night two');
  // Of the pieces only some get through before the line goes dead.
  let pieces = 0;
  await page.route('**/api/uploads/*/piece**', (route) =>
    ++pieces > 3 ? route.abort('internetdisconnected') : route.continue(),
  );
  await from.getByLabel('A folder of this computer').setInputFiles(laptop);
  await expect(from.getByRole('status')).toContainText('The server cannot be reached.');
  const heap = path.join(path.dirname(demo.studio), 'arrivals/night two');
  expect(existsSync(path.join(heap, 'walk.mov'))).toBe(false);
  await from.getByRole('button', { name: 'Stop' }).click();
  await expect(from.getByRole('status')).toContainText('It was stopped.');
  await page.unroute('**/api/uploads/*/piece**');
  page.on('dialog', (dialog) => void dialog.accept());
  await page.reload();
  let sent = 0;
  page.on('request', (request) => {
    if (request.url().includes('/piece')) sent++;
  });
  await from.getByLabel('What it is').fill('night two');
  await from.getByLabel('A folder of this computer').setInputFiles(laptop);
  await expect(from.getByRole('status')).toContainText('all of it is there, read back and proved');
  // What was there is not sent again.
  expect(sent).toBeLessThan(6);
  for (const [at, bytes] of Object.entries(files)) {
    expect(readFileSync(path.join(heap, at)).equals(bytes)).toBe(true);
    expect(statSync(path.join(heap, at)).mtimeMs).toBe(1_772_000_000_000);
  }
  expect(existsSync(path.join(heap, '.nesting'))).toBe(false);
  rmSync(laptop, { recursive: true });

  // A coordinator sees that it has arrived, and brings it to a project.
  const ines = await as('Ines Thorvald');
  await ines.goto('/intake');
  await ines.getByRole('button', { name: /night two/ }).click();
  await expect(ines).toHaveURL(/folder=night/);
});

test('a corrected file is sent in from the name helper, and takes the place of the one that lasts', async ({
  as,
  demo,
}) => {
  const page = await as('Ines Thorvald');
  const folder = path.join(folderOf(demo.studio, '26014'), '80_masters');
  const master = path.join(folder, '26014_MST_mill-roof.mov');
  writeFileSync(master, 'the first film');
  utimesSync(master, 1_772_000_000, 1_772_000_000);
  const query = new URLSearchParams({ project: '26014', save: 'master', 'v.stand': 'mill-roof', 'v.ext': 'mov' });
  await page.goto(`/names?${query}`);
  await page.getByRole('button', { name: /Get the name|Give me the name/ }).click();
  const corrected = page.getByRole('region', { name: 'A corrected file' });
  await corrected
    .getByLabel('A corrected 26014_MST_mill-roof.mov')
    .setInputFiles({ name: 'export 12.mov', mimeType: 'video/quicktime', buffer: Buffer.from('the corrected film') });
  const list = filesOf(page);
  await expect(list.getByRole('option')).toHaveCount(1);
  await settled(page);
  const ledger = page.getByRole('region', { name: 'What will happen' });
  await page.getByRole('button', { name: 'Put this one in its place' }).click();
  await settled(page);
  await expect(list).toContainText('replaces');
  expect(await faults(page)).toEqual([]);
  expect(readFileSync(master, 'utf8')).toBe('the first film');
  await ledger.getByRole('button', { name: /^Bring/ }).click();
  await done(page);
  expect(readFileSync(master, 'utf8')).toBe('the corrected film');
  await page.getByRole('button', { name: 'Undo it' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Undo it' }).click();
  await expect.poll(() => readFileSync(master, 'utf8')).toBe('the first film');
  rmSync(master);
});
