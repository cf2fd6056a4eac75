/** A project carried over in the browser: the next year's from the demo, a revision, what is taken and left by keyboard. */
import { existsSync, lstatSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { faults } from './axe';
import { intoBrowser, treeInBrowser } from './browser-copy';
import { expect, folderOf, idOf, test } from './demo';

/** Every name with its bytes, time and inode. */
function wholeTree(root: string): string[] {
  return readdirSync(root, { recursive: true })
    .map(String)
    .sort()
    .map((name) => {
      const { mtimeMs, ino, size } = lstatSync(path.join(root, name));
      return `${name} ${mtimeMs} ${ino} ${size}`;
    });
}

test('next year’s Harbour Lights: said on the nest, names by their meaning, references that follow, both side by side', async ({
  as,
  demo,
}) => {
  const page = await as('Ines Thorvald');
  const source = folderOf(demo.studio, '26014');
  // Only its own program reads this one.
  const cuts = path.join(source, '40_motion/west-front/s01/working/26014_west-front_s01_comp_BO_v001.cutlist');
  writeFileSync(cuts, `\0${source}/30_design/boards/26014_BRD_tide_v002.png\0`);
  const before = wholeTree(source);
  await page.goto(`/projects/${await idOf(page, '26014')}`);
  await page.getByRole('button', { name: 'More…' }).click();
  await page.getByRole('menuitem', { name: 'Carry it over…' }).click();
  const tree = page.getByRole('tree', { name: 'What comes along' });
  await expect(tree).toBeVisible();
  await page.getByRole('textbox', { name: 'Title' }).fill('Harbour Lights Again');
  await expect(page.getByText(/harbour-lights-again, rewrites 1 document/)).toBeVisible();
  const number = await page.getByRole('textbox', { name: 'Number' }).inputValue();
  // The survey stays; of the library all comes.
  await tree.getByText('20_survey', { exact: true }).click();
  await page.getByRole('radio', { name: /^Nothing/ }).check();
  await tree.getByText('40_motion', { exact: true }).click();
  await page.getByRole('radio', { name: /^What is current/ }).check();
  await expect(tree.getByRole('treeitem', { name: /20_survey/ })).toContainText('nothing');
  expect(await faults(page)).toEqual([]);
  // What a document needs comes along with one press.
  await page.getByRole('radio', { name: /^References/ }).click();
  await page.getByRole('button', { name: 'Take all along that is needed' }).click();
  await expect(page.getByRole('button', { name: 'Take all along that is needed' })).toHaveCount(0);
  await expect(page.getByRole('listbox', { name: 'References' }).getByRole('option')).toHaveCount(1);
  // A file by keyboard: left, and taken again.
  await page.getByRole('radio', { name: /^Files/ }).click();
  await page.getByRole('textbox', { name: 'Part of a name or a folder' }).fill('clock-tower_s05_anim');
  const list = page.getByRole('listbox', { name: 'What comes along' });
  await expect(list.getByRole('option')).toHaveCount(3);
  const document = list.getByRole('option', { name: /s05_anim_LV_v003\.usda/ });
  await expect(document).toContainText(`${number}_clock-tower_s05_anim_LV_v002.usda`);
  await document.click();
  await list.focus();
  await page.keyboard.press('Space');
  await expect(document).toContainText('stays behind');
  await page.keyboard.press('Space');
  await expect(document).toContainText('by its meaning');
  await expect(page.getByRole('region', { name: 'What is selected' })).toContainText('version');
  expect(await faults(page)).toEqual([]);
  await page.getByRole('textbox', { name: 'Another old word' }).fill('monday');
  await page.getByRole('textbox', { name: /Its new word/ }).fill('tuesday');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('row', { name: /monday tuesday 1/ })).toBeVisible();
  await expect(list).toHaveAttribute('aria-busy', 'false');
  await page.getByRole('button', { name: 'Start it, and carry over' }).click();
  await expect(page).toHaveURL(/batches\?batch=/);
  await expect(page.getByRole('button', { name: 'Side by side' })).toBeVisible();
  const made = folderOf(demo.studio, number);
  expect(path.basename(made)).toBe(`${number}_QHT_harbour-lights-again`);
  const working = path.join(made, '40_motion/clock-tower/s05/working');
  const text = readFileSync(path.join(working, `${number}_clock-tower_s05_anim_LV_v002.usda`), 'utf8');
  expect(text).toContain('@../../../../70_library/stock/gulls-at-dusk.wav@');
  expect(text).toContain(`@older/${number}_clock-tower_s05_anim_LV_v001.usda@`);
  expect(text).toContain(`@../../../../30_design/boards/${number}_BRD_tide_v001.png@`);
  expect(existsSync(path.join(working, `older/${number}_clock-tower_s05_anim_LV_v001.usda`))).toBe(true);
  expect(existsSync(path.join(made, 'todo for tuesday.txt'))).toBe(true);
  expect(readdirSync(path.join(made, '20_survey/site-photos'))).toEqual([]);
  // No name carries the old number.
  expect(readdirSync(made, { recursive: true }).filter((name) => String(name).includes('26014'))).toEqual([]);
  expect(wholeTree(source)).toEqual(before);
  // What it names is listed with where it lies now, until it was saved anew.
  const relink = page.getByRole('region', { name: 'To be pointed to this project' });
  await expect(relink.getByRole('listitem')).toContainText(`boards/${number}_BRD_tide_v001.png`);
  const carried = path.join(made, '40_motion/west-front/s01/working', `${number}_west-front_s01_comp_BO_v001.cutlist`);
  writeFileSync(carried, `\0${made}/30_design/boards/${number}_BRD_tide_v001.png\0`);
  await relink.getByRole('button', { name: 'Look again' }).click();
  await expect(relink).toContainText('No document that can be searched names the old project');
  await page.getByRole('button', { name: 'Side by side' }).click();
  await expect(page.getByRole('button', { name: /^Renamed/ })).toBeVisible();
});

