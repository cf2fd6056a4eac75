/** The path from a template to a checked project, walked in the browser and looked at on the real disk. */
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { Page } from '@playwright/test';
import { expect, test } from './demo';

async function fillStart(page: Page, title: string): Promise<void> {
  await page.getByRole('link', { name: 'Start', exact: true }).click();
  await page.getByLabel('Title').fill(title);
  await page.getByLabel('Client').click();
  await page.getByPlaceholder('Name or code').fill('quill');
  await page.keyboard.press('Enter');
  await page.getByLabel('Surfaces').fill('West Front, clock-tower');
  await page.getByLabel('Scenes').fill('s01..s03');
  await page.getByLabel('Stands').fill('pier, mill-roof');
  await page.getByRole('radio', { name: 'spoken' }).click();
  await page.getByLabel('Languages').fill('en\nnl');
}

test('a coordinator starts a project, artists fill it, a check says what is wrong', async ({ as, demo }) => {
  const page = await as('Ines Thorvald');
  await fillStart(page, 'Lantern Quay');
  const tree = page.getByRole('tree', { name: 'What will be made' });
  // Somebody may hold the next number already.
  const number = await page.getByRole('textbox', { name: 'Number' }).inputValue();
  const folder = `${number}_QHT_lantern-quay`;
  await expect(tree.getByRole('treeitem').first()).toContainText(folder);
  await expect(tree).toContainText('west-front');
  await tree
    .getByRole('treeitem', { name: /renders/ })
    .first()
    .click();
  await expect(page.getByText(`studio/${folder}/40_motion/west-front/s01/renders`)).toBeVisible();
  await expect(page.getByText(/Makes \d+ folders and 2 files on studio/)).toBeVisible();
  await page.getByRole('button', { name: 'Make this project' }).click();

  await expect(page.getByRole('heading', { name: 'Lantern Quay' })).toBeVisible();
  const root = path.join(demo.studio, folder);
  expect(existsSync(path.join(root, '40_motion/clock-tower/s03/renders'))).toBe(true);
  expect(existsSync(path.join(root, '50_sound/speech/nl'))).toBe(true);
  expect(readFileSync(path.join(root, `${number}_brief.md`), 'utf8')).toContain('# Lantern Quay');
  expect(JSON.parse(readFileSync(path.join(root, '.nesting/project.json'), 'utf8'))).toMatchObject({
    template: { id: 'facade-show', edition: 3 },
  });
  await expect(page.getByText('Nothing found: all in order.')).toBeVisible();

  const working = path.join(root, '40_motion/west-front/s02/working');
  writeFileSync(path.join(working, `${number}_west-front_s02_anim_BO_v001.usda`), '');
  writeFileSync(path.join(working, `${number}_west-front_s02_animation_BO_final_v4.usda`), '');
  writeFileSync(path.join(working, '26014_west-front_s02_anim_BO_v002.usda'), '');
  writeFileSync(path.join(root, 'todo.txt'), '');
  mkdirSync(path.join(root, 'stuff'));
  await page.getByRole('button', { name: 'Check now' }).click();
  await expect(page.getByText('4 findings, by cause')).toBeVisible();
  await page.getByRole('tab', { name: /Findings/ }).click();
  await page.getByRole('option', { name: /animation/ }).click();
  await expect(page.getByLabel('The selected one')).toContainText(`${number}_west-front_s02_anim_BO_v004.usda`);
  await page.getByRole('button', { name: 'Copy the proposed name' }).click();
  expect(await page.evaluate(() => navigator.clipboard.readText())).toBe(`${number}_west-front_s02_anim_BO_v004.usda`);

  // The command line says the same of the same folder.
  const ids = await page.evaluate(async () => {
    const id = location.pathname.split('/')[2];
    return (
      (await (await fetch(`/api/projects/${id}/findings?group=none`)).json()) as { rows: { id: string }[] }
    ).rows.map((f) => f.id);
  });
  let out = '';
  try {
    out = execFileSync(process.execPath, ['bin/nesting.js', 'check', root, '--json'], { encoding: 'utf8' });
  } catch (error) {
    out = (error as { stdout: string }).stdout;
  }
  expect((JSON.parse(out) as { findings: { id: string }[] }).findings.map((f) => f.id)).toEqual(ids);

  // The address holds the state, and the disk lies over the plan.
  await page.reload();
  await expect(page.getByLabel('The selected one')).toContainText(`${number}_west-front_s02_anim_BO_v004.usda`);
  await page.getByRole('tab', { name: 'Folders' }).click();
  await expect(page.getByRole('treeitem', { name: /there, and not planned stuff/ })).toBeVisible();
});

test('a draft survives leaving and reloading, undo takes fields back, Enter applies nothing', async ({ as, demo }) => {
  const page = await as('Ines Thorvald');
  await fillStart(page, 'Half Written');
  await page.getByLabel('Title').press('Enter');
  await page.reload();
  await expect(page.getByLabel('Title')).toHaveValue('Half Written');
  await page.getByRole('tree').focus();
  await page.keyboard.press('Control+z');
  await expect(page.getByLabel('Languages')).toHaveValue('');
  await page.keyboard.press('Control+Shift+z');
  await expect(page.getByLabel('Languages')).toHaveValue('en\nnl');
  expect(readdirSync(demo.studio).filter((n) => n.includes('half'))).toEqual([]);
});

