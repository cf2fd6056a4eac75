/** A coordinator puts a week's mess right by keyboard, and takes all of it back; an artist what is theirs. */
import { createHash } from 'node:crypto';
import { lstatSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import type { Locator, Page } from '@playwright/test';
import { faults } from './axe';
import { copiedFrom, intoBrowser, treeInBrowser } from './browser-copy';
import { expect, folderOf, idOf, test } from './demo';

interface Found {
  readonly id: string;
  readonly rule: string;
  readonly path: string;
}
const findingsOf = async (page: Page, id: string): Promise<readonly Found[]> =>
  ((await (await page.request.get(`/api/projects/${id}/findings?group=none&limit=500`)).json()) as { rows: Found[] })
    .rows;

/** Names, bytes and times of all files, and the names of all folders; `moving` while something leaves its place. */
function treeOf(root: string): string {
  const hash = createHash('sha256');
  try {
    for (const at of readdirSync(root, { recursive: true, encoding: 'utf8' }).sort()) {
      if (at.startsWith('.nesting')) continue;
      const entry = lstatSync(path.join(root, at));
      hash.update(at);
      if (entry.isFile()) hash.update(`${entry.mtimeMs}`).update(readFileSync(path.join(root, at)));
    }
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return 'moving';
    throw error;
  }
  return hash.digest('hex');
}

async function checked(page: Page, id: string): Promise<void> {
  await page.request.post(`/api/projects/${id}/checks`, { data: { what: 'whole' } });
  await expect
    .poll(async () => {
      const { newest } = (await (await page.request.get(`/api/projects/${id}/checks`)).json()) as {
        newest: { state: string } | null;
      };
      return newest?.state;
    })
    .toBe('done');
}

/** The list of lines, when the last answer is in the plan. */
async function planned(page: Page): Promise<Locator> {
  const list = page.getByRole('listbox', { name: 'What is put right' });
  await expect(list).toHaveAttribute('aria-busy', 'false');
  return list;
}

/** Whoever is in somebody's way gets the next free name; what cannot be put together is set aside. */
async function settleClashes(page: Page): Promise<void> {
  const taken = page.getByRole('option', { name: /name is taken/ });
  for (;;) {
    await planned(page);
    if ((await taken.count()) === 0) return;
    await taken.first().click();
    const free = page.getByRole('button', { name: 'Give it a free name' });
    const aside = page.getByRole('radio', { name: /Set it aside/ });
    await free.or(aside).first().waitFor();
    await ((await free.count()) > 0 ? free.click() : aside.check());
  }
}

const ASKS = /\?$|ways$|a guess$/;

/** By keyboard: each line that asks, the first of them first, takes the first of its ways. They stand at the top. */
async function takeFirstWays(page: Page): Promise<void> {
  // What only a person can call is left.
  const asking = page
    .locator('[role=option][aria-selected=false]')
    .filter({ hasText: ASKS })
    .filter({ hasNotText: 'what is it called' });
  for (;;) {
    const list = await planned(page);
    await list.focus();
    await page.keyboard.press('Home');
    await page.locator('[role=option][aria-posinset="1"]').waitFor();
    if ((await asking.count()) === 0) return;
    const rank = Number(await asking.first().getAttribute('aria-posinset'));
    for (let at = 1; at < rank; at++) await page.keyboard.press('ArrowDown');
    await expect(list).toHaveAttribute('aria-activedescendant', (await asking.first().getAttribute('id')) ?? '');
    await page.keyboard.press(' ');
  }
}

const undoIt = async (page: Page): Promise<void> => {
  await page.getByRole('button', { name: 'Undo it' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Undo it' }).click();
};

/** The list of findings, at the one that a press puts right. */
async function atTheMisspelt(page: Page, id: string): Promise<void> {
  await page.goto(`/projects/${id}?view=findings&rule=version-style`);
  await expect(page.getByRole('button', { name: /Rename to 26014_clock-tower_s01_anim_LV_v012\.usda/ })).toBeVisible();
  await page.getByRole('listbox', { name: 'Findings' }).focus();
}

test('one press puts a finding right, says what it did, and is undone', async ({ as, demo }) => {
  const page = await as('Ines Thorvald');
  const id = await idOf(page, '26014');
  const root = folderOf(demo.studio, '26014');
  const before = treeOf(root);
  await atTheMisspelt(page, id);
  await page.keyboard.press('p');
  await expect(page.getByText(/rename to 26014_clock-tower_s01_anim_LV_v012\.usda/)).toBeVisible();
  // Whoever remembers only the old name finds what became of it.
  await page.keyboard.press('Control+k');
  await page.keyboard.type('anim_LV_V12');
  await expect(
    page.getByRole('option', { name: /anim_LV_V12\.usda → 26014_clock-tower_s01_anim_LV_v012/ }),
  ).toBeVisible();
  await page.keyboard.press('Escape');
  const helper = await page.context().newPage();
  await helper.goto(`/names?project=${id}`);
  await helper.getByLabel('A name you have').fill('26014_clock-tower_s01_anim_LV_V12.usda');
  await expect(helper.getByText(/Called 26014_clock-tower_s01_anim_LV_v012\.usda now/)).toBeVisible();
  await helper.close();
  const working = path.join(root, '40_motion/clock-tower/s01/working');
  expect(readdirSync(working)).toContain('26014_clock-tower_s01_anim_LV_v012.usda');
  // What was put right is looked at again by itself.
  await expect.poll(async () => (await findingsOf(page, id)).filter((f) => f.rule === 'version-style')).toEqual([]);
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect.poll(() => treeOf(root)).toBe(before);
  await checked(page, id);
});

test('a press that takes longer than its answer waits for says so, and is undone all the same', async ({
  as,
  demo,
}) => {
  const page = await as('Ines Thorvald');
  const id = await idOf(page, '26014');
  const root = folderOf(demo.studio, '26014');
  const before = treeOf(root);
  await page.route('**/repair/batches', (route) =>
    route.continue({ headers: { ...route.request().headers(), prefer: 'wait=0' } }),
  );
  await atTheMisspelt(page, id);
  const answer = page.waitForResponse('**/repair/batches');
  await page.keyboard.press('p');
  expect((await answer).status()).toBe(202);
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect.poll(() => treeOf(root)).toBe(before);
  await checked(page, id);
});

test('the whole mess by keyboard: answers, names, one press; then all of it back, to the same bytes and times', async ({
  as,
  demo,
}) => {
  const page = await as('Ines Thorvald');
  const id = await idOf(page, '26014');
  const root = folderOf(demo.studio, '26014');
  const before = treeOf(root);
  const found = await findingsOf(page, id);
  await page.goto(`/projects/${id}?view=findings`);
  await page.getByRole('button', { name: 'Put right…' }).click();
  const list = page.getByRole('listbox', { name: 'What is put right' });
  const ledger = page.getByRole('region', { name: 'What will happen' });
  await expect(ledger).toContainText(/Puts \d+ findings right/);
  expect(treeOf(root)).toBe(before);
  await settleClashes(page);
  // Two copies of one sound: which one stays is a person's to say.
  await page.getByRole('option', { name: /which one stays/ }).click();
  await page.getByRole('radio', { name: /Keep 50_sound\/atmosphere/ }).check();
  await expect(page.getByRole('radio', { name: /Keep 50_sound\/atmosphere/ })).toBeChecked();
  // A file whose name nobody can guess.
  await page.getByRole('option', { name: /quote harbour FINAL/ }).click();
  await page.getByRole('radio', { name: /Another name/ }).check();
  await page.getByLabel('Its name').fill('2026-02-11_quote_harbour-lights-second.pdf');
  await page.getByLabel('Its name').press('Enter');
  await expect(page.getByRole('option', { name: /quote harbour FINAL/ })).toContainText('harbour-lights-second');
  // What is likely is taken in one act; an answer that was given is there after a reload.
  await page.getByRole('button', { name: /Take the \d+ likely/ }).click();
  await expect(page.getByRole('button', { name: /Take the \d+ likely/ })).toHaveCount(0);
  await takeFirstWays(page);
  await settleClashes(page);
  await page.reload();
  await list.focus();
  await page.keyboard.press('Home');
  await page.getByRole('option', { name: /26014_ATM_s07_v01/ }).click();
  await expect(page.getByRole('radio', { name: /Keep 50_sound\/atmosphere/ })).toBeChecked();
  // Space leaves a line and takes it again; Enter applies nothing.
  await page.getByRole('option', { name: /measurements/ }).click();
  await list.focus();
  await page.keyboard.press(' ');
  await expect(page.getByRole('option', { name: /measurements/ })).toHaveAttribute('aria-selected', 'false');
  await page.keyboard.press(' ');
  await expect(page.getByRole('option', { name: /measurements/ })).toHaveAttribute('aria-selected', 'true');
  await page.keyboard.press('Enter');
  expect(treeOf(root)).toBe(before);
  await expect(page.getByRole('button', { name: 'Put it right' })).toBeEnabled();
  await page.keyboard.press('Control+Enter');
  await expect(page).toHaveURL(/batches\?batch=/);
  await expect(page.getByRole('region', { name: 'What will happen' })).toContainText('can be undone');
  await checked(page, id);
  // What lay in folders that nobody knew is judged now that they are known: once more, and again while anything is left.
  const act = page.getByRole('button', { name: 'Put it right' });
  let rest = await findingsOf(page, id);
  let repairs = 1;
  for (; repairs < 4 && (repairs === 1 || rest.length > 9); repairs++) {
    await page.goto(`/projects/${id}/repair`);
    await expect(ledger).toContainText(/Puts \d+ findings? right|Nothing is chosen yet/);
    const likely = page.getByRole('button', { name: /Take the \d+ likely/ });
    if ((await likely.count()) > 0) await likely.click();
    await takeFirstWays(page);
    await settleClashes(page);
    await expect(act).toBeEnabled();
    await page.keyboard.press('Control+Enter');
    await expect(page).toHaveURL(/batches\?batch=/);
    await checked(page, id);
    rest = await findingsOf(page, id);
  }
  // What is left nobody but the people of the project can know: missing frames, other days, whose work it is.
  const OF_PEOPLE = new Set(['sequence-gap', 'version-gap', 'date-mismatch', 'absolute-reference', 'name-mismatch']);
  expect(rest.filter((f) => !OF_PEOPLE.has(f.rule))).toEqual([]);
  const told = rest.map(({ rule, path: at }) => `${rule} ${at}`);
  expect(told, told.join('\n')).toHaveLength(Math.min(told.length, 9));
  // Accepted, the project is in order.
  await page.goto(`/projects/${id}`);
  await page.getByRole('button', { name: 'More…' }).click();
  await page.getByRole('menuitem', { name: 'Accept everything found so far…' }).click();
  await page.getByLabel('Why').fill('For the people of the project to say.');
  await page.getByRole('button', { name: `Accept ${rest.length} findings` }).click();
  await expect(page.getByRole('tab', { name: /^Findings$/ })).toBeVisible();
  const ids = rest.map((f) => f.id);
  await page.request.post(`/api/projects/${id}/findings/count-again`, {
    data: { ids },
    headers: { origin: demo.address },
  });
  for (let changes = 0; changes < repairs; changes++) {
    const done = (await (await page.request.get(`/api/projects/${id}/batches`)).json()) as {
      id: string;
      what: string;
    }[];
    const put = done.filter((b) => b.what === 'repair')[changes];
    await page.goto(`/projects/${id}/batches?batch=${put?.id}`);
    await undoIt(page);
    await expect(page).not.toHaveURL(new RegExp(put?.id ?? ''));
  }
  await expect.poll(() => treeOf(root)).toBe(before);
  await checked(page, id);
  expect((await findingsOf(page, id)).map((f) => f.id).sort()).toEqual(found.map((f) => f.id).sort());
});

test('a plan is narrowed by what the address says, and a word of the new names becomes another', async ({ as }) => {
  const page = await as('Ines Thorvald');
  const id = await idOf(page, '26014');
  await page.goto(`/projects/${id}/repair?cause=version-style&certainty=chosen`);
  const options = page.getByRole('option');
  await expect(page.getByRole('button', { name: /Versions written otherwise/ })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  const count = await options.count();
  expect(count).toBeGreaterThan(0);
  await page.getByLabel('A word in new names').fill('anim');
  await page.getByLabel('becomes').fill('comp');
  await page.getByRole('button', { name: /Write it in \d+ name/ }).click();
  await expect(page.getByRole('option', { name: /_comp_/ }).first()).toBeVisible();
  await page.evaluate(() => localStorage.clear());
  // One of them goes to another folder: the place is read in the line.
  await page.goto(`/projects/${id}/repair?cause=version-style`);
  await page.getByLabel('Its folder').fill('30_design');
  await page.getByLabel('Its folder').press('Enter');
  await expect(page.getByRole('option', { name: /30_design\// })).toBeVisible();
  await page.getByLabel('Its folder').fill('../out');
  await page.getByLabel('Its folder').press('Enter');
  await expect(page.getByText(/name is taken|cannot be/).first()).toBeVisible();
  await page.evaluate(() => localStorage.clear());
  await page.goto(`/projects/${id}/repair?size=over-1-gb`);
  await expect(page.getByText('No line is like that')).toBeVisible();
  await page.getByRole('combobox', { name: 'Size' }).click();
  await page.getByRole('option', { name: 'Any size' }).click();
  await expect(page.getByRole('listbox', { name: 'What is put right' })).toBeVisible();
  await page.goto(`/projects/${id}/repair?find=nobody-is-called-so`);
  await expect(page.getByText('No line is like that')).toBeVisible();
});

test('a file of another project goes there from the plan, is told in both, and comes back', async ({ as, demo }) => {
  const page = await as('Ines Thorvald');
  const id = await idOf(page, '26014');
  const [here, there] = [folderOf(demo.studio, '26014'), folderOf(demo.studio, '26011')];
  const before = [treeOf(here), treeOf(there)];
  await page.goto(`/projects/${id}/repair?cause=foreign-project`);
  await planned(page);
  await page.getByRole('option', { name: /26011_crane-7/ }).click();
  await page
    .getByRole('radio', { name: /It belongs to 26011_FNR_curtain-rise: move to/ })
    .first()
    .check();
  await planned(page);
  await expect(page.getByRole('option', { name: /26011_crane-7.*it belongs to 26011/ })).toBeVisible();
  expect(await faults(page)).toEqual([]);
  expect([treeOf(here), treeOf(there)]).toEqual(before);
  await page.getByRole('button', { name: 'Put it right' }).click();
  await expect(page).toHaveURL(/batches\?batch=/);
  await expect(page.getByRole('option', { name: /studio \/ 26011_FNR_curtain-rise/ }).first()).toBeVisible();
  expect(treeOf(there)).not.toBe(before[1]);
  await page.goto('/activity');
  await expect(page.getByText(/moved 1 file here from 26014/)).toBeVisible();
  await page.goto(`/projects/${id}/batches`);
  await undoIt(page);
  await expect.poll(() => [treeOf(here), treeOf(there)]).toEqual(before);
  await checked(page, id);
});

test('a lead looks; an artist proposes, a coordinator looks at it, and refuses it with a word', async ({ as }) => {
  const lead = await as('Maud Éclair');
  const id = await idOf(lead, '26014');
  await lead.goto(`/projects/${id}/repair`);
  await expect(lead.getByText('Findings are put right by those who work on the project')).toBeVisible();
  const artist = await as('Bram Okonjo');
  await artist.goto(`/projects/${id}?view=findings`);
  await artist.getByRole('button', { name: 'Put right…' }).click();
  await expect(artist.getByRole('button', { name: 'Put it right' })).toHaveCount(0);
  await artist.getByLabel('A word for the coordinator').fill('This is what I would do.');
  await artist.getByRole('button', { name: 'Propose it' }).click();
  await expect(artist.getByRole('grid', { name: 'Proposals' })).toContainText('waits for an answer');
  const { fingerprint } = (await (await artist.request.post(`/api/projects/${id}/repair`, { data: {} })).json()) as {
    fingerprint: string;
  };
  const refused = await artist.request.post(`/api/projects/${id}/repair/batches`, { data: { fingerprint } });
  expect(refused.status()).toBe(403);
  const page = await as('Ines Thorvald');
  await page.goto('/checks/proposals');
  await page.getByRole('gridcell', { name: 'This is what I would do.' }).first().click();
  await page.getByRole('link', { name: 'Look at the plan' }).click();
  await expect(page.getByText('Proposed by Bram Okonjo: “This is what I would do.”')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Put it right' })).toBeEnabled();
  await page.goBack();
  await page.getByRole('gridcell', { name: 'This is what I would do.' }).first().click();
  await page.getByLabel('Why not').fill('Let us speak of it first.');
  await page.getByRole('button', { name: 'Refuse it' }).click();
  await expect(page.getByRole('grid', { name: 'Proposals' })).toContainText('refused');
  await artist.goto('/checks/proposals');
  await artist.getByRole('gridcell', { name: 'This is what I would do.' }).first().click();
  await expect(artist.getByText(/Let us speak of it first/)).toBeVisible();
});

test('a folder on this computer is put right by the browser, and taken back; what was cut short is settled', async ({
  as,
  demo,
}) => {
  const page = await as('Ines Thorvald');
  const id = await idOf(page, '26014');
  // What was copied just now has lain there for a day.
  await page.addInitScript(() => {
    const now = Date.now.bind(Date);
    Date.now = () => now() + 86_400_000;
  });
  await page.goto(`/projects/${id}/here`);
  await intoBrowser(page, copiedFrom(folderOf(demo.studio, '26014')));
  const before = await treeInBrowser(page);
  await page.getByRole('button', { name: 'A folder here…' }).click();
  await page.getByRole('button', { name: 'Put right…' }).click();
  const ledger = page.getByRole('region', { name: 'What will happen' });
  await expect(ledger).toContainText(/Puts \d+ findings right/);
  await page.getByRole('button', { name: /Take the \d+ likely/ }).click();
  await expect(page.getByRole('button', { name: /Take the \d+ likely/ })).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Put it right' })).toBeEnabled();
  expect(await treeInBrowser(page)).toEqual(before);
  expect(await faults(page)).toEqual([]);
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText(/\d+ findings put right\./)).toBeVisible();
  const after = await treeInBrowser(page);
  expect(after.some((line) => line.includes('26014_clock-tower_s01_anim_LV_v012.usda '))).toBe(true);
  await page.getByRole('button', { name: 'Undo it' }).click();
  await expect.poll(() => treeInBrowser(page)).toEqual(before);

  // Done again, and the page closed before the end was written down.
  await page.getByRole('button', { name: 'Put right…' }).click();
  await expect(page.getByRole('button', { name: 'Put it right' })).toBeEnabled();
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText(/\d+ findings put right\./)).toBeVisible();
  await page.evaluate(async () => {
    let at = await navigator.storage.getDirectory();
    for (const part of ['copy', '.nesting', 'batches']) at = await at.getDirectoryHandle(part);
    let newest: { readonly handle: FileSystemFileHandle; readonly at: number } | null = null;
    for await (const folder of at.values()) {
      const handle = await (folder as FileSystemDirectoryHandle).getFileHandle('journal.ndjson');
      const { lastModified } = await handle.getFile();
      if (newest === null || lastModified > newest.at) newest = { handle, at: lastModified };
    }
    const text = (await (await newest?.handle.getFile())?.text()) ?? '';
    const stream = await newest?.handle.createWritable();
    await stream?.write(text.replace('{"ended":"done"', '{"cut":"done"'));
    await stream?.close();
  });
  await page.getByRole('button', { name: 'A folder here…' }).click();
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect.poll(() => treeInBrowser(page)).toEqual(before);
});

test('what is sure is put right in every project at once, each undone by itself', async ({ as, demo }) => {
  const page = await as('Ines Thorvald');
  const rows = (
    (await (await page.request.get('/api/projects?by=findings&limit=500')).json()) as {
      rows: { id: string; number: string; check: { counts: { must: number } } | null }[];
    }
  ).rows.filter((row) => row.check !== null && row.check.counts.must > 0);
  expect(rows.length).toBeGreaterThan(1);
  const roots = rows.map((row) => folderOf(demo.studio, row.number));
  const before = roots.map(treeOf);
  await page.goto('/checks/repair');
  const ledger = page.getByRole('region', { name: 'What will happen' });
  await expect(ledger).toContainText(/Puts \d+ findings? right in \d+ projects?/);
  await expect(page.getByText('being looked at…')).toHaveCount(0);
  expect(await faults(page)).toEqual([]);
  expect(roots.map(treeOf)).toEqual(before);
  await page.getByRole('listbox', { name: 'Projects' }).focus();
  await page.keyboard.press('Control+Enter');
  await expect(ledger).toContainText(/\d+ projects? put right\./);
  const changed = roots.filter((root, i) => treeOf(root) !== before[i]);
  await expect(page.getByRole('option', { name: /findings? put right/ })).toHaveCount(changed.length);
  const links: string[] = [];
  for (let at = 0; at < changed.length; at++) {
    await page
      .getByRole('option', { name: /findings? put right/ })
      .nth(at)
      .click();
    const link = page.getByRole('link', { name: 'Look at the change, or undo it' });
    await expect(link).not.toHaveAttribute('href', links.at(-1) ?? '');
    links.push((await link.getAttribute('href')) ?? '');
  }
  for (const link of links) {
    await page.goto(link);
    await undoIt(page);
    await expect(page).not.toHaveURL(new RegExp(link.slice(-36)));
  }
  await expect.poll(() => roots.map(treeOf)).toEqual(before);
});

test('a plan waits for its hour, and is taken back', async ({ as, demo }) => {
  const page = await as('Ines Thorvald');
  const id = await idOf(page, '26014');
  await checked(page, id);
  const before = treeOf(folderOf(demo.studio, '26014'));
  await page.goto(`/projects/${id}/repair`);
  await page.getByRole('button', { name: 'Later…' }).click();
  await page.getByLabel('When it begins').fill('2020-01-01T22:00');
  await page.getByRole('button', { name: 'Begin then' }).click();
  await expect(page.getByRole('dialog').getByText('That hour is past.')).toBeVisible();
  await page.getByLabel('When it begins').fill('2099-01-01T22:00');
  expect(await faults(page)).toEqual([]);
  await page.getByRole('button', { name: 'Begin then' }).click();
  await expect(page.getByText(/findings? put right on/)).toBeVisible();
  await page.getByRole('button', { name: 'Do not begin it' }).click();
  await expect(page.getByText(/findings? put right on/)).toHaveCount(0);
  expect(treeOf(folderOf(demo.studio, '26014'))).toBe(before);
});
