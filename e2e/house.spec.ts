/**
 * The house's lists, walked as a coordinator would: each entry is shown, changed, found again, and told in the history.
 */
import type { Page } from '@playwright/test';
import { expect, test } from './demo';

const row = (page: Page, name: RegExp | string) => page.getByRole('row', { name });

test('clients: added by keyboard, changed in place, kept, put back, merged; a code in use stays', async ({ as }) => {
  const page = await as('Ines Thorvald');
  await page.getByRole('link', { name: 'Lists' }).click();
  await page.getByRole('button', { name: 'Add…' }).click();
  await page.getByLabel('Code', { exact: true }).fill('Q/T');
  await page.getByLabel('Name', { exact: true }).fill('Quillhaven Trust');
  await expect(page.getByText('“Q/T” is not up to twelve letters')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Add it' })).toBeDisabled();
  await page.getByLabel('Code', { exact: true }).fill('QT');
  await page.getByLabel('Code', { exact: true }).press('Enter');
  await expect(page.getByText('QT added.')).toBeVisible();
  await page.getByLabel('Notes').fill('Asks for two prints.');
  await page.getByLabel('Name', { exact: true }).focus();
  await expect(page.getByText('Kept.')).toBeVisible();
  await expect(page.getByLabel('History')).toContainText('notes: nothing → Asks for two prints.');
  await page.getByRole('button', { name: 'Put back' }).click();
  await expect(page.getByLabel('Notes')).toHaveValue('');
  await page.getByRole('button', { name: 'Merge into another…' }).click();
  await page.getByRole('combobox', { name: 'The entry that stays' }).click();
  await page.getByRole('option').first().click();
  await page.getByRole('button', { name: 'Merge them' }).click();
  await expect(page.getByText('QT merged into QHT.')).toBeVisible();
  await page.getByRole('grid').focus();
  await page.getByLabel('Find in Clients').fill('quill');
  await expect(row(page, /^QT /)).toContainText('retired');
  await row(page, /^QHT /).click();
  await expect(page.getByLabel('Code', { exact: true })).toHaveAttribute('readonly', '');
  await page.reload();
  await expect(page.getByLabel('Code', { exact: true })).toHaveValue('QHT');
});

test('a table is looked at line by line and its good lines taken in; what the list saves it takes in as the same', async ({
  as,
}) => {
  const page = await as('Ines Thorvald');
  await page.goto('/registers/abbreviations');
  await page.getByRole('button', { name: 'Take in a table…' }).click();
  const give = (name: string, bytes: Buffer) =>
    page.getByLabel('A table', { exact: true }).setInputFiles({ name, mimeType: 'text/csv', buffer: bytes });
  await give('odd.csv', Buffer.from([0, 1, 2, 3]));
  await expect(page.getByRole('alert')).toContainText('no table that can be read');
  await give('titles.csv', Buffer.from('Titel;Sum\na;b\n'));
  await expect(page.getByRole('alert').first()).toContainText('column');
  // As an older program writes it: semicolons, a Western encoding.
  await give('words.csv', Buffer.from('Word;Abbreviation\nrenvoi \xe0 la fin;RF\ngrading;GR\nbroken;a b\n', 'latin1'));
  await expect(page.getByText('Windows-1252, semicolons')).toBeVisible();
  await expect(page.getByRole('radio', { name: '1 refused' })).toBeVisible();
  await page.getByRole('button', { name: 'Take in 2 lines' }).click();
  await expect(page.getByText('2 added, 0 changed.')).toBeVisible();
  await expect(row(page, /renvoi à la fin/)).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as CSV' }).click(),
  ]);
  await page.getByRole('button', { name: 'Take in a table…' }).click();
  await page.getByLabel('A table', { exact: true }).setInputFiles(await download.path());
  await expect(page.getByRole('radio', { name: '0 new' })).toBeVisible();
  await expect(page.getByRole('radio', { name: '0 changed' })).toBeVisible();
  for (const [list, words] of [
    ['families', 'sound'],
    ['banned', 'final'],
  ] as const) {
    await page.goto(`/registers/${list}`);
    await row(page, new RegExp(words)).first().click();
    await expect(page.getByLabel('History')).toBeVisible();
  }
});

test('marks: a free one gets a meaning, is chosen by it in a template, and is heard by it', async ({ as }) => {
  const page = await as('Ines Thorvald');
  await page.goto('/registers/marks');
  await page.getByLabel('Meaning of mark 6').fill('Arrives');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Another mark means “Arrives” already. Nothing was changed.')).toBeVisible();
  await page.getByLabel('Meaning of mark 6').fill('rehearsed');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('1 mark free.')).toBeVisible();
  await page.goto('/templates/facade-show/edit');
  await page.getByLabel('Mark', { exact: true }).click();
  await page.getByRole('option', { name: 'rehearsed' }).click();
  await expect(page.getByRole('treeitem').first()).toHaveAttribute('aria-description', 'rehearsed');
  await page.keyboard.press('Control+z');
  await page.goto('/registers/marks');
  await page.getByLabel('Meaning of mark 6').fill('');
  await page.getByRole('button', { name: 'Free it' }).click();
  await expect(page.getByText('2 marks free.')).toBeVisible();
});

