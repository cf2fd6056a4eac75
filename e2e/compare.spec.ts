/** Two projects side by side: chosen, looked through by keyboard, narrowed by the address, taken away as a table. */
import { readFileSync, renameSync } from 'node:fs';
import { faults } from './axe';
import { expect, folderOf, idOf, test } from './demo';

test('two projects are chosen, and what differs is read by keyboard, filtered and saved', async ({ as, demo }) => {
  const page = await as('Maud Éclair');
  const [left, right] = [await idOf(page, '26011'), await idOf(page, '26014')];
  await page.goto(`/projects/${left}`);
  await page.getByRole('button', { name: 'More…' }).click();
  await page.getByRole('menuitem', { name: 'Side by side with another…' }).click();
  await expect(page.getByText('Choose both at the left')).toBeVisible();
  await page.getByRole('combobox', { name: 'Right project' }).fill('26014');
  await page.getByRole('option', { name: /26014/ }).waitFor();
  await page.getByRole('combobox', { name: 'Right project' }).press('Enter');
  await expect(page).toHaveURL(new RegExp(`right=${right}`));
  const list = page.getByRole('listbox', { name: 'What differs' });
  await expect(list.getByRole('option').first()).toBeVisible();
  expect(await faults(page)).toEqual([]);
  // Paperwork of the one is paperwork of the other, under its title.
  const quote = page.getByRole('option', { name: /_quote_curtain-rise\.pdf.*_quote_harbour-lights\.pdf/ });
  await quote.click();
  const beside = page.getByRole('region', { name: 'The selected row' });
  await expect(beside).toContainText('Both names mean the same');
  await list.focus();
  await page.keyboard.press('ArrowDown');
  await expect(quote).toHaveAttribute('aria-selected', 'false');
  await page.getByRole('button', { name: /^Only in 26014/ }).click();
  await expect(page).toHaveURL(/state=only-right/);
  for (const option of await list.getByRole('option').all()) await expect(option).toContainText('only in 26014');
  await page.getByRole('button', { name: 'Swap them' }).click();
  await expect(page).toHaveURL(new RegExp(`left=${right}`));
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save the table' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('26014-26011.csv');
  expect(readFileSync(await download.path(), 'utf8')).toContain('only-left');
  // What is the same is told where it is asked for.
  await page.goto(`/compare?left=${left}&right=${left}`);
  await expect(page.getByText('Nothing differs')).toBeVisible();
  await page.getByLabel('Show what is the same too').click();
  await expect(list.getByRole('option').first()).toContainText('the same');
  // Two scenes of one project: what they were made for is their own.
  const folderAt = (side: string) => page.getByRole('combobox', { name: `What of it, at the ${side}` });
  await folderAt('left').fill('s01/working');
  await page
    .getByRole('option', { name: /s01\/working$/ })
    .first()
    .click();
  await folderAt('right').fill('s02/working');
  await page
    .getByRole('option', { name: /s02\/working$/ })
    .first()
    .click();
  await expect(page).toHaveURL(/leftFolder=[^&]*s01.*rightFolder=[^&]*s02/);
  await expect(page.getByText(/^(?:\d|Both)/).first()).toBeVisible();
  expect(await faults(page)).toEqual([]);
  // A folder that is away is said, and looked at again when it is back.
  const folder = folderOf(demo.studio, '26014');
  renameSync(folder, `${folder}-away`);
  await page.goto(`/compare?left=${left}&right=${right}`);
  await expect(page.getByText(/is not there|cannot be|does not/).first()).toBeVisible();
  renameSync(`${folder}-away`, folder);
  await page.getByRole('button', { name: /again/i }).first().click();
  await expect(list.getByRole('option').first()).toBeVisible();
});
