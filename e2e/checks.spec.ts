/**
 * A coordinator's and an artist's hour with findings: by keyboard, on a real disk, and what only this computer sees.
 */
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { Page } from '@playwright/test';
import { faults } from './axe';
import { copiedFrom, intoBrowser, treeInBrowser } from './browser-copy';
import { expect, folderOf, idOf, test } from './demo';

const totalOf = async (page: Page, id: string, query = '') =>
  ((await (await page.request.get(`/api/projects/${id}/findings?group=none${query}`)).json()) as { total: number })
    .total;

test('findings are gone through by keyboard: accepted, given, noted, picked; the address holds what is looked at', async ({
  as,
}) => {
  const page = await as('Ines Thorvald');
  const id = await idOf(page, '26014');
  await page.goto(`/projects/${id}?view=findings`);
  const list = page.getByRole('listbox', { name: 'Findings' });
  const all = await totalOf(page, id);
  await list.focus();
  await page.keyboard.press('j');
  await page.keyboard.press('a');
  await expect(page.getByLabel('Why it may stay')).toBeFocused();
  await page.keyboard.type('The client wants it so.');
  await page.keyboard.press('Tab');
  await page.keyboard.type('in 3 weeks');
  expect(await faults(page)).toEqual([]);
  await page.getByLabel('Until').fill('2999-01-01');
  await page.getByLabel('Why it may stay').press('Enter');
  await expect(list).toBeFocused();
  await expect.poll(() => totalOf(page, id)).toBe(all - 1);
  await expect(page.getByRole('tab', { name: `Findings ${all - 1}` })).toBeVisible();
  // Two are picked and given to somebody.
  await page.keyboard.press(' ');
  await page.keyboard.press('j');
  await page.keyboard.press(' ');
  await expect(page.getByText('2 findings selected')).toBeVisible();
  await page.keyboard.press('g');
  await page.keyboard.type('toma');
  await page.keyboard.press('Enter');
  await expect.poll(() => totalOf(page, id, '&person=TF')).toBe(2);
  await page.getByRole('button', { name: /^TF 2$/ }).click();
  await expect(list.getByRole('option')).toHaveCount(2);
  await list.focus();
  await page.keyboard.press('w');
  await page.keyboard.type('Ask the client first.');
  await page.getByRole('button', { name: 'Save the note' }).click();
  await expect(list).toContainText('has a note');
  expect(page.url()).toContain('person=TF');
  await page.reload();
  await expect(list.getByRole('option')).toHaveCount(2);
  await page.goto(`/projects/${id}?view=findings&group=folder&weight=must`);
  await expect(list.getByRole('option').first()).toBeVisible();
  await expect(page.getByRole('button', { name: /must be put right/ })).toHaveAttribute('aria-pressed', 'true');
  await page.goto(`/checks/exceptions?project=${id}`);
  await expect(page.getByRole('grid', { name: 'Accepted findings' })).toContainText('The client wants it so.');
  await page.getByText('The client wants it so.').first().click();
  await page.getByRole('button', { name: /count again/ }).click();
  await expect.poll(() => totalOf(page, id)).toBe(all);
});

test('an artist sees what is theirs, takes a finding, and puts one right on the disk: the page follows by itself', async ({
  as,
  demo,
}) => {
  const page = await as('Aiko Pendry');
  await page.getByRole('link', { name: 'Checks' }).click();
  await expect(page.getByRole('heading', { name: 'Mine to put right' })).toBeVisible();
  await expect(page.getByText('West Front 26014 s02 comp AP V3.usda').first()).toBeVisible();
  const id = await idOf(page, '26014');
  await page.goto(`/projects/${id}?view=findings&person=AP`);
  await expect(page.getByRole('listbox', { name: 'Findings' }).getByRole('option')).toHaveCount(1);
  await expect(page.getByRole('button', { name: 'Accept…' })).toHaveCount(0);
  rmSync(
    path.join(folderOf(demo.studio, '26014'), '40_motion/west-front/s02/working/West Front 26014 s02 comp AP V3.usda'),
  );
  // Nobody asks for a check: the folder is looked at while the page is open.
  await expect(page.getByText('Nothing of this kind')).toBeVisible();
  await page.getByRole('button', { name: 'Show everything that is to be put right' }).click();
  await page.getByRole('option', { name: /todo for monday/ }).click();
  await page.getByRole('button', { name: 'I’ll do it' }).click();
  await expect.poll(() => totalOf(page, id, '&person=AP')).toBe(1);
});

