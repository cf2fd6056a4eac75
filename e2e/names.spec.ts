/** Conventions written, learned and put in force; names asked for by two people; a hundred thousand names pasted. */
import { mkdirSync, readdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { Page } from '@playwright/test';
import { expect, test } from './demo';

const pattern = (page: Page) => page.getByRole('textbox', { name: 'The pattern' });
const WORKING = '/conventions/working-file-facade-show';

test('a convention is edited by text, by dragging and by its parts; the draft survives; the proof is cured; it comes into force', async ({
  as,
}) => {
  const page = await as('Ines Thorvald');
  await page.getByRole('link', { name: 'Conventions', exact: true }).click();
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Facade show' })
    .getByRole('link', { name: 'Working file' })
    .click();
  const before = '{number}_{surface:kebab}_{scene}_{task}_{person.initials}_v{version:000}.{ext}';
  await expect(pattern(page)).toHaveValue(before);
  await expect(page.getByText('No name can be misread.')).toBeVisible();

  // By keyboard: Space picks a part up, an arrow moves it, Space puts it down.
  const task = page.getByRole('button', { name: /^task, / });
  await task.focus();
  await page.keyboard.press('Space');
  await expect(page.getByText('task at place 4 of 7.')).toBeAttached();
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByText('task at place 3 of 7.')).toBeAttached();
  await page.keyboard.press('Space');
  await expect(pattern(page)).toHaveValue(
    '{number}_{surface:kebab}_{task}_{scene}_{person.initials}_v{version:000}.{ext}',
  );
  await page.getByRole('heading', { name: 'Parts it is made of' }).click();
  await page.keyboard.press('Control+z');
  await expect(pattern(page)).toHaveValue(before);
  await page.keyboard.press('Control+Shift+z');
  await page.keyboard.press('Control+z');

  // By text: an ambiguous one is shown by its example, and cured by a click.
  await pattern(page).fill('{number}_{surface}_{note}_v{version:000}.{ext}');
  await expect(page.getByText('Some names can be misread.')).toBeVisible();
  await page
    .getByRole('button', { name: /surface as kebab|note as kebab/ })
    .first()
    .click();
  await expect(page.getByText('No name can be misread.')).toBeVisible();
  await pattern(page).fill('{number}_{surface:kebab}_{scene}_{tas');
  await expect(page.getByText(/This brace is never closed/)).toBeVisible();
  await expect(page.getByRole('button', { name: /in force…/ })).toBeDisabled();

  // By its parts: the version with four digits.
  await pattern(page).fill(before);
  await page.getByRole('button', { name: /^version, / }).click();
  await page.getByRole('combobox', { name: 'Written' }).click();
  await page.getByRole('option', { name: '0007' }).click();
  await expect(pattern(page)).toHaveValue(before.replace('000', '0000'));
  await expect(page.getByLabel('If it is put in force')).toContainText('will break the rule');
  await expect(page.getByLabel('If it is put in force').locator('dd').nth(2)).not.toHaveText('0');

  // Names kept with it are run on every change.
  await page
    .getByLabel('Try names', { exact: true })
    .fill('26014_west-front_s03_anim_BO_v0004.usda\n26014_west-front_s03_anim_BO_v4.usda');
  await expect(page.getByText('1 of 2 names follow the rule.')).toBeVisible();
  await page.getByRole('button', { name: 'Keep 26014_west-front_s03_anim_BO_v0004.usda' }).click();
  await page.getByRole('menuitem', { name: 'Keep as a good name' }).click();
  await expect(page.getByLabel('Names kept with it')).toContainText('kept as good');
  await expect(page.getByText('Draft kept.')).toBeVisible();
  await page.reload();
  await expect(pattern(page)).toHaveValue(before.replace('000', '0000'));
  await expect(page.getByLabel('Names kept with it')).toContainText('26014_west-front_s03_anim_BO_v0004.usda');
  await pattern(page).fill(before);
  await expect(page.getByText('kept as good, and breaks the rule')).toBeVisible();
  await expect(page.getByRole('button', { name: /in force…/ })).toBeDisabled();
  await pattern(page).fill(before.replace('000', '0000'));
  await expect(page.getByText('Draft kept.')).toBeVisible();
  await page.getByRole('button', { name: 'Put edition 2 in force…' }).click();
  await page.getByRole('button', { name: 'Put edition 2 in force', exact: true }).click();
  await expect(page.getByText('Edition 2 is in force.')).toBeVisible();
  // A running project keeps what it was started with.
  await page.goto('/names?project=26014&save=working-file&in=40_motion/west-front/s01/working&v.task=anim');
  await expect(page.getByLabel('The name so far')).toContainText('···');
  await expect(page.getByLabel('The name so far')).not.toContainText('····');
});

test('who may not change conventions looks at them and tries names', async ({ as }) => {
  const page = await as('Bram Okonjo');
  await page.goto(`${WORKING}?names=${encodeURIComponent('26014_west-front_s03_animation_BO_v4.usda')}`);
  await expect(page.getByText('Only a coordinator changes conventions.')).toBeVisible();
  await expect(pattern(page)).toHaveAttribute('readonly');
  await expect(
    page
      .getByLabel('Names tried')
      .getByText(/26014_west-front_s03_/)
      .first(),
  ).toBeVisible();
  await expect(page.getByRole('button', { name: /in force/ })).toHaveCount(0);
});

