/** Loose files of this computer brought into a project's folder of it: nothing is sent, and all of it can be undone. */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import type { Page } from '@playwright/test';
import { ZipFile } from 'yazl';
import { faults } from './axe';
import { copiedFrom, intoBrowser, treeInBrowser } from './browser-copy';
import { type Demo, expect, folderOf, idOf, test } from './demo';

const filesOf = (page: Page) => page.getByRole('listbox', { name: 'Loose files' });
const arrivalsOf = (demo: Demo) => path.join(path.dirname(demo.studio), 'arrivals');
const sumOf = (bytes: Buffer) => `${bytes.length} ${bytes.reduce((sum, byte) => (sum * 31 + byte) % 1_000_003, 7)}`;

/** The project's folder, copied to this computer with what says what it is by. */
async function open(page: Page, demo: Demo): Promise<void> {
  const sent: string[] = [];
  page.on('request', (request) => request.method() !== 'GET' && sent.push(request.url()));
  await page.goto('/intake');
  await page.getByRole('link', { name: 'Straight into a project’s folder on this computer' }).click();
  await intoBrowser(page, copiedFrom(folderOf(demo.studio, '26012'), { withOwn: true }));
  await page.getByRole('button', { name: 'Choose it…' }).press('Enter');
  await expect(page.getByRole('heading', { name: 'Bring files into Ropes and Lamps' })).toBeVisible();
}

async function choose(page: Page, demo: Demo, heap: string): Promise<void> {
  await intoBrowser(page, copiedFrom(path.join(arrivalsOf(demo), heap)), { name: heap, isSource: true });
  await page.getByRole('button', { name: 'A folder…' }).press('Enter');
}