test('a project that has lived without checks: all of today is accepted in one act, and what comes after counts', async ({
  as,
  demo,
}) => {
  const page = await as('Ines Thorvald');
  const id = await idOf(page, '26009');
  const all = await totalOf(page, id);
  expect(all).toBeGreaterThan(4);
  await page.goto(`/projects/${id}`);
  await page.getByRole('button', { name: 'More…' }).click();
  await page.getByRole('menuitem', { name: 'Accept everything found so far…' }).click();
  await page.getByLabel('Why').fill('As it was when we began.');
  await page.getByRole('button', { name: `Accept ${all} findings` }).click();
  await expect.poll(() => totalOf(page, id)).toBe(0);
  await expect(page.getByLabel('What will happen').getByText('in order')).toBeVisible();
  writeFileSync(path.join(folderOf(demo.studio, '26009'), 'brand new.txt'), 'x');
  await page.getByRole('button', { name: 'Check now' }).click();
  await expect(page.getByRole('option', { name: /brand new/ })).toBeVisible();
  expect(await totalOf(page, id)).toBe(1);
  await page.getByRole('button', { name: 'More…' }).click();
  await page.getByRole('menuitem', { name: 'Check automatically…' }).click();
  await page.getByRole('radio', { name: 'every day' }).click();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect
    .poll(
      async () =>
        ((await (await page.request.get(`/api/projects/${id}/checks`)).json()) as { every: number | null }).every,
    )
    .toBe(1440);
  await page.goto(`/projects/${id}/findings`);
  await expect(page.getByText('brand new.txt', { exact: true })).toBeVisible();
  expect(await faults(page)).toEqual([]);
});

test('the same folder gives the same findings on the server, in the browser and on the command line', async ({
  as,
  demo,
}) => {
  const page = await as('Ines Thorvald');
  const id = await idOf(page, '26014');
  const root = folderOf(demo.studio, '26014');
  await page.request.post(`/api/projects/${id}/checks`, { data: {}, headers: { origin: demo.address } });
  await expect
    .poll(
      async () =>
        ((await (await page.request.get(`/api/projects/${id}/checks`)).json()) as { newest: { state: string } }).newest
          .state,
    )
    .toBe('done');
  type Line = { id: string; message: string };
  const server = (
    (await (await page.request.get(`/api/projects/${id}/findings?group=none&limit=2000`)).json()) as { rows: Line[] }
  ).rows
    .map((f) => `${f.id} ${f.message}`)
    .sort();
  const accepted = (
    (await (await page.request.get(`/api/projects/${id}/findings?group=none&limit=2000&view=accepted`)).json()) as {
      rows: Line[];
    }
  ).rows.map((f) => `${f.id} ${f.message}`);
  let out = '';
  try {
    out = execFileSync(process.execPath, ['bin/nesting.js', 'check', root, '--json'], { encoding: 'utf8' });
  } catch (error) {
    out = (error as { stdout: string }).stdout;
  }
  const cli = (JSON.parse(out) as { findings: Line[] }).findings.map((f) => `${f.id} ${f.message}`).sort();
  expect(cli).toEqual([...server, ...accepted].sort());

  // The folder as the browser's own, file by file with their times.
  const tree = copiedFrom(root);
  await page.goto(`/projects/${id}/here`);
  await intoBrowser(page, tree);
  await page.getByRole('button', { name: 'A folder here…' }).click();
  await expect(
    page.getByText(`${new Intl.NumberFormat('en-GB').format(tree.filter((t) => !t.folder).length)} files in`),
  ).toBeVisible();
  expect(await faults(page)).toEqual([]);
  await page.getByRole('button', { name: 'Hand the findings in' }).click();
  await expect(page.getByText('Handed in: whoever coordinates sees it.')).toBeVisible();
  const handed = ((await (await page.request.get(`/api/projects/${id}/handed-in`)).json()) as { id: string }[])[0]?.id;
  const browser = ((await (await page.request.get(`/api/handed-in/${handed}`)).json()) as Line[]).map(
    (f) => `${f.id} ${f.message}`,
  );
  // The browser's copies were all written a moment ago: what rests on times and on settled files is left in peace
  // there.
  const timely = (line: string) =>
    !/ holds nothing\.| was last written on | the same to the last byte\.| points (?:by|to|out)| frames? (?:is|are) missing| of its frames /.test(
      line,
    );
  expect(browser.filter(timely).sort()).toEqual(cli.filter(timely));
  expect(browser.length).toBeGreaterThan(10);

  // A listing of it, pasted.
  await page.getByLabel('Or a listing').fill(tree.map((t) => (t.folder ? `${t.path}/` : t.path)).join('\n'));
  await page.getByRole('button', { name: 'Check the listing' }).click();
  await expect(page.getByText('Names and sizes alone: nothing was looked into.')).toBeVisible();
  await page.getByLabel('Or a listing').fill('{"not": "a listing"}');
  await page.getByRole('button', { name: 'Check the listing' }).click();
  await expect(page.getByRole('alert').or(page.getByText(/0 files in/))).toBeVisible();
});

