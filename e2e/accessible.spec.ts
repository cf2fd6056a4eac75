/** No view has an accessibility fault that axe knows, in either look. */
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, test } from './demo';

/** In the second look only what hangs on colours is looked at again. */
async function faults(page: Page, colours = false): Promise<string[]> {
  const builder = new AxeBuilder({ page });
  const { violations } = await (colours
    ? builder.withRules(['color-contrast', 'link-in-text-block'])
    : builder
  ).analyze();
  return violations.map(
    (v) =>
      `${v.id}: ${v.nodes
        .map((n) => n.target.join(' '))
        .slice(0, 3)
        .join(' | ')}`,
  );
}

test('the sign-in page', async ({ page, demo }) => {
  await page.goto(demo.address);
  await page.getByText('Look round').waitFor();
  expect(await faults(page)).toEqual([]);
});

for (const look of ['Light look', 'Night bench']) {
  test(`every view in the ${look.toLowerCase()}`, async ({ as }) => {
    // Thirty views, each looked at whole.
    test.setTimeout(400_000);
    const night = look === 'Night bench';
    const page = await as('Ines Thorvald');
    await page.getByRole('button', { name: /look and signing out/ }).click();
    await page.getByRole('menuitem', { name: look }).click();
    await expect(page.locator('[role=menu]')).toHaveCount(0);
    await page.getByRole('row').nth(2).waitFor();
    expect(await faults(page, night)).toEqual([]);
    for (const address of [
      '/templates',
      '/templates/facade-show?line=renders',
      '/templates/facade-show/edit?sample=yes&line=surface',
      '/templates/facade-show/edit?field=surfaces',
      '/templates/derive',
      '/templates/take-in',
      '/blocks',
      '/blocks/paperwork?line=permits',
      '/registers/clients?entry=QHT',
      '/registers/people',
      '/registers/numbers',
      '/registers/volumes',
      '/registers/outbox',
      '/activity',
      '/checks',
      '/checks/people?person=BO',
      '/checks/exceptions',
      '/checks/mine',
      '/me',
      '/start/several',
      '/start/adopt?volume=archive',
      '/start?template=facade-show',
      '/conventions',
      '/conventions/working-file-facade-show?part=3&as=26014&names=26014_west-front_s03_animation_BO_v4.usda',
      '/conventions/learn',
      '/names?project=26014&save=working-file&in=05_motion/west-front/s03/working&name=26014_west-front_s3_anim_BO_v4.usda',
    ]) {
      await page.goto(address);
      await page.getByRole('heading', { level: 1 }).waitFor();
      expect([address, ...(await faults(page, night))]).toEqual([address]);
    }
    await page.goto('/projects');
    await page.getByRole('link', { name: 'Harbour Lights' }).click();
    await page.getByRole('option').first().waitFor();
    expect(await faults(page, night)).toEqual([]);
    await page.getByRole('tab', { name: 'Folders' }).click();
    await page.getByRole('treeitem').first().waitFor();
    expect(await faults(page, night)).toEqual([]);
    await page.getByRole('tab', { name: 'Map' }).click();
    await page.getByRole('combobox', { name: 'How large a tray is drawn' }).waitFor();
    expect(await faults(page, night)).toEqual([]);
    await page.getByRole('tab', { name: 'Sheet' }).click();
    await page.getByRole('region', { name: 'First day' }).waitFor();
    expect(await faults(page, night)).toEqual([]);
    await page.keyboard.press('Control+k');
    await page.getByRole('option').first().waitFor();
    expect(await faults(page, night)).toEqual([]);
  });
}
