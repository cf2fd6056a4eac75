/** Projects that grow, change, take an edition, are adopted and undone: by the screens, on a real disk. */
import { cpSync, existsSync, mkdirSync, readdirSync, readFileSync, renameSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { build } from 'esbuild';
import { faults } from './axe';
import { expect, folderOf, idOf, test } from './demo';

/** Looked at while it may still be changed: what goes meanwhile is seen at the next look. */
const treeNow = (root: string): string[] => {
  try {
    return treeOf(root);
  } catch (error) {
    if ((error as { code?: string }).code === 'ENOENT') return [];
    throw error;
  }
};

const treeOf = (root: string): string[] =>
  readdirSync(root, { recursive: true, encoding: 'utf8' })
    .filter((p) => !p.startsWith('.nesting'))
    .map((p) => `${p}${statSync(path.join(root, p)).isDirectory() ? '/' : ` ${statSync(path.join(root, p)).mtimeMs}`}`)
    .sort();

test('one more scene by one click: the plan, a line left out, carried out, undone; the tree is what it was', async ({
  as,
  demo,
}) => {
  const page = await as('Ines Thorvald');
  const root = folderOf(demo.studio, '26011');
  const before = treeOf(root);
  await page.goto(`/projects/${await idOf(page, '26011')}`);
  await page.getByRole('link', { name: 'Add s05 to Scenes' }).click();
  const plan = page.getByRole('listbox', { name: 'What that does' });
  await expect(plan.getByRole('option')).toHaveCount(3);
  await page.getByRole('button', { name: /^Add 2026-\d\d-\d\d to Test nights/ }).click();
  await expect(plan.getByRole('option').first()).toBeVisible();
  await expect(page.getByText(/^Makes 6 folders\./)).toBeVisible();
  // One of them is left out, by keyboard.
  await plan.focus();
  await page.keyboard.press('End');
  await expect(plan.getByRole('option').last()).toHaveAttribute('aria-selected', 'true');
  const left = await plan.getByRole('option', { selected: true }).textContent();
  await page.getByRole('button', { name: 'Leave it out' }).click();
  await expect(page.getByText(/^Makes 5 folders\./)).toBeVisible();
  // A reload loses nothing of it.
  await expect
    .poll(async () =>
      (await (await page.request.get(`/api/projects/${await idOf(page, '26011')}/reshape`)).text()).includes(
        'leaveOut',
      ),
    )
    .toBe(true);
  await page.reload();
  await expect(page.getByText(/^Makes 5 folders\./)).toBeVisible();
  expect(await faults(page)).toEqual([]);
  expect(treeOf(root)).toEqual(before);
  await page.getByRole('button', { name: 'Carry it out' }).click();
  await expect(page).toHaveURL(/\/batches\?batch=/);
  await expect(page.getByRole('listbox', { name: 'Lines of this change' }).getByRole('option')).toHaveCount(5);
  expect(treeOf(root)).toHaveLength(before.length + 5);
  expect(left).toContain('renders');
  expect(await faults(page)).toEqual([]);
  // Two lines alone, then all that is left.
  await page.getByRole('listbox', { name: 'Lines of this change' }).focus();
  await page.keyboard.press('End');
  await page.keyboard.press(' ');
  await page.getByRole('button', { name: 'Undo the 1 chosen' }).click();
  // The page goes to what the undoing did, by itself.
  await expect(page.getByRole('heading', { name: /^Undone/ })).toBeVisible();
  await expect.poll(() => treeNow(root).length).toBe(before.length + 4);
  await page.getByRole('button', { name: /^Extended/ }).click();
  await expect(page.getByText('4 lines can be undone.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo it' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Undo it' }).click();
  await expect.poll(() => treeNow(root)).toEqual(before);
});

test('another title: the folder and the names that carry it; the disk changes meanwhile and the plan is made anew; undone whole', async ({
  as,
  demo,
}) => {
  const page = await as('Ines Thorvald');
  const root = folderOf(demo.studio, '26009');
  const before = treeOf(root);
  const id = await idOf(page, '26009');
  await page.goto(`/projects/${id}/change`);
  await page.getByLabel('Title').fill('Winter Lanes');
  await expect(page.getByText(/calls its folder 26009_OTM_winter-lanes/)).toBeVisible();
  const plan = page.getByRole('listbox', { name: 'What that does' });
  await expect(plan).toContainText('2026-01-09_quote_winter-lanes.pdf');
  // An artist works on one of the files between the plan and its carrying out.
  const paper = path.join(root, '10_paperwork/quotes/2026-01-09_quote_winter-walk.pdf');
  const was = readFileSync(paper);
  writeFileSync(paper, Buffer.concat([was, Buffer.from('%')]));
  await page.getByRole('button', { name: 'Carry it out' }).click();
  await expect(page.getByText(/The disk or the rules changed since this plan was shown/)).toBeVisible();
  expect(existsSync(root)).toBe(true);
  const after = treeOf(root);
  await page.reload();
  await expect(page.getByText(/calls its folder 26009_OTM_winter-lanes/)).toBeVisible();
  await page.getByRole('button', { name: 'Carry it out' }).click();
  await expect(page).toHaveURL(/\/batches\?batch=/);
  const renamed = path.join(demo.studio, '26009_OTM_winter-lanes');
  expect([
    existsSync(root),
    existsSync(path.join(renamed, '10_paperwork/quotes/2026-01-09_quote_winter-lanes.pdf')),
  ]).toEqual([false, true]);
  await page.getByRole('button', { name: 'Undo it' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Undo it' }).click();
  await expect.poll(() => existsSync(root)).toBe(true);
  expect(treeOf(root)).toEqual(after);
  expect(after.map((l) => l.replace(/ .*/, ''))).toEqual(before.map((l) => l.replace(/ .*/, '')));
});

test('a newer edition: said on the project’s page, its renames and new folders shown, part of it taken', async ({
  as,
  demo,
}) => {
  const page = await as('Ines Thorvald');
  const root = folderOf(demo.studio, '26015');
  await page.goto(`/projects/${await idOf(page, '26015')}`);
  await page.getByRole('link', { name: /Edition 2 is in force/ }).click();
  const plan = page.getByRole('listbox', { name: 'What that does' });
  await expect(plan.getByRole('option')).toHaveCount(2);
  await plan.getByRole('option', { name: /80_masters/ }).click();
  await page.getByRole('button', { name: 'Keep its name' }).click();
  await expect(plan.getByRole('option')).toHaveCount(1);
  await page.getByRole('button', { name: 'Carry it out' }).click();
  await expect(page).toHaveURL(/\/batches\?batch=/);
  expect([existsSync(path.join(root, '30_sound')), existsSync(path.join(root, '80_masters'))]).toEqual([true, true]);
  await page.goto(`/projects/${await idOf(page, '26015')}`);
  await expect(page.getByText('Window piece, edition 2')).toBeVisible();
  // What was kept is the project's own: nothing of it is found wrong.
  await page.getByRole('button', { name: 'Check now' }).click();
  await expect(page.getByText('Nothing found: all in order.')).toBeVisible();
});

test('an artist adds a test night and makes a folder where the template lets them; the rest is not theirs', async ({
  as,
  demo,
}) => {
  const page = await as('Bram Okonjo');
  const root = folderOf(demo.studio, '26014');
  await page.goto(`/projects/${await idOf(page, '26014')}/change`);
  await expect(page.getByLabel('Title')).toHaveCount(0);
  await expect(page.getByLabel('Stands')).toHaveCount(0);
  await page.getByRole('button', { name: 'Make 30_design/print' }).click();
  await page.getByRole('button', { name: /to Scenes/ }).click();
  await page.getByRole('button', { name: 'Carry it out' }).click();
  await expect(page).toHaveURL(/\/batches\?batch=/);
  expect([
    existsSync(path.join(root, '30_design/print')),
    existsSync(path.join(root, '40_motion/west-front/s07/renders')),
  ]).toEqual([true, true]);
  // What they did themselves they may undo.
  await expect(page.getByRole('button', { name: 'Undo it' })).toBeVisible();
});

test('a freelancer’s folder is taken in: the fitting template, its values, what is otherwise; nothing in it is touched', async ({
  as,
  demo,
}) => {
  const page = await as('Ines Thorvald');
  const root = path.join(path.dirname(demo.studio), 'archive/26008_SAK_candle-nave');
  const before = treeOf(root);
  await page.goto('/start/adopt?volume=archive');
  await page.getByRole('button', { name: '26008_SAK_candle-nave', exact: true }).click();
  await expect(page.getByRole('region', { name: '7 folders called otherwise' })).toContainText('planned as 40_motion');
  await expect(page.getByRole('region', { name: '1 folder no rule knows' })).toContainText('odds and ends');
  await expect(page.getByLabel('Number')).toHaveValue('26008');
  await expect(page.getByRole('textbox', { name: 'Scenes of nave' })).toHaveValue('s01, s02');
  expect(await faults(page)).toEqual([]);
  await page.getByRole('button', { name: 'Take it in' }).click();
  await expect(page.getByRole('heading', { name: 'candle-nave' })).toBeVisible();
  expect(treeOf(root)).toEqual(before);
  expect(existsSync(path.join(root, '.nesting/project.json'))).toBe(true);
  await expect(page.getByText('odds and ends/')).toBeVisible();
});

test('two folders of one project side by side; the copy becomes a project of its own', async ({ as, demo }) => {
  const page = await as('Ines Thorvald');
  const root = folderOf(demo.studio, '26011');
  const copy = path.join(path.dirname(demo.studio), 'archive/curtain copy');
  cpSync(root, copy, { recursive: true, preserveTimestamps: true });
  writeFileSync(path.join(copy, '80_masters/26011_MST_balcony.mov'), 'only here');
  await page.goto('/registers/volumes');
  await page.getByRole('button', { name: 'Look for them' }).click();
  await page.getByRole('link', { name: 'Look at them side by side…' }).click();
  const place = page.getByRole('region', { name: 'archive/curtain copy' });
  await expect(place).toContainText('26011_MST_balcony.mov');
  expect(await faults(page)).toEqual([]);
  await place.getByLabel(/Number of its own/).fill('25991');
  await place.getByRole('button', { name: 'A project of its own' }).click();
  await expect(page).toHaveURL(/\/projects\/[0-9a-f-]{36}$/);
  expect(
    (JSON.parse(readFileSync(path.join(copy, '.nesting/project.json'), 'utf8')) as { values: { number: string } })
      .values.number,
  ).toBe('25991');
});

test('a change that stops half way says why; the way is freed, and it is finished', async ({ as, demo }) => {
  const page = await as('Ines Thorvald');
  const id = await idOf(page, '26011');
  const root = folderOf(demo.studio, '26011');
  await page.goto(`/projects/${id}/change`);
  await page.getByLabel('Title').fill('Curtain Down');
  await expect(page.getByText(/calls its folder 26011_FNR_curtain-down/)).toBeVisible();
  // Somebody's folder takes the name as soon as all was looked at.
  const taken = path.join(demo.studio, '26011_FNR_curtain-down');
  await page.route(
    '**/api/projects/*/batches',
    async (route) => {
      const { key } = route.request().postDataJSON() as { key: string };
      const journal = path.join(root, '.nesting/batches', key, 'journal.ndjson');
      const answer = route.fetch();
      let isAnswered = false;
      void answer.finally(() => {
        isAnswered = true;
      });
      while (!existsSync(journal) && existsSync(root) && !isAnswered)
        await new Promise((resolve) => setImmediate(resolve));
      if (existsSync(root)) mkdirSync(taken, { recursive: true });
      await route.fulfill({ response: await answer });
    },
    { times: 1 },
  );
  await page.getByRole('button', { name: 'Carry it out' }).click();
  await expect
    .poll(
      () =>
        existsSync(path.join(taken, '.nesting')) ||
        page.getByText(/Finish the change once the way is free, or take it back/).isVisible(),
    )
    .toBe(true);
  if (!existsSync(path.join(taken, '.nesting'))) {
    await page.goto(`/projects/${id}/batches`);
    await expect(page.getByText(/26011_FNR_curtain-down is taken/)).toBeVisible();
    expect(await faults(page)).toEqual([]);
    renameSync(taken, `${taken} of somebody`);
    await page.getByRole('button', { name: 'Finish it' }).click();
  } else await page.goto(`/projects/${id}/batches`);
  await expect(page.getByText(/lines? can be undone/)).toBeVisible();
  expect(existsSync(path.join(taken, '.nesting/project.json'))).toBe(true);
});

test('in a folder of the browser plans end as meant and are undone, by the same core', async ({ as }) => {
  const page = await as('Ines Thorvald');
  const built = await build({
    entryPoints: ['e2e/browser-folder.ts'],
    bundle: true,
    write: false,
    format: 'iife',
    globalName: 'folders',
    platform: 'browser',
    target: 'es2022',
    logLevel: 'error',
  });
  await page.evaluate(`${built.outputFiles[0]?.text};globalThis.folders = folders;`);
  const wrong = await page.evaluate(() =>
    (
      globalThis as unknown as { folders: { plansInFolder(runs: number, seed: number): Promise<readonly string[]> } }
    ).folders.plansInFolder(40, 7),
  );
  expect(wrong).toEqual([]);
});