test('a card and a recorder, by their content; a new day grows the project; what came is proved, listed, and undone', async ({
  as,
  demo,
}) => {
  const page = await as('Bram Okonjo');
  await open(page, demo);
  const before = await treeInBrowser(page);
  await choose(page, demo, 'card-A003');
  await expect(filesOf(page).getByRole('option')).toHaveCount(1);
  await expect(filesOf(page).getByRole('option')).toContainText('20_cards/2026-03-02/card-A003');
  await expect(filesOf(page).getByRole('option')).toContainText('1 not as agreed');
  expect(await faults(page)).toEqual([]);
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('11 files came into copy, each read back and proved.')).toBeVisible();
  await expect(filesOf(page).getByText('In the project already')).toBeVisible();
  expect(await faults(page)).toEqual([]);
  const there = await treeInBrowser(page);
  for (const { path: at, folder, text } of copiedFrom(path.join(arrivalsOf(demo), 'card-A003')))
    if (!folder) expect(there).toContain(`20_cards/2026-03-02/card-A003/${at} ${sumOf(Buffer.from(text, 'base64'))}`);
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save what came…' }).click();
  await page.getByRole('menuitem', { name: /Checksums/ }).click();
  const lines = readFileSync(await (await saved).path(), 'utf8')
    .trim()
    .split('\n');
  expect(lines).toHaveLength(11);
  expect(lines.every((line) => /^[0-9a-f]{64} {2}20_cards\/2026-03-02\/card-A003\//.test(line))).toBe(true);
  await choose(page, demo, 'recorder');
  await expect(filesOf(page).getByRole('option').first()).toContainText(
    '40_sound/2026-03-02/26012_20260302_pier_T001.wav',
  );
  await page.getByRole('button', { name: 'Bring 5 files in' }).click();
  await expect(page.getByText('5 files came into copy, each read back and proved.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo it' }).click();
  await expect(page.getByText('What came is gone again.')).toBeVisible();
  expect(await treeInBrowser(page)).toEqual(there);
  expect(there.length).toBeGreaterThan(before.length);
});

test('a file that goes away half way: what came so far is gone on with when it is back, or taken back', async ({
  as,
  demo,
}) => {
  const page = await as('Ines Thorvald');
  await open(page, demo);
  const before = await treeInBrowser(page);
  await choose(page, demo, 'card-A003');
  await expect(page.getByRole('button', { name: 'Bring 11 files in' })).toBeEnabled();
  const moved = (from: string, to: string) =>
    page.evaluate(
      async ([old, next]) => {
        const card = await (await navigator.storage.getDirectory()).getDirectoryHandle('card-A003');
        const clips = await card.getDirectoryHandle('CLIPS');
        const file = (await clips.getFileHandle(old)) as FileSystemFileHandle & { move(name: string): Promise<void> };
        await file.move(next);
      },
      [from, to] as const,
    );
  await moved('C0116.MP4', 'elsewhere');
  await page.getByRole('button', { name: 'Bring 11 files in' }).click();
  const hindered = page.getByText(/the file it comes from is not there/);
  await expect(hindered).toBeVisible();
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByText('What came is gone again.')).toBeVisible();
  expect(await treeInBrowser(page)).toEqual(before);
  await moved('elsewhere', 'C0116.MP4');
  // What is shown is of before: it is looked through anew.
  await page.getByRole('textbox', { name: 'Part of a name or a folder' }).fill('C0116.MP4');
  await page.getByRole('button', { name: 'Look again' }).click();
  await expect(filesOf(page).getByRole('option')).toHaveCount(1);
  await expect(page.getByRole('button', { name: 'Bring 11 files in' })).toBeEnabled();
  await moved('C0116.MP4', 'elsewhere');
  await page.getByRole('button', { name: 'Bring 11 files in' }).click();
  await expect(hindered).toBeVisible();
  // The page is left half way: the folder itself tells how far it was.
  await page.reload();
  await intoBrowser(page, []);
  await intoBrowser(page, [], { name: 'card-A003', isSource: true });
  await page.getByRole('button', { name: 'Choose it…' }).click();
  await expect(page.getByRole('region', { name: 'Cut short' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Go on with it' })).toBeDisabled();
  expect(await faults(page)).toEqual([]);
  await page.getByRole('button', { name: 'A folder…' }).click();
  await moved('elsewhere', 'C0116.MP4');
  await page.getByRole('button', { name: 'Go on with it' }).click();
  await expect(page.getByText('What was cut short is ended.')).toBeVisible();
  const there = await treeInBrowser(page);
  for (const { path: at, folder, text } of copiedFrom(path.join(arrivalsOf(demo), 'card-A003')))
    if (!folder) expect(there).toContain(`20_cards/2026-03-02/card-A003/${at} ${sumOf(Buffer.from(text, 'base64'))}`);
});

test('what is no project, lies in the project, or is nothing, is said', async ({ as, demo }) => {
  const page = await as('Bram Okonjo');
  await page.goto('/intake/here');
  await intoBrowser(page, [{ path: 'notes.txt', folder: false, text: 'eA==' }], { name: 'no-project' });
  await page.getByRole('button', { name: 'Choose it…' }).click();
  await expect(page.getByText('no-project is no project’s folder', { exact: false })).toBeVisible();
  await open(page, demo);
  await page.evaluate(async () => {
    const copy = await (await navigator.storage.getDirectory()).getDirectoryHandle('copy');
    const inside = await copy.getDirectoryHandle('20_cards');
    const global = globalThis as unknown as { showDirectoryPicker: () => Promise<FileSystemDirectoryHandle> };
    global.showDirectoryPicker = async () => inside;
  });
  await page.getByRole('button', { name: 'A folder…' }).click();
  await expect(page.getByText('What is brought in and the project lie in each other.').first()).toBeVisible();
  await intoBrowser(page, [], { name: 'empty', isSource: true });
  await page.getByRole('button', { name: 'A folder…' }).click();
  await expect(page.getByText('Nothing lies there')).toBeVisible();
});

async function zipOf(entries: readonly { readonly path: string; readonly bytes: Buffer }[]): Promise<Buffer> {
  const zip = new ZipFile();
  for (const { path: at, bytes } of entries) zip.addBuffer(bytes, at, { mtime: new Date('2026-03-03T08:00:00Z') });
  zip.end();
  const parts: Buffer[] = [];
  for await (const part of zip.outputStream) parts.push(Buffer.from(part));
  return Buffer.concat(parts);
}

test('a zip of this computer is looked into where it lies; one that would lead out, or lies, brings nothing', async ({
  as,
  demo,
}) => {
  const page = await as('Ines Thorvald');
  await open(page, demo);
  const card = copiedFrom(path.join(arrivalsOf(demo), 'card-A003')).filter(({ folder }) => !folder);
  const entries = card.map(({ path: at, text }) => ({ path: at, bytes: Buffer.from(text, 'base64') }));
  const whole = await zipOf(entries);
  const choose = (name: string, buffer: Buffer) =>
    page.getByLabel('A zip to bring in').setInputFiles({ name, mimeType: 'application/zip', buffer });
  const leading = Buffer.from(
    (await zipOf([{ path: 'aa/out.txt', bytes: Buffer.from('x') }])).toString('latin1').replaceAll('aa/out', '../out'),
    'latin1',
  );
  await choose('leading.zip', leading);
  await expect(page.getByText(/It cannot be looked through: \.\.\/out\.txt/)).toBeVisible();
  await choose('no.zip', Buffer.from('no zip at all'));
  await expect(page.getByText(/It cannot be looked through/)).toBeVisible();
  // A byte of a clip turned: that file is not what the zip says, and does not come.
  const turned = Buffer.from(whole);
  turned.writeUInt8(turned.readUInt8(200) ^ 0xff, 200);
  await choose('turned.zip', turned);
  await expect(page.getByText(/could not be looked at, among them CLIPS\/C0114/)).toBeVisible();
  await choose('card-A003.zip', whole);
  await expect(filesOf(page).getByRole('option')).toContainText('20_cards/2026-03-02/card-A003');
  await page.getByRole('button', { name: 'Bring 11 files in' }).click();
  await expect(page.getByText('11 files came into copy, each read back and proved.')).toBeVisible();
  const there = await treeInBrowser(page);
  for (const { path: at, bytes } of entries)
    expect(there).toContain(`20_cards/2026-03-02/card-A003/${at} ${sumOf(bytes)}`);
});

test('a folder checked here is held to what the setup sheet agreed', async ({ as, demo }) => {
  const page = await as('Ines Thorvald');
  await page.goto(`/projects/${await idOf(page, '26012')}/here`);
  // What was written a moment ago is not judged yet.
  await page.clock.setFixedTime(Date.now() + 3_600_000);
  const clip = copiedFrom(path.join(arrivalsOf(demo), 'card-A003')).filter(({ path: at }) => at.endsWith('C0117.MP4'));
  await intoBrowser(page, copiedFrom(folderOf(demo.studio, '26012')));
  await intoBrowser(
    page,
    clip.map((entry) => ({ ...entry, path: '80_masters/C0117.MP4' })),
  );
  await page.getByRole('button', { name: 'A folder here…' }).click();
  await page.getByRole('option', { name: /^should C0117\.MP4/ }).click();
  await expect(page.getByText('“Frame rate” is 50 in C0117.MP4; 25 was agreed.')).toBeVisible();
});
