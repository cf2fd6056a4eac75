/** No view has an accessibility fault that axe knows, in either look. */
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, test } from './demo';

test.describe.configure({ mode: 'parallel' });

/** There are no frames: the page is looked at where it is, which takes a third of the time. */
async function faults(page: Page, rules: readonly string[] = []): Promise<string[]> {
  const builder = new AxeBuilder({ page }).setLegacyMode(true).options({ resultTypes: ['violations'] });
  const { violations } = await (rules.length > 0 ? builder.withRules([...rules]) : builder).analyze();
  return violations.map(
    (v) =>
      `${v.id}: ${v.nodes
        .map((n) => n.target.join(' '))
        .slice(0, 3)
        .join(' | ')}`,
  );
}

/** In the second look only what hangs on colours is another. */
async function faultsInBothLooks(page: Page): Promise<string[]> {
  const light = await faults(page);
  await page.evaluate(() => {
    document.documentElement.dataset.look = 'night';
  });
  const night = await faults(page, ['color-contrast', 'link-in-text-block']);
  await page.evaluate(() => {
    document.documentElement.dataset.look = 'light';
  });
  return [...light, ...night.map((fault) => `by night ${fault}`)];
}

const VIEWS = [
  '/projects',
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
  '/registers/marks',
  '/registers/numbers',
  '/registers/volumes',
  '/registers/outbox',
  '/activity',
  '/intake',
  '/checks',
  '/checks/people?person=BO',
  '/checks/exceptions',
  '/checks/set-aside',
  '/checks/proposals',
  '/checks/mine',
  '/me',
  '/start/several',
  '/start/adopt?volume=archive',
  '/start?template=facade-show',
  '/conventions',
  '/conventions/working-file-facade-show?part=3&as=26014&names=26014_west-front_s03_animation_BO_v4.usda',
  '/conventions/learn',
  '/names?project=26014&save=working-file&in=40_motion/west-front/s03/working&name=26014_west-front_s3_anim_BO_v4.usda',
];

test('the sign-in page', async ({ page, demo }) => {
  await page.goto(demo.address);
  await page.getByText('Look round').waitFor();
  expect(await faultsInBothLooks(page)).toEqual([]);
});

for (const half of [0, 1])
  test(`every view, part ${half + 1}`, async ({ as }) => {
    const page = await as('Ines Thorvald');
    for (const address of VIEWS.filter((_, i) => i % 2 === half)) {
      await page.goto(address);
      await page.getByRole('heading', { level: 1 }).waitFor();
      expect([address, ...(await faultsInBothLooks(page))]).toEqual([address]);
    }
  });

test('the look that was chosen is kept', async ({ as }) => {
  const page = await as('Ines Thorvald');
  const look = () => page.evaluate(() => document.documentElement.dataset.look);
  for (const [words, is] of [
    ['Night bench', 'night'],
    ['Light look', 'light'],
  ] as const) {
    await page.getByRole('button', { name: /look and signing out/ }).click();
    await page.getByRole('menuitem', { name: words }).click();
    await expect(page.locator('[role=menu]')).toHaveCount(0);
    await page.reload();
    expect(await look()).toBe(is);
  }
});

test('a project in each of its views, and what is found by a few letters', async ({ as }) => {
  const page = await as('Ines Thorvald');
  await page.getByRole('link', { name: 'Harbour Lights' }).click();
  for (const [tab, shown] of [
    ['Findings', page.getByRole('option').first()],
    ['Folders', page.getByRole('treeitem').first()],
    ['Map', page.getByRole('combobox', { name: 'How large a tray is drawn' })],
    ['Sheet', page.getByRole('region', { name: 'First day' })],
  ] as const) {
    await page.getByRole('tab', { name: tab }).click();
    await shown.waitFor();
    expect([tab, ...(await faultsInBothLooks(page))]).toEqual([tab]);
  }
  await page.keyboard.press('Control+k');
  await page.getByRole('option').first().waitFor();
  expect(await faultsInBothLooks(page)).toEqual([]);
  await page.keyboard.press('Escape');
  const project = page.url().split('?')[0];
  for (const view of ['folders', 'files', 'references']) {
    await page.goto(`${project}/carry?view=${view}`);
    await page.getByText(/copies .* files/).waitFor();
    expect([view, ...(await faultsInBothLooks(page))]).toEqual([view]);
  }
  await page.goto(`${project}/repair`);
  await page
    .getByRole('option', { name: /name is taken/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Give it a free name' }).waitFor();
  expect(await faultsInBothLooks(page)).toEqual([]);
});
