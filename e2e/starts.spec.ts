/**
 * Starts in full: by keyboard in seconds, otherwise than the template, from a table, into a folder of the browser, as
 * files; and a project's own sheet.
 */
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Page } from '@playwright/test';
import { expect, test } from './demo';

const PHRASES = ['Lantern Wharf', 'west-front, old-mill', 's01..s03'];

async function fill(page: Page, title: string): Promise<void> {
  await page.goto('/start?template=facade-show');
  await expect(page.getByLabel('Number')).toHaveValue(/^26\d{3}$/);
  await page.getByLabel('Client').click();
  await page.getByPlaceholder('Name or code').fill('quill');
  await page.getByRole('option', { name: /Quillhaven/ }).click();
  await page.getByLabel('Title').fill(title);
  await page.getByLabel('Surfaces').fill('west-front, old-mill');
  await page.getByLabel('Scenes').fill('s01..s03');
}

/** Every path in a folder, without ids and times. */
const pathsIn = (root: string): string[] => readdirSync(root, { recursive: true, encoding: 'utf8' }).sort();

test('a practised hand starts a project by keyboard alone; the keystrokes are counted', async ({ as, demo }, info) => {
  const page = await as('Ines Thorvald');
  let keys = 0;
  const press = async (key: string) => {
    keys++;
    await page.keyboard.press(key);
  };
  const type = async (text: string) => {
    keys += text.length;
    await page.keyboard.type(text);
  };
  await press('n');
  await expect(page.getByRole('heading', { name: 'Start a project' })).toBeVisible();
  await expect(page.getByLabel('Number')).toHaveValue(/^26\d{3}$/);
  // One begins with what the job is, and goes down field by field.
  await expect(page.getByLabel('Title')).toBeFocused();
  await type(PHRASES[0] as string);
  await press('Tab');
  await type(PHRASES[1] as string);
  await press('Tab');
  await type(PHRASES[2] as string);
  for (const label of ['Stands', 'Test nights', 'Languages', 'Client']) {
    await press('Tab');
    await expect(page.getByLabel(label)).toBeFocused();
  }
  await press('Enter');
  await type('quill');
  await press('Enter');
  await expect(page.getByLabel('Client')).toContainText('Quillhaven');
  await page.getByLabel('Opens').focus();
  keys++;
  await type('next tue');
  await expect(page.getByLabel('Opens')).toHaveValue('next tue');
  // Whoever starts it leads it, until somebody else is chosen.
  await expect(page.getByLabel('Led by')).toContainText('Ines Thorvald');
  await expect(page.getByText(/^Makes \d+ folders and 2 files/)).toBeVisible();
  await page.getByRole('button', { name: 'Make this project' }).focus();
  keys++;
  await press('Enter');
  await expect(page).toHaveURL(/\/projects\/[0-9a-f-]{36}/);
  const folder = readdirSync(demo.studio).find((n) => n.includes('lantern-wharf'));
  expect(folder).toMatch(/^26\d{3}_QHT_lantern-wharf$/);
  // Five keys a second is a practised hand: under twenty seconds.
  info.annotations.push({
    type: 'keystrokes',
    description: `${keys} keystrokes, ${(keys / 5).toFixed(0)} s at five a second`,
  });
  expect(keys / 5).toBeLessThan(20);
});