test('what cannot be written is said at its line, and the ledger refuses with the reason', async ({ as, demo }) => {
  const page = await as('Ines Thorvald');
  await fillStart(page, 'Мост');
  const button = page.getByRole('button', { name: 'Make this project' });
  await expect(page.getByLabel('What will happen')).toContainText('cannot be written in plain letters');
  await expect(button).toBeDisabled();
  await page.getByLabel('Title').fill('final show');
  await expect(page.getByLabel('What will happen')).toContainText('banned word');
  await page.getByLabel('Title').fill('Clash');
  await page.getByLabel('Number').fill('26014');
  await expect(page.getByText('The number 26014 belongs to another project.').first()).toBeVisible();
  await expect(button).toBeDisabled();
  await page.getByLabel('Number').fill('26077');
  mkdirSync(path.join(demo.studio, '26077_QHT_clash'));
  await page.getByLabel('Title').fill('Clash ');
  await page.getByLabel('Title').fill('Clash');
  await page.reload();
  await expect(page.getByText('26077_QHT_clash exists already on studio.').first()).toBeVisible();
  await page.getByLabel('Surfaces').fill('West Front, west-front');
  await expect(page.getByText(/are called west-front/).first()).toBeVisible();
});

test('a lead looks and may start and check nothing; an artist may check', async ({ as }) => {
  const lead = await as('Maud Éclair');
  await expect(lead.getByRole('link', { name: 'Start', exact: true })).toHaveCount(0);
  await lead.getByRole('link', { name: 'Harbour Lights' }).click();
  await lead.waitForURL(/projects\/[0-9a-f-]{36}/);
  const all = (
    (await (
      await lead.request.get(`/api/projects/${/projects\/([0-9a-f-]{36})/.exec(lead.url())?.[1]}/findings`)
    ).json()) as { total: number }
  ).total;
  expect(all).toBeGreaterThan(20);
  await expect(lead.getByText(`${all} findings, by cause`)).toBeVisible();
  await expect(lead.getByRole('button', { name: 'Check now' })).toHaveCount(0);
  const artist = await as('Bram Okonjo');
  await artist.getByRole('link', { name: 'Curtain Rise' }).click();
  await artist.getByRole('button', { name: 'Check now' }).click();
  await expect(artist.getByText(/Checked (?:just now|\d+ seconds?)/)).toBeVisible();
});

test('projects are searched and sorted in the address', async ({ as }) => {
  const page = await as('Maud Éclair');
  await page.getByLabel('Search the projects').fill('curtain fennel');
  await expect(page.getByRole('row')).toHaveCount(2);
  await page.getByLabel('Search the projects').fill('');
  await page.getByRole('button', { name: 'Title' }).click();
  await expect(page).toHaveURL(/by=title/);
  await expect(page.getByRole('row').nth(1)).toContainText('Cloud Cabinet');
  await page.reload();
  await expect(page.getByRole('row').nth(1)).toContainText('Cloud Cabinet');
});

test('names are tried against a convention: what follows, what does not, and what was meant', async ({ as }) => {
  const page = await as('Bram Okonjo');
  await page.goto('/conventions/working-file-facade-show');
  await expect(page.getByText('No name can be misread.')).toBeVisible();
  await page.getByRole('combobox', { name: 'As in a project' }).click();
  await page.getByRole('option', { name: /26014/ }).click();
  await page
    .getByLabel('Try names', { exact: true })
    .fill(
      '26014_west-front_s03_anim_BO_v004.usda\n26014_west-front_s03_animation_BO_final_v4.usda\n26014_west-front_s05_light_XX_v001.usda',
    );
  const tried = page.getByRole('region', { name: 'Names tried' });
  await expect(page.getByText('1 of 3 names follow the rule.')).toBeVisible();
  await expect(tried.getByRole('listitem').nth(1)).toContainText('26014_west-front_s03_anim_BO_v004.usda');
  await expect(tried.getByRole('listitem').nth(2)).toContainText('for a person');
  await page.reload();
  await expect(page.getByText('1 of 3 names follow the rule.')).toBeVisible();
});

test('everything goes by keyboard: find, open, walk the tree, read a finding', async ({ as }) => {
  const page = await as('Ines Thorvald');
  await page.keyboard.press('Control+k');
  await page.keyboard.type('winter');
  await expect(page.getByRole('option', { name: /Winter Walk/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Winter Walk' })).toBeVisible();
  const list = page.getByRole('listbox', { name: 'Findings' });
  await list.focus();
  await page.keyboard.press('End');
  const last = list.getByRole('option', { selected: true });
  await expect(last).toContainText('music');
  await page.keyboard.press('k');
  await expect(last).not.toContainText('music');
  await page.getByRole('heading', { name: 'Winter Walk' }).click();
  await page.keyboard.press('o');
  const tree = page.getByRole('tree');
  await tree.focus();
  await page.keyboard.press('Home');
  await page.keyboard.press('ArrowRight');
  await expect(tree.getByRole('treeitem', { selected: true })).toContainText('10_paperwork');
  await page.keyboard.press('d');
  await expect(tree.getByRole('treeitem', { selected: true })).toContainText('30_design');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
});
