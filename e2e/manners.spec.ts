/** How pages behave whatever they show: focus, keys, addresses, titles, scrolling, what is said when something fails. */
import type { Page } from '@playwright/test';
import { expect, test } from './demo';

async function idOf(page: Page, number: string): Promise<string> {
  const list = (await (await page.request.get(`/api/projects?find=${number}`)).json()) as { rows: { id: string }[] };
  const [row] = list.rows;
  if (row === undefined) throw new Error(`no project ${number}`);
  return row.id;
}

const openCount = async (page: Page, id: string): Promise<number> =>
  ((await (await page.request.get(`/api/projects/${id}/findings?group=none`)).json()) as { total: number }).total;

test('a wrong password is said and keeps what was typed', async ({ page, demo }) => {
  await page.goto(demo.address);
  await page.getByLabel('E-mail address').fill('ines@tallow-street.example');
  await page.getByLabel('Password', { exact: true }).fill('certainly not this');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('alert')).toContainText('Nobody is known by this address and password');
  await expect(page.getByLabel('E-mail address')).toHaveValue('ines@tallow-street.example');
  await expect(page.getByLabel('Password', { exact: true })).toHaveValue('certainly not this');
});

test('a session that ended asks to sign in, and leads back to where one was', async ({ as }) => {
  const page = await as('Ines Thorvald');
  await page.goto('/activity');
  await expect(page.getByRole('grid', { name: 'Activity' })).toBeVisible();
  await page.context().clearCookies();
  // Whatever is asked for next finds nobody signed in.
  await page.getByRole('textbox', { name: 'From' }).fill('2020-01-01');
  await page.getByRole('button', { name: /Ines Thorvald coordinator/ }).click();
  await expect(page.getByRole('grid', { name: 'Activity' })).toBeVisible();
  expect(page.url()).toContain('/activity?since=2020-01-01');
});

test('a page that could not be loaded comes by itself once the server is back', async ({ as }) => {
  const page = await as('Ines Thorvald');
  await page.route('**/api/activity*', (route) => route.abort());
  await page.goto('/activity');
  await expect(page.getByRole('alert')).toContainText('The server cannot be reached');
  await page.unroute('**/api/activity*');
  await expect(page.getByRole('grid', { name: 'Activity' })).toBeVisible();
});