test('who has what, sent and opened by its link; all projects in charts; every page without a fault', async ({
  as,
  demo,
  browser,
}) => {
  const page = await as('Ines Thorvald');
  await page.goto('/checks');
  await expect(
    page
      .getByRole('img', { name: /Findings over time/ })
      .locator('svg')
      .first(),
  ).toBeVisible();
  await expect(page.getByText(/today: \d+ must/)).toBeVisible();
  expect(await faults(page)).toEqual([]);
  await page.goto('/checks/people?person=BO');
  await page.getByRole('button', { name: 'Make a link' }).click();
  const link = (await page.getByText(/\/yours#/).textContent()) ?? '';
  expect(await faults(page)).toEqual([]);
  await page.getByRole('button', { name: 'Send the list' }).click();
  await expect(page.getByText('Sent to Bram Okonjo.')).toBeVisible();
  await page.goto('/registers/outbox');
  await expect(page.getByText(/To put right: \d+ findings/).first()).toBeVisible();
  // Somebody without an account, in a browser of their own.
  const context = await browser.newContext();
  const other = await context.newPage();
  await other.goto(link.replace(/^https?:\/\/[^/]+/, demo.address));
  await expect(other.getByRole('heading', { name: 'Bram Okonjo: to put right' })).toBeVisible();
  expect(await faults(other)).toEqual([]);
  expect((await other.request.get(`${demo.address}/api/projects`)).status()).toBe(401);
  await context.close();
  for (const address of ['/checks/exceptions', '/checks/mine', '/checks/paper/BO']) {
    await page.goto(address);
    await page.getByRole('heading', { level: 1 }).waitFor();
    expect([address, ...(await faults(page))]).toEqual([address]);
  }
});

test('a check that was stopped says so and goes on', async ({ as, demo }) => {
  const page = await as('Ines Thorvald');
  const id = await idOf(page, '26011');
  const root = folderOf(demo.studio, '26011');
  for (let n = 0; n < 3000; n++) {
    mkdirSync(path.join(root, `90_cache/c${n}`));
    for (let f = 0; f < 5; f++) writeFileSync(path.join(root, `90_cache/c${n}/${f}.cache`), `${n} ${f}`);
  }
  await page.goto(`/projects/${id}`);
  await page.getByRole('button', { name: 'Check now' }).click();
  const stop = page.getByRole('button', { name: 'Stop' });
  const goOn = page.getByRole('button', { name: 'Go on with it' });
  const done = page.getByText(/Checked (?:just now|\d+ seconds?)/);
  await expect(stop.or(done).first()).toBeVisible();
  if (await stop.isVisible()) await stop.click({ timeout: 2000 }).catch(() => undefined);
  await expect(goOn.or(done).first()).toBeVisible();
  if (await goOn.isVisible()) await goOn.click();
  await expect(done).toBeVisible();
  expect(existsSync(root)).toBe(true);
  await page.goto(`/projects/${id}?view=map`);
  await expect(page.getByRole('img', { name: /Map of/ }).first()).toBeVisible();
});

test('what programs left on this computer is set aside, put back, and freed for good by an act of its own', async ({
  as,
}) => {
  const page = await as('Bram Okonjo');
  // What was copied just now has lain there for ten days.
  await page.addInitScript(() => {
    const now = Date.now.bind(Date);
    Date.now = () => now() + 10 * 86_400_000;
  });
  await page.goto('/checks/left');
  const file = (at: string, bytes: number) => ({
    ...{ path: at, folder: false, text: Buffer.alloc(bytes, 7).toString('base64') },
  });
  const people = [file('show/take.wav', 40), file('show/cache.txt', 9), file('show/plan.cache/notes.txt', 5)];
  const left = [file('show/peaks/take.cache', 4000), file('show/peaks/older.cache', 300), file('x.autosave', 20)];
  const folders = ['show', 'show/peaks', 'show/plan.cache'].map((at) => ({ path: at, folder: true, text: '' }));
  await intoBrowser(page, [...folders, ...people, ...left]);
  const before = await treeInBrowser(page);
  await page.getByRole('button', { name: 'Choose a folder…' }).click();
  const list = page.getByRole('listbox', { name: 'Folders' });
  await expect(list.getByRole('option')).toHaveCount(2);
  expect(await faults(page)).toEqual([]);
  const ledger = page.getByRole('region', { name: 'What will happen' });
  await page.getByRole('button', { name: /^\.cache/ }).click();
  await expect(list.getByRole('option')).toHaveCount(1);
  await list.focus();
  await page.keyboard.press('Space');
  await expect(ledger).toContainText('Sets aside 2 files of 4.3 kB');
  await page.getByRole('button', { name: /^\.cache/ }).click();
  await page.getByRole('button', { name: 'Choose all 2' }).click();
  await expect(ledger).toContainText('Sets aside 3 files');
  expect(await treeInBrowser(page)).toEqual(before);
  await ledger.getByRole('button', { name: 'Set them aside' }).click();
  const kept = page.getByRole('region', { name: 'Set aside in this folder' });
  await expect(kept).toContainText('3 files of 4.3 kB');
  const names = async () => (await treeInBrowser(page)).map((line) => line.split(' ')[0]);
  const ofPeople = [
    'show/',
    'show/cache.txt',
    'show/peaks/',
    'show/plan.cache/',
    'show/plan.cache/notes.txt',
    'show/take.wav',
  ];
  expect(await names()).toEqual(ofPeople);
  await kept.getByRole('button', { name: 'Put it back' }).click();
  await expect.poll(() => treeInBrowser(page)).toEqual(before);
  await expect(kept).toHaveCount(0);
  // Nothing that is written at this moment is offered, nor what is younger than was asked for.
  await page.getByRole('combobox', { name: 'When it was written' }).click();
  await page.getByRole('option', { name: 'Not written for 30 days' }).click();
  await expect(page.getByText('Nothing of that is here')).toBeVisible();
  await page.getByRole('combobox', { name: 'When it was written' }).click();
  await page.getByRole('option', { name: 'Not written for 7 days' }).click();
  await page.getByRole('button', { name: 'Choose all 2' }).click();
  await ledger.getByRole('button', { name: 'Set them aside' }).click();
  await kept.getByRole('button', { name: 'Free the space…' }).click();
  await expect(kept.getByRole('button', { name: /^Free 4/ })).toBeDisabled();
  await kept.getByLabel('Write copy to say that you mean it').fill('copy');
  await page.keyboard.press('Enter');
  await expect(kept).toHaveCount(0);
  expect(await names()).toEqual(ofPeople);
  const own = await page.evaluate(async () => {
    let at = await navigator.storage.getDirectory();
    for (const part of ['copy', '.nesting', 'batches']) at = await at.getDirectoryHandle(part);
    const sizes: number[] = [];
    for await (const folder of at.values()) {
      const kept = await (folder as FileSystemDirectoryHandle).getDirectoryHandle('kept');
      for await (const one of kept.values())
        if (one.kind === 'file') sizes.push((await (one as FileSystemFileHandle).getFile()).size);
    }
    return sizes;
  });
  expect(own).toEqual([]);
});