test('next year’s Harbour Lights in a folder of this computer: hindered half way, gone on with, whole, and taken back', async ({
  as,
  demo,
}) => {
  const page = await as('Ines Thorvald');
  const source = folderOf(demo.studio, '26014');
  const large = '20_survey/site-photos/large.bin';
  const bytes = Buffer.alloc(9 * 2 ** 20, 'nine megabytes ');
  writeFileSync(path.join(source, large), bytes);
  const before = wholeTree(source);
  await page.goto(`/projects/${await idOf(page, '26014')}/carry?to=folder&view=files`);
  await intoBrowser(page, []);
  await page.getByRole('textbox', { name: 'Title' }).fill('Quay');
  await expect(page.getByText(/copies .* to \d+_QHT_quay/)).toBeVisible();
  const number = await page.getByRole('textbox', { name: 'Number' }).inputValue();
  const name = `${number}_QHT_quay-again`;
  // Its frames stay.
  await page.getByRole('textbox', { name: 'Part of a name or a folder' }).fill('.exr');
  await page.getByRole('button', { name: /^Leave \d+ files/ }).click();
  await expect(page.getByRole('button', { name: /^Leave \d+ files/ })).toHaveCount(0);
  await page.getByRole('textbox', { name: 'Part of a name or a folder' }).fill('large.bin');
  await expect(page.getByRole('listbox', { name: 'What comes along' }).getByRole('option')).toHaveCount(1);
  expect(await faults(page)).toEqual([]);
  const carry = page.getByRole('button', { name: 'Choose the folder, and carry over' });
  const hindered = page.getByRole('status').filter({ hasText: 'a file was changed meanwhile' });
  let asked = 0;
  await page.route('**/api/projects/*/piece?*', (route) =>
    ++asked > 3 ? route.fulfill({ status: 409, body: '{}' }) : route.continue(),
  );
  await carry.click();
  await expect(hindered).toBeVisible();
  expect(await faults(page)).toEqual([]);
  // What is cut short can be taken back where the old project is not reached any more.
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByText(/The project stays as it was started/)).toBeVisible();
  const begun = (await treeInBrowser(page)).filter((line) => !line.includes('/.nesting/'));
  expect(begun.filter((line) => line.includes('site-photos/'))).toEqual([`${number}_QHT_quay/20_survey/site-photos/`]);
  await page.getByRole('button', { name: 'Back to the plan' }).click();
  await page.getByText('What it will be').click();
  await page.getByRole('textbox', { name: 'Title' }).fill('Quay Again');
  await expect(page.getByText(new RegExp(`copies .* to ${name}`))).toBeVisible();
  asked = 0;
  await carry.click();
  await expect(hindered).toBeVisible();
  await page.unroute('**/api/projects/*/piece?*');
  await page.getByRole('button', { name: 'Go on with it' }).click();
  await expect(page.getByText(/was written into copy: \d+ files came along, each read back/)).toBeVisible();
  const there = (await treeInBrowser(page)).filter((line) => !line.includes('/.nesting/'));
  expect(there.filter((line) => line.startsWith(name) && line.includes('26014'))).toEqual([]);
  const sum = bytes.reduce((so, byte) => (so * 31 + byte) % 1_000_003, 7);
  expect(there).toContain(`${name}/${large} ${bytes.length} ${sum}`);
  const document = await page.evaluate(async (at) => {
    let folder = await navigator.storage.getDirectory();
    const parts = at.split('/');
    for (const part of parts.slice(0, -1)) folder = await folder.getDirectoryHandle(part);
    return (await (await folder.getFileHandle(parts.at(-1) as string)).getFile()).text();
  }, `copy/${name}/40_motion/clock-tower/s05/working/${number}_clock-tower_s05_anim_LV_v001.usda`);
  expect(document).toContain(`@../../../../30_design/boards/${number}_BRD_tide_v001.png@`);
  expect(wholeTree(source)).toEqual(before);
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByText(/The project stays as it was started/)).toBeVisible();
  const left = (await treeInBrowser(page)).filter((line) => line.startsWith(name) && !line.includes('/.nesting/'));
  expect(left).toContain(`${name}/40_motion/`);
  expect(left.filter((line) => line.includes('large.bin') || line.includes('tide'))).toEqual([]);
  await page.goto('/registers/numbers');
  await expect(page.getByLabel('Reserved numbers')).toContainText(`${name}, written to a folder on this computer`);
});

