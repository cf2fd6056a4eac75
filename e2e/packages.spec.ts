/** A project is packed, proved, sent by a link and checked on another computer, on a real disk. */
import { execFileSync } from 'node:child_process';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { faults } from './axe';
import { expect, folderOf, idOf, test } from './demo';

let dir = '';
test.beforeAll(() => {
  dir = mkdtempSync(path.join(tmpdir(), 'nesting-e2e-packages-'));
});
test.afterAll(() => rmSync(dir, { recursive: true, force: true }));

const nesting = (...args: readonly string[]): string =>
  execFileSync(process.execPath, [path.join(process.cwd(), 'bin/nesting.js'), ...args], { encoding: 'utf8' });

/** Every file below a folder, with its bytes. */
function filesIn(root: string): ReadonlyMap<string, Buffer> {
  const paths = readdirSync(root, { recursive: true, encoding: 'utf8' }).filter((at) => !at.startsWith('.nesting'));
  return new Map(
    paths
      .filter((at) => statSync(path.join(root, at)).isFile())
      .sort()
      .map((at) => [at, readFileSync(path.join(root, at))]),
  );
}

test('a project is packed by keyboard, sent with a word, fetched without signing in, and checked where it arrived', async ({
  as,
  demo,
  browser,
}) => {
  const page = await as('Ines Thorvald');
  const id = await idOf(page, '26011');
  const root = folderOf(demo.studio, '26011');
  const before = filesIn(root);
  await page.goto(`/projects/${id}`);
  await page.getByRole('button', { name: 'More…' }).click();
  await page.getByRole('menuitem', { name: 'Pack it…' }).click();
  const list = page.getByRole('listbox', { name: 'What goes into it' });
  await expect(list.getByRole('option').first()).toBeVisible();
  expect(await faults(page)).toEqual([]);
  // Quotes stay in the house, and say why.
  await page.getByRole('button', { name: /^Not for outsiders/ }).click();
  await expect(page).toHaveURL(/state=outsiders/);
  await expect(list.getByRole('option').first()).toContainText('not for outsiders');
  await page.getByRole('button', { name: /^Not for outsiders/ }).click();
  // One is left by keyboard: the ledger counts it.
  const ledger = page.getByText(/^Packs \d[\d,]* files/);
  await expect(ledger).toBeVisible();
  const planned = await ledger.textContent();
  await list.focus();
  await page.keyboard.press('Space');
  await expect(ledger).not.toHaveText(planned ?? '');
  const where = page.getByText('For whom, and where it is written');
  await where.click();
  await page.getByLabel('For whom').fill('Fennel & Rook Theatre');
  await page.reload();
  await where.click();
  await expect(page.getByLabel('For whom')).toHaveValue('Fennel & Rook Theatre');
  await page.getByLabel('Its name').fill('curtain rise');
  await expect(page.getByText('packages/curtain rise.zip')).toBeVisible();
  await page.getByRole('listbox', { name: 'What goes into it' }).focus();
  await expect(page.getByRole('button', { name: 'Pack', exact: true })).toBeEnabled();
  await page.keyboard.press('Control+Enter');
  await expect(page).toHaveURL(/\/packages\?package=/);
  const row = page.getByRole('option', { name: /curtain rise\.zip/ });
  await expect(row).toContainText('whole');
  expect(await faults(page)).toEqual([]);

  // What was packed is what lay there, byte by byte, and the project is as it was.
  const zip = path.join(demo.studio, 'packages/curtain rise.zip');
  expect(nesting('verify', zip)).toMatch(/^whole: /m);
  nesting('unpack', zip, '--into', dir);
  const after = filesIn(path.join(dir, path.basename(root)));
  expect(after.size).toBeGreaterThan(50);
  for (const [at, bytes] of after) expect([at, before.get(at)?.equals(bytes)]).toEqual([at, true]);
  expect([...after.keys()].filter((at) => at.includes('/quotes/'))).toEqual([]);
  expect([...filesIn(root)].length).toBe(before.size);

  await page.getByLabel('A word to open it').fill('lamp');
  await page.getByRole('button', { name: 'Make a link' }).click();
  const link = new URL((await page.getByText(/\/sent#/).textContent()) ?? '');
  const outside = await browser.newContext({ baseURL: demo.address });
  const other = await outside.newPage();
  await other.goto(`${link.pathname}${link.hash}`);
  await other.getByLabel('The word that goes with the link').fill('wrong');
  await other.getByRole('button', { name: 'Open' }).click();
  await expect(other.getByText(/not the word/)).toBeVisible();
  expect(await faults(other)).toEqual([]);
  await other.getByLabel('The word that goes with the link').fill('lamp');
  await other.getByRole('button', { name: 'Open' }).click();
  await expect(other.getByRole('heading', { name: 'curtain rise.zip' })).toBeVisible();
  expect(await faults(other)).toEqual([]);
  const [download] = await Promise.all([
    other.waitForEvent('download'),
    other.getByRole('link', { name: 'Download' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('curtain rise.zip');
  expect(readFileSync(await download.path()).equals(readFileSync(zip))).toBe(true);
  await expect(page.getByText(/Fetched 1 time/)).toBeVisible({ timeout: 15_000 });
  await page.getByRole('button', { name: 'End it' }).click();
  await expect(page.getByText(/Fetched 1 time/)).toBeHidden();
  await other.reload();
  await expect(other.getByText(/leads nowhere/)).toBeVisible();
  await outside.close();

  // A week later it comes back: one file was worked on, one is new.
  const back = path.join(demo.studio, 'from the theatre');
  mkdirSync(back);
  nesting('unpack', zip, '--into', back);
  const [worked = ''] = [...after.keys()].filter(
    (at) => at.endsWith('.svg') || at.endsWith('.txt') || at.endsWith('.md'),
  );
  writeFileSync(path.join(back, path.basename(root), worked), 'worked on');
  writeFileSync(path.join(back, path.basename(root), 'a new idea.txt'), 'new');
  await page.getByText('It came back').click();
  await page.getByLabel('Folder that came back').fill('from the theatre');
  await page.getByRole('button', { name: 'Compare with what was sent' }).click();
  await expect(page.getByText(/^Worked on \(1\)/)).toBeVisible();
  await expect(page.getByText(/^New \(/)).toBeVisible();
  expect(await faults(page)).toEqual([]);
  await page.getByRole('link', { name: /Bring in what was worked on/ }).click();
  await expect(page).toHaveURL(/\/intake\?volume=studio&folder=from/);
});

test('a package on this computer is proved in the browser: whole, changed, missing, and a folder', async ({
  as,
  demo,
}) => {
  const page = await as('Bram Okonjo');
  const out = path.join(dir, 'sent');
  mkdirSync(out);
  const root = folderOf(demo.studio, '26011');
  nesting('pack', root, '--to', out);
  const zip = path.join(out, `${path.basename(root)}.zip`);
  await page.goto('/packages/check');
  const choose = page.getByLabel('A zip, and its checksum if you have it');
  await choose.setInputFiles([zip, `${zip}.sha256`]);
  await expect(page.getByText(/is whole\./)).toBeVisible();
  await expect(page.getByText('so is the zip as a whole')).toBeVisible();
  expect(await faults(page)).toEqual([]);
  const bytes = readFileSync(zip);
  const torn = path.join(out, 'torn.zip');
  // Within a file that was not worth compressing.
  const at = Math.max(
    ...[...filesIn(root).values()].map((content) => (content.length > 20 ? bytes.indexOf(content) : -1)),
  );
  expect(at).toBeGreaterThan(0);
  bytes[at + 8] = (bytes[at + 8] ?? 0) ^ 1;
  writeFileSync(torn, bytes);
  await choose.setInputFiles([torn]);
  await expect(page.getByText(/is not whole\./)).toBeVisible();
  await expect(page.getByText(/^Changed \(1\)/)).toBeVisible();
  await choose.setInputFiles([{ name: 'no.zip', mimeType: 'application/zip', buffer: Buffer.from('no zip at all') }]);
  await expect(page.getByText(/no list to check it by/)).toBeVisible();
  // A bag, with a file that is gone.
  nesting('pack', root, '--to', out, '--as', 'bag');
  const bag = path.join(out, path.basename(root));
  await page.getByLabel('A bag, or a folder with a list').setInputFiles(bag);
  await expect(page.getByText(/is whole\./)).toBeVisible();
  const [gone = ''] = [...filesIn(path.join(bag, 'data')).keys()];
  rmSync(path.join(bag, 'data', gone));
  await page.getByLabel('A bag, or a folder with a list').setInputFiles(bag);
  await expect(page.getByText(/^Missing \(1\)/)).toBeVisible();
  await expect(page.getByText(`data/${gone}`, { exact: false }).first()).toBeVisible();
  // Whoever does not coordinate sees packages, and sends none.
  await page.goto('/packages');
  await expect(page.getByRole('heading', { name: 'Packages' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Make a link' })).toBeHidden();
});

test('a project goes to the archive, its original is freed, it is found and brought back byte by byte', async ({
  as,
  demo,
}) => {
  const page = await as('Ines Thorvald');
  const id = await idOf(page, '26011');
  const root = folderOf(demo.studio, '26011');
  const before = filesIn(root);
  // What earlier changes keep would keep the original too: its space is freed first.
  const kept = (await (await page.request.get('/api/set-aside')).json()) as {
    batch: string;
    project: { number: string };
  }[];
  for (const { batch } of kept.filter(({ project }) => project.number === '26011'))
    expect(
      (
        await page.request.post(`/api/projects/${id}/batches/${batch}/free`, {
          data: { number: '26011' },
          headers: { origin: demo.address },
        })
      ).ok(),
    ).toBe(true);
  await page.goto(`/projects/${id}/pack`);
  await page.getByRole('radio', { name: 'For the archive' }).click();
  await page.getByText('For whom, and where it is written').click();
  await page.getByRole('combobox', { name: 'Volume' }).click();
  await page.getByRole('option', { name: 'archive' }).click();
  await page.getByLabel('Its name').fill('26011 shelf');
  await expect(page.getByText('archive: packages/26011 shelf.zip')).toBeVisible();
  await page.getByRole('button', { name: 'Pack', exact: true }).click();
  await expect(page.getByRole('option', { name: /26011 shelf\.zip/ })).toContainText('whole');
  const original = page.getByRole('region', { name: 'The original' });
  await expect(original).toContainText('It still lies on studio');
  await original.getByRole('button', { name: 'Free its space…' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('button', { name: 'Remove the original' })).toBeDisabled();
  expect(await faults(page)).toEqual([]);
  await dialog.getByLabel(/To be sure/).fill('26011');
  await dialog.getByRole('button', { name: 'Remove the original' }).click();
  await expect(page.getByRole('option', { name: /26011 shelf\.zip/ })).toContainText('the only one');
  await expect(original).toContainText('the project lies in this package alone');
  expect(existsSync(root)).toBe(false);
  // Whoever looks for a file is told where it is.
  const master = [...before.keys()].find((at) => at.startsWith('80_masters/')) ?? '';
  await page.keyboard.press('Control+k');
  await page.getByPlaceholder(/^Project, client/).fill(path.basename(master));
  const found = page.getByRole('option', { name: new RegExp(`${path.basename(master)}.*26011 shelf`) });
  await expect(found).toBeVisible();
  await found.click();
  await expect(page).toHaveURL(/\/packages\?package=/);
  // Somebody needs one folder of it: it comes to where loose material arrives, and the project stays.
  await original.getByRole('button', { name: 'Take a folder out…' }).click();
  const part = page.getByRole('dialog');
  await expect(part.getByRole('button', { name: 'Take it out' })).toBeDisabled();
  await part.getByRole('combobox', { name: 'Folder of the project' }).fill('80_masters');
  await page.getByRole('option', { name: '80_masters', exact: true }).click();
  expect(await faults(page)).toEqual([]);
  await part.getByRole('button', { name: 'Take it out' }).click();
  await expect(part).toHaveCount(0);
  const taken = path.join(path.dirname(demo.studio), 'arrivals', `${path.basename(root)}_80_masters`);
  await expect.poll(() => existsSync(taken)).toBe(true);
  await expect(original.getByRole('button', { name: 'Take a folder out…' })).toBeEnabled();
  expect(
    filesIn(taken)
      .get(master)
      ?.equals(before.get(master) ?? Buffer.of()),
  ).toBe(true);
  await original.getByRole('button', { name: 'Bring it back' }).click();
  await expect(original).toContainText(/The project is \w+ on studio/);
  const after = filesIn(root);
  const left = [...before.keys()].filter((at) => !after.has(at));
  for (const [at, bytes] of after) expect([at, before.get(at)?.equals(bytes)]).toEqual([at, true]);
  // Only what programs had made along the way did not come back.
  expect(left.length).toBeLessThan(5);
  expect(left.every((at) => /90_cache|autosave|\.tmp|cache/i.test(at))).toBe(true);
});