test('a client on the spot, a folder left out, another renamed, settings chosen: all of it on the disk and on the project’s page', async ({
  as,
  demo,
}) => {
  const page = await as('Ines Thorvald');
  await page.goto('/start?template=facade-show');
  await page.getByLabel('Client').click();
  await page.getByPlaceholder('Name or code').fill('Marrow Lantern Guild');
  await expect(page.getByLabel('Code of the new client')).toHaveValue('MLG');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('button', { name: /^Client Marrow Lantern Guild/ })).toBeVisible();
  await page.getByLabel('Title').fill('Guild Night');
  await page.getByLabel('Opens').fill('31 feb');
  await expect(page.getByText(/is no date/).first()).toBeVisible();
  await page.getByLabel('Opens').fill('27 nov 2027');
  await page.getByLabel('Surfaces').fill('gate');
  await page.getByLabel('Scenes').fill('s01');
  await page.getByRole('treeitem', { name: /30_design/ }).click();
  await page.getByRole('button', { name: 'Leave it out' }).click();
  await expect(page.getByRole('tree')).not.toContainText('30_design');
  await expect(page.getByLabel('Changed for this project')).toContainText('left out');
  await page.getByRole('treeitem', { name: /80_masters/ }).click();
  await page.getByLabel('Called').fill('08_for the guild');
  await page.getByLabel('Called').press('Enter');
  await expect(page.getByRole('tree')).toContainText('08_for the guild');
  await page.getByText('Setup sheet').click();
  await page.getByRole('combobox', { name: 'Frame rate' }).click();
  await page.getByRole('option', { name: '50', exact: true }).click();
  await page.getByRole('button', { name: 'Make this project' }).click();
  await expect(page).toHaveURL(/\/projects\/[0-9a-f-]{36}/);
  const folder = readdirSync(demo.studio).find((n) => n.includes('_MLG_guild-night')) as string;
  const made = readdirSync(path.join(demo.studio, folder));
  expect(made).toContain('08_for the guild');
  expect(made).not.toContain('30_design');
  await expect(page.getByText('has rules of its own')).toBeVisible();
  await page.getByRole('tab', { name: 'Sheet' }).click();
  await expect(page.getByRole('combobox', { name: 'Frame rate' })).toContainText('50');
  await page.getByRole('checkbox').first().click();
  await expect(page.getByLabel('First day')).toContainText('Ines Thorvald');
  await page.getByRole('button', { name: 'Tell the team something…' }).click();
  await page.getByRole('textbox', { name: 'What the team should know' }).fill('The guild brings its own poles.');
  // What cannot be kept stays in the form.
  await page.route('**/api/projects/*', (route) =>
    route.request().method() === 'GET' ? route.continue() : route.abort(),
  );
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('textbox', { name: 'What the team should know' })).toHaveValue(/its own poles/);
  await expect(page.locator('form').filter({ hasText: 'What the team should know' })).toContainText(/again|reached/);
  await page.unroute('**/api/projects/*');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('region', { name: 'What the team should know' })).toContainText(
    /The guild brings its own poles\.\s*Ines Thorvald, /,
  );
  await page.getByRole('combobox', { name: 'State' }).focus();
  await page.getByRole('combobox', { name: 'State' }).click();
  await page.getByRole('option', { name: 'waiting' }).click();
  await expect(page.getByText('waiting').first()).toBeVisible();
  // A client's own delivery names, for this project alone.
  await page
    .getByLabel('Rules of its own')
    .getByRole('listitem')
    .filter({ hasText: 'Master' })
    .getByRole('button', { name: 'Different here…' })
    .click();
  await page.getByLabel('How these files are called in this project').fill('GUILD_{number');
  await expect(page.getByRole('button', { name: 'Keep it' })).toBeDisabled();
  await page.getByLabel('How these files are called in this project').fill('GUILD_{number}.{ext}');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('this project’s own')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Paths for programs', exact: true })).toContainText('delivery');
  await page.goto('/projects?state=waiting');
  await expect(page.getByRole('row', { name: /Guild Night/ })).toBeVisible();
  await page.goto('/projects?find=own+poles');
  await page.getByRole('link', { name: 'Guild Night' }).click();
  await page.getByRole('button', { name: 'More…' }).click();
  await page.getByRole('menuitem', { name: 'Another like this…' }).click();
  await expect(page.getByLabel('Title')).toHaveValue('Guild Night');
  await expect(page.getByLabel('Surfaces')).toHaveValue('gate');
});