test('a revision of Curtain Rise: the next issue from the one before, and back', async ({ as, demo }) => {
  const page = await as('Ines Thorvald');
  const root = folderOf(demo.studio, '26011');
  const boards = path.join(root, '30_design/boards');
  await page.goto(`/projects/${await idOf(page, '26011')}/carry?to=revision&view=files`);
  const list = page.getByRole('listbox', { name: 'What comes along' });
  await expect(list.getByRole('option')).toHaveCount(5);
  await expect(list.getByRole('option', { name: /overview_v002/ })).toContainText(
    'issue-B/26011_BRD_overview_v001.svg',
  );
  expect(await faults(page)).toEqual([]);
  await page.getByRole('button', { name: 'Make B' }).click();
  await expect(page).toHaveURL(/batches\?batch=/);
  await expect(page.getByRole('button', { name: 'Undo it' })).toBeVisible();
  expect(readdirSync(path.join(boards, 'issue-B')).sort()).toEqual([
    '26011_BRD_entrance_v001.png',
    '26011_BRD_opening_v001.png',
    '26011_BRD_overview_v001.svg',
    '26011_BRD_return_v001.png',
  ]);
  const overview = readFileSync(path.join(boards, 'issue-B/26011_BRD_overview_v001.svg'), 'utf8');
  expect(overview).toContain('href="26011_BRD_opening_v001.png"');
  expect(overview).toContain('href="../26011_BRD_tide_v002.png"');
  await page.getByRole('button', { name: 'Undo it' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Undo it' }).click();
  await expect(page.getByRole('heading', { name: /^Undone/ })).toBeVisible();
  expect(existsSync(path.join(boards, 'issue-B'))).toBe(false);
});

test('a way is kept with the template and used for the next one; artists carry nothing over', async ({ as }) => {
  const page = await as('Ines Thorvald');
  await page.goto(`/projects/${await idOf(page, '26011')}/carry`);
  await page.getByRole('combobox', { name: 'Versions' }).click();
  await page.getByRole('option', { name: 'Stay as they are' }).click();
  await page.getByRole('button', { name: 'Kept ways…' }).click();
  await page.getByRole('textbox', { name: 'What this way is called' }).fill('Same again');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('button', { name: 'Same again', exact: true })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Begin anew' }).click();
  await expect(page.getByRole('combobox', { name: 'Versions' })).toContainText('Begin anew');
  await page.getByRole('button', { name: 'Kept ways…' }).click();
  await page.getByRole('button', { name: 'Same again', exact: true }).click();
  await expect(page.getByRole('combobox', { name: 'Versions' })).toContainText('Stay as they are');
  const artist = await as('Bram Okonjo');
  await artist.goto(`/projects/${await idOf(artist, '26011')}/carry`);
  await expect(artist.getByText('Projects are carried over by coordinators')).toBeVisible();
});