test('numbers: the next one, one reserved, one of another form refused before it is kept', async ({ as }) => {
  const page = await as('Ines Thorvald');
  await page.goto('/registers/numbers');
  await expect(page.getByText(/^Next: 26\d{3}$/)).toBeVisible();
  await page.getByLabel('Number', { exact: true }).fill('26888');
  await page.getByLabel('For what').fill('The lantern walk');
  await page.getByRole('button', { name: 'Reserve it' }).click();
  await expect(page.getByLabel('Reserved numbers')).toContainText('The lantern walk');
  await page.getByLabel('Pattern').fill('{n:000}');
  await expect(page.getByText(/one number would be given twice/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Number so from now on…' })).toBeDisabled();
  await page.getByLabel('Pattern').fill('{yy}-{n:000}');
  await page.getByRole('button', { name: 'Cancel the changes' }).click();
  await page.goto('/start?template=window-piece');
  await expect(page.getByLabel('Number')).toHaveValue(/^26\d{3}$/);
  const held = await page.getByLabel('Number').inputValue();
  await page.getByLabel('Number').fill('26888');
  await expect(page.getByText(/26888 is reserved: The lantern walk/).first()).toBeVisible();
  await page.getByRole('link', { name: 'Lists' }).click();
  await page.goto('/registers/numbers');
  await expect(page.getByText(new RegExp(`^Next: ${held}$`))).toBeVisible();
});

test('somebody is invited, comes in by the mailed link, makes a key, and is out at once when their access ends', async ({
  as,
  browser,
  demo,
}) => {
  const page = await as('Ines Thorvald');
  await page.goto('/registers/people');
  await page.getByRole('button', { name: 'Invite…' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Nora Quist');
  await page.getByLabel('Initials').fill('nq');
  await page.getByLabel('E-mail').fill('nora@tallow-street.example');
  await page.getByRole('button', { name: 'Invite them' }).click();
  await expect(row(page, /Nora Quist/)).toContainText('invited');
  await page.getByRole('link', { name: 'Outbox' }).click();
  const address = await page.getByRole('link', { name: /welcome#/ }).getAttribute('href');
  const context = await browser.newContext({ baseURL: demo.address, locale: 'en-GB' });
  const hers = await context.newPage();
  await hers.goto(address as string);
  await hers.getByLabel('The new one').fill('lanterns over water');
  await hers.getByLabel('Once more').fill('lanterns over wate');
  await expect(hers.getByRole('button', { name: 'Come in' })).toBeDisabled();
  await hers.getByLabel('Once more').fill('lanterns over water');
  await hers.getByRole('button', { name: 'Come in' }).click();
  await expect(hers.getByRole('navigation', { name: 'The line of work' })).toBeVisible();
  await hers.goto('/me');
  await expect(hers.getByLabel('Where you are signed in')).toContainText('Here');
  await hers.getByLabel('What is it for').fill('render machine');
  await hers.getByRole('button', { name: 'Make a key' }).click();
  await expect(hers.getByText('It is shown only now.')).toBeVisible();
  const key = /nest_[\w-]{32}/.exec((await hers.getByLabel('Access keys').textContent()) ?? '')?.[0] as string;
  const byKey = () =>
    hers.request.fetch(`${demo.address}/api/projects`, { headers: { authorization: `Bearer ${key}`, cookie: '' } });
  expect((await byKey()).status()).toBe(200);
  await page.goto('/registers/people');
  await row(page, /Nora Quist/).click();
  await page.getByRole('button', { name: 'End access…' }).click();
  await page.getByRole('button', { name: 'End access', exact: true }).click();
  await expect(row(page, /Nora Quist/)).toContainText('has left');
  await hers.reload();
  await expect(hers.getByRole('button', { name: 'Sign in' })).toBeVisible();
  expect((await byKey()).status()).toBe(401);
  // The link opens nothing any more.
  await hers.goto('about:blank');
  await hers.goto(address as string);
  await expect(hers.getByRole('alert')).toContainText('used already');
  await context.close();
  await page.goto('/activity?text=nora');
  await expect(row(page, /ended the access of Nora Quist/)).toBeVisible();
  await row(page, /accepted the invitation/).click();
  await expect(page.getByText('127.0.0.1')).toBeVisible();
  await page.getByLabel('Words').fill('nobody-has-this');
  await expect(page.getByText('Nothing of that sort was done.')).toBeVisible();
});

test('volumes say how each system sees them; artists see lists and change none', async ({ as }) => {
  const page = await as('Ines Thorvald');
  await page.goto('/registers/volumes');
  await page.getByLabel('On Windows').fill('S:\\');
  await page.getByLabel('On macOS').fill('studio');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('alert')).toContainText('no place as that system writes it');
  await page.getByLabel('On macOS').fill('/Volumes/lights');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('Kept.')).toBeVisible();
  await page.getByRole('button', { name: 'Look for them' }).click();
  await expect(page.getByText('Every project lies where it should.')).toBeVisible();
  const artist = await as('Bram Okonjo');
  await artist.goto('/registers/clients');
  await row(artist, /^QHT /).click();
  await expect(artist.getByLabel('Name', { exact: true })).toHaveAttribute('readonly', '');
  await expect(artist.getByRole('button', { name: 'Add…' })).toHaveCount(0);
  await artist.goto('/registers/people');
  await expect(artist.getByText('Coordinators look after people')).toBeVisible();
});