test('a folder of this computer, a zip, a script and the volume hold the same; a folder whose permission goes half way is left as it was', async ({
  as,
  demo,
  browserName,
}) => {
  expect(browserName).toBe('chromium');
  const page = await as('Ines Thorvald');
  // The origin's own file system stands in for a folder that somebody picks.
  await page.addInitScript(() => {
    (globalThis as unknown as { showDirectoryPicker: unknown }).showDirectoryPicker = async () => {
      const root = await navigator.storage.getDirectory();
      return root.getDirectoryHandle('picked', { create: true });
    };
  });
  await fill(page, 'Same Tree');
  const choose = async (words: string) => {
    await page.getByRole('button', { name: /^Written to/ }).click();
    await page.getByRole('menuitem', { name: words }).click();
  };
  await choose('a zip');
  const save = async () =>
    (await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Save it' }).click()]))[0];
  const folder = mkdtempSync(path.join(tmpdir(), 'nesting-same-'));
  const zip = await save();
  const name = zip.suggestedFilename().replace(/\.zip$/, '');
  mkdirSync(path.join(folder, 'zip'));
  await zip.saveAs(path.join(folder, 'zip/p.zip'));
  execFileSync('python3', ['-m', 'zipfile', '-e', 'p.zip', '.'], { cwd: path.join(folder, 'zip') });
  const wanted = pathsIn(path.join(folder, 'zip', name));
  expect(wanted.length).toBeGreaterThan(40);
  await choose('a folder on this computer');
  await page.getByRole('button', { name: 'Choose the folder, and write it' }).click();
  await expect(page.getByText(`${name} was written into picked.`)).toBeVisible();
  const inBrowser = (root: string) =>
    page.evaluate(async (from) => {
      const out: string[] = [];
      const walk = async (folder: FileSystemDirectoryHandle, above: string): Promise<void> => {
        for await (const [name, handle] of folder as unknown as AsyncIterable<[string, FileSystemHandle]>) {
          out.push(above + name);
          if (handle.kind === 'directory') await walk(handle as FileSystemDirectoryHandle, `${above}${name}/`);
        }
      };
      const picked = await (await navigator.storage.getDirectory()).getDirectoryHandle('picked');
      await walk(from === '' ? picked : await picked.getDirectoryHandle(from), '');
      return out.sort();
    }, root);
  expect(await inBrowser(name)).toEqual(wanted);
  // Once more into the same folder: what is there is not touched.
  await page.getByRole('button', { name: 'Choose the folder, and write it' }).click();
  await expect(page.getByText(/exists already in picked\. Nothing was written/)).toBeVisible();
  // The number is kept: no project here knows it.
  await page.goto('/registers/numbers');
  await expect(page.getByLabel('Reserved numbers')).toContainText('written to a');
  // Permission withdrawn half way: all that was made is taken back.
  await page.addInitScript(() => {
    const real = FileSystemDirectoryHandle.prototype.getDirectoryHandle;
    let made = 0;
    FileSystemDirectoryHandle.prototype.getDirectoryHandle = function (
      this: FileSystemDirectoryHandle,
      n: string,
      o?: FileSystemGetDirectoryOptions,
    ) {
      if (o?.create && n !== 'picked' && ++made === 12) throw new DOMException('withdrawn', 'NotAllowedError');
      return real.call(this, n, o);
    };
  });
  await fill(page, 'Half Way');
  await choose('a folder on this computer');
  await page.getByRole('button', { name: 'Choose the folder, and write it' }).click();
  await expect(page.getByText(/permission for this folder was withdrawn. Nothing was left behind/)).toBeVisible();
  expect((await inBrowser('')).filter((p) => p.includes('half-way'))).toEqual([]);
  expect(existsSync(path.join(demo.studio, name))).toBe(false);
});

test('a folder that is there is added to, and what is there is shown and kept', async ({ as, demo }) => {
  const page = await as('Ines Thorvald');
  await fill(page, 'Half There');
  const number = await page.getByLabel('Number').inputValue();
  const root = path.join(demo.studio, `${number}_QHT_half-there`);
  mkdirSync(path.join(root, '10_paperwork'), { recursive: true });
  writeFileSync(path.join(root, '10_paperwork/mine.pdf'), 'mine');
  const looked = page.waitForResponse(
    (r) => r.url().endsWith('/api/projects/look') && (r.request().postData() ?? '').includes('half-there-too'),
  );
  await page.getByLabel('Title').fill('Half There Too');
  await looked;
  await page.getByLabel('Title').fill('Half There');
  await expect(page.getByText(/exists already on studio/).first()).toBeVisible();
  await page.getByRole('checkbox', { name: 'Add to the folder that is there' }).check();
  await expect(page.getByText('What is there stays as it is.')).toBeVisible();
  await expect(
    page.getByRole('treeitem', { name: /10_paperwork/ }).getByRole('img', { name: 'on the disk' }),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Add to it' }).click();
  await expect(page).toHaveURL(/\/projects\/[0-9a-f-]{36}/);
  expect(readFileSync(path.join(root, '10_paperwork/mine.pdf'), 'utf8')).toBe('mine');
  expect(readdirSync(root)).toContain('40_motion');
});

test('several at once from a table: the good lines go on, the others say why', async ({ as, demo }) => {
  const page = await as('Ines Thorvald');
  await page.goto('/start/several?template=window-piece');
  const header = await page.getByText(/The first line names the columns/).textContent();
  expect(header).toContain('Title');
  await page
    .getByLabel('A table for Window piece')
    .fill('Client;Title;Windows\nQHT;Table One;A..B\nNOBODY;Table Two;A\nOTM;Table Three;A..C\n');
  await expect(page.getByText('Makes 2 projects on studio.')).toBeVisible();
  await expect(page.getByRole('row', { name: /Table Two/ })).toContainText('No client is called');
  await page.getByRole('button', { name: 'Make 2 projects' }).click();
  await expect(page.getByText('2 projects made.')).toBeVisible();
  expect(readdirSync(demo.studio).filter((n) => /table-(one|two|three)$/.test(n))).toHaveLength(2);
});