test('what was searched in the list of projects stays there', async ({ as }) => {
  const page = await as('Ines Thorvald');
  await page.getByLabel('Search the projects').fill('harbour');
  await page.getByRole('link', { name: 'Harbour Lights', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Harbour Lights' })).toBeVisible();
  expect(new URL(page.url()).search).toBe('');
  await page.goBack();
  await expect(page.getByLabel('Search the projects')).toHaveValue('harbour');
});

test('keys of the findings do the same beside the list as in it, and none leaves the page', async ({ as }) => {
  const page = await as('Ines Thorvald');
  const id = await idOf(page, '26014');
  await page.goto(`/projects/${id}?view=findings`);
  const list = page.getByRole('listbox', { name: 'Findings' });
  await expect(list.getByRole('option').first()).toBeVisible();
  await page.locator('body').press('j');
  await page.locator('body').press('k');
  expect(new URL(page.url()).pathname).toBe(`/projects/${id}`);
  await page.locator('body').press('a');
  await expect(page.getByLabel('Why it may stay')).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(list).toBeFocused();
  const before = await openCount(page, id);
  await page.keyboard.press('g');
  const who = page.getByRole('combobox', { name: 'Who puts it right' });
  await expect(who).toBeFocused();
  await page.keyboard.type('b');
  await expect(page.getByRole('option', { name: /Bram Okonjo/ })).toBeVisible();
  expect(await openCount(page, id)).toBe(before);
  const given = (await (await page.request.get(`/api/projects/${id}/findings?group=none`)).json()) as {
    rows: { given: boolean; to: string | null }[];
  };
  expect(given.rows.filter((f) => f.given && f.to === 'BO')).toEqual([]);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await expect(list).toBeFocused();
  await page.keyboard.press('?');
  const keys = page.getByRole('dialog', { name: 'Keys' });
  const named = await keys.locator('dl').first().locator('dt').allTextContents();
  expect(named).toEqual([...new Set(named)]);
  for (const key of ['j', 'k', 'a', 'g', 'w', 't', 'u']) expect(named).toContain(key);
});

test('everything found is accepted only by the button that says so; afterwards the focus is where it was', async ({
  as,
}) => {
  const page = await as('Ines Thorvald');
  const id = await idOf(page, '26014');
  const before = await openCount(page, id);
  await page.goto(`/projects/${id}`);
  const more = page.getByRole('button', { name: 'More…' });
  await more.click();
  await page.getByRole('menuitem', { name: 'Accept everything found so far…' }).click();
  await expect(page.getByRole('button', { name: 'Cancel' })).toBeFocused();
  await page.getByLabel('Why').fill('Because.');
  await page.getByLabel('Why').press('Enter');
  await expect(page.getByRole('dialog')).toBeVisible();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(more).toBeFocused();
  expect(await openCount(page, id)).toBe(before);
});

test('a path is copied as the reader’s own system writes it', async ({ as }) => {
  const page = await as('Ines Thorvald');
  const volumes = (await (await page.request.get('/api/volumes')).json()) as {
    name: string;
    prefixes: { windows: string };
  }[];
  const windows = volumes.find((v) => v.name === 'studio')?.prefixes.windows ?? '';
  expect(windows).not.toBe('');
  const id = await idOf(page, '26014');
  await page.goto(`/projects/${id}?view=findings`);
  await page.evaluate(() => localStorage.setItem('nesting-system', 'windows'));
  await page.reload();
  await page.getByRole('button', { name: 'Copy the path' }).click();
  const copied = await page.evaluate(() => navigator.clipboard.readText());
  expect(copied.startsWith(`${windows.replace(/\\+$/, '')}\\26014_QHT_harbour-lights\\`)).toBe(true);
  expect(copied).not.toContain('/');
});

test('a row that was clicked is gone on from by arrows, and opened by Enter', async ({ as }) => {
  const page = await as('Ines Thorvald');
  const rows = page.getByRole('grid', { name: 'All projects' }).getByRole('row');
  await rows.nth(1).getByRole('gridcell').nth(4).click();
  await page.keyboard.press('ArrowDown');
  await expect(rows.nth(2)).toHaveAttribute('aria-selected', 'true');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('tablist', { name: 'What is shown' })).toBeVisible();
});

test('every page has a title of its own', async ({ as }) => {
  const page = await as('Ines Thorvald');
  await expect(page).toHaveTitle('All projects · Nesting');
  await page.getByRole('link', { name: 'Templates' }).click();
  await expect(page).toHaveTitle('Templates · Nesting');
  await page.goto(`/projects/${await idOf(page, '26014')}`);
  await expect(page).toHaveTitle('26014 Harbour Lights · Nesting');
  await page.getByRole('link', { name: 'Activity' }).click();
  await expect(page).toHaveTitle('Activity · Nesting');
});

test('days are written as people say them, in a field of our own', async ({ as }) => {
  const page = await as('Ines Thorvald');
  await page.goto('/activity');
  await page.getByRole('textbox', { name: 'From' }).fill('yest');
  await page.getByRole('textbox', { name: 'From' }).fill('yesterday');
  await expect(page).toHaveURL(/since=\d{4}-\d{2}-\d{2}/);
  expect(await page.locator('input[type=date]:visible').count()).toBe(0);
});

/** Whether some words of the ledger lie where one of its buttons is. */
const isCovered = (page: Page): Promise<boolean> =>
  page.evaluate(() => {
    const ledger = document.querySelector('section[aria-label="What will happen"]');
    if (ledger === null) return false;
    const buttons = [...ledger.querySelectorAll('button')];
    const words = document.createTreeWalker(ledger, NodeFilter.SHOW_TEXT);
    for (let node = words.nextNode(); node !== null; node = words.nextNode()) {
      if (node.parentElement?.closest('button, .sr-only') !== null) continue;
      const range = document.createRange();
      range.selectNodeContents(node);
      for (const a of range.getClientRects())
        for (const button of buttons) {
          const b = button.getBoundingClientRect();
          if (a.right > b.left + 1 && b.right > a.left + 1 && a.bottom > b.top + 1 && b.bottom > a.top + 1) return true;
        }
    }
    return false;
  });

for (const { width, height } of [
  { width: 1280, height: 800 },
  { width: 390, height: 844 },
])
  test(`no page scrolls as a whole at ${width} pixels, and no text lies under the ledger’s buttons`, async ({ as }) => {
    const page = await as('Ines Thorvald');
    await page.setViewportSize({ width, height });
    const id = await idOf(page, '26014');
    const scrolled: string[] = [];
    for (const address of [
      '/templates/facade-show/edit?line=surface',
      `/projects/${id}`,
      `/projects/${id}?view=sheet`,
      `/projects/${id}?view=folders`,
      `/projects/${id}/change`,
      `/projects/${id}/repair`,
      '/start?template=facade-show',
      '/conventions/working-file',
      '/names',
      '/registers/clients',
      '/checks',
      '/activity',
    ]) {
      await page.goto(address);
      await page.locator('main').waitFor();
      await page.waitForLoadState('networkidle');
      const beyond = await page.evaluate(() => {
        const root = document.scrollingElement as Element;
        return Math.max(root.scrollHeight - innerHeight, root.scrollWidth - innerWidth);
      });
      if (beyond > 1) scrolled.push(`${address} by ${beyond}`);
      if (await isCovered(page)) scrolled.push(`${address}: the ledger's words lie under its buttons`);
    }
    expect(scrolled).toEqual([]);
  });