test('a convention is learned from names and taken into the editor', async ({ as }) => {
  const page = await as('Ines Thorvald');
  await page.goto('/conventions/learn');
  const names = ['quay', 'reed-bank', 'lamp', 'mill'].flatMap((place, i) =>
    [1, 2, 3].map((take) => `202603${String(10 + i)}_${place}_t0${take}.wav`),
  );
  await page.getByLabel('Names, one a line').fill([...names, 'take 9 final.wav'].join('\n'));
  await expect(page.getByText('1 convention found')).toBeVisible();
  await expect(page.getByText('12 names of 13')).toBeVisible();
  await expect(page.getByLabel('Names that do not fit')).toContainText('take 9 final.wav');
  await page.getByLabel('Name of the convention').fill('Walk take');
  await page.getByRole('button', { name: 'Take it into the editor' }).click();
  await expect(page).toHaveURL(/\/conventions\/walk-take$/);
  await expect(pattern(page)).toHaveValue('{date:yyyyMMdd}_{title:kebab}_{take}.{ext}');
  await expect(page.getByLabel('Names kept with it').getByRole('listitem')).toHaveCount(5);
  await page.getByRole('button', { name: 'Discard the draft…' }).click();
  await page.getByRole('button', { name: 'Discard it', exact: true }).click();
  await expect(page).toHaveURL(/\/conventions$/);
  await expect(page.getByRole('link', { name: 'Walk take' })).toHaveCount(0);
});

test('two people who ask get two names; what is on the disk counts at that moment', async ({ as, demo }) => {
  const address = '/names?project=26014&save=working-file&in=40_motion/clock-tower/s02/working&v.task=comp&v.person=BO';
  const [artist, coordinator] = [await as('Bram Okonjo'), await as('Ines Thorvald')];
  const ask = async (page: Page) => {
    await page.goto(address);
    await page.getByRole('button', { name: 'Give me the name' }).click();
    return (await page.getByTestId('held-name').textContent()) ?? '';
  };
  const first = await ask(artist);
  expect(first).toMatch(/^26014_clock-tower_s02_comp_BO_v\d{3}\.usda$/);
  const second = await ask(coordinator);
  expect(second).not.toBe(first);
  expect(await ask(artist)).toBe(first);
  await artist.getByRole('button', { name: 'Copy the name' }).click();
  expect(await artist.evaluate(() => navigator.clipboard.readText())).toBe(first);
  await artist.getByRole('radio', { name: 'Windows' }).click();
  await artist.getByRole('button', { name: 'Copy the whole path' }).click();
  expect(await artist.evaluate(() => navigator.clipboard.readText())).toMatch(
    new RegExp(String.raw`^[A-Z]:.*\\26014_QHT_harbour-lights\\40_motion\\clock-tower\\s02\\working\\${first}$`),
  );

  const folder = path.join(demo.studio, '26014_QHT_harbour-lights/40_motion/clock-tower/s02/working');
  mkdirSync(folder, { recursive: true });
  writeFileSync(path.join(folder, first.replace(/v\d{3}/, 'v041')), '');
  await artist.getByRole('button', { name: 'Ask again' }).click();
  await expect(artist.getByTestId('held-name')).toHaveText(first.replace(/v\d{3}/, 'v042'));
  expect(readdirSync(folder).filter((n) => n.includes('v042'))).toEqual([]);

  await artist.getByLabel('A name you have').fill('26014_Clock Tower_s2_comp_bo_final_v7.usda');
  await expect(artist.getByRole('region', { name: 'A name that is there already' })).toContainText('it belongs in');
  await artist.setViewportSize({ width: 390, height: 844 });
  await expect(artist.getByTestId('held-name')).toBeVisible();
  expect(await artist.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});

test('a hundred thousand pasted names are read beside the page', async ({ as }) => {
  const page = await as('Ines Thorvald');
  await page.goto('/conventions/render');
  await pattern(page).waitFor();
  await page.evaluate(() => {
    const names = Array.from({ length: 100_000 }, (_, i) =>
      i % 10 === 0
        ? `holiday ${i}.jpg`
        : `26014_west-front_s${String(1 + (i % 60)).padStart(2, '0')}_comp_v003.${String(1 + (i % 9000)).padStart(4, '0')}.exr`,
    );
    const data = new DataTransfer();
    data.setData('text/plain', names.join('\n'));
    document
      .querySelector('textarea[placeholder^="Type or paste"]')
      ?.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  });
  await expect(page.getByText('90,000 of 100,000 names follow the rule.')).toBeVisible();
  await page.getByRole('radio', { name: 'that break it' }).click();
  await expect(page.getByLabel('Names tried').getByRole('listitem').first()).toContainText('holiday');
  await page.getByRole('button', { name: 'Put them aside' }).click();
  await expect(page.getByLabel('Try names', { exact: true })).toHaveValue('');
});

test('two people in one convention: mine is kept until I have seen theirs', async ({ as }) => {
  const [mine, theirs] = [await as('Ines Thorvald'), await as('Ines Thorvald')];
  for (const page of [mine, theirs]) {
    await page.goto('/conventions/board');
    await pattern(page).waitFor();
  }
  await pattern(theirs).fill('{number}_{what}_{subject:kebab}_v{version:00}.{ext}');
  await expect(theirs.getByText('Draft kept.')).toBeVisible();
  await mine.getByLabel('Convention', { exact: true }).fill('Board, mine');
  await expect(mine.getByText(/Somebody else has changed this draft/)).toBeVisible();
  await mine.getByRole('button', { name: 'See the other version' }).click();
  await expect(mine.getByText(/the pattern .*version:00\}/)).toBeVisible();
  await mine.getByRole('button', { name: 'Take theirs' }).click();
  await expect(pattern(mine)).toHaveValue('{number}_{what}_{subject:kebab}_v{version:00}.{ext}');
  await expect(mine.getByText('Draft kept.')).toBeVisible();
});
