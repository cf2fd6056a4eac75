// Pictures of the main views in docs/screenshots, from a demo that is running at the address given.
import { mkdirSync } from 'node:fs';
import { chromium } from '@playwright/test';

const [address = 'http://127.0.0.1:4310', folder = 'docs/screenshots', ...only] = process.argv.slice(2);
mkdirSync(folder, { recursive: true });
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'] });

async function open({ night = false, width = 1280, height = 800 } = {}) {
  const context = await browser.newContext({ viewport: { width, height }, baseURL: address, locale: 'en-GB' });
  if (night) await context.addInitScript(() => localStorage.setItem('nesting-look', 'night'));
  const page = await context.newPage();
  page.on('console', (message) => message.type() === 'error' && console.log('console:', message.text()));
  page.on('pageerror', (error) => console.log('page error:', error.message));
  return page;
}

async function signIn(page, name) {
  await page.goto('/');
  await page.getByRole('button', { name: new RegExp(name) }).click();
  await page.getByRole('navigation').waitFor();
}

async function settle(page) {
  await page.waitForLoadState('networkidle');
  await page.evaluate(() => document.fonts.ready);
}

const VIEWS = {
  'sign-in': async () => {
    const page = await open();
    await page.goto('/');
    await page.getByText('Look round').waitFor();
    return page;
  },
  templates: async () => {
    const page = await open();
    await signIn(page, 'Ines');
    await page.getByRole('link', { name: 'Templates' }).click();
    return page;
  },
  template: async () => {
    const page = await open();
    await signIn(page, 'Ines');
    await page.goto('/templates/facade-show?line=renders');
    return page;
  },
  conventions: async () => {
    const page = await open();
    await signIn(page, 'Ines');
    await page.goto(`/conventions?as=26014&names=${encodeURIComponent(['26014_clock-tower_s01_comp_LV_v012.usda', '26014_west-front_s03_animation_BO_final_v4.usda', 'West Front 26014 s02 comp AP V3.usda', '26014_west-front_s05_light_XX_v001.usda', '26014_crane-7_s06_layout_v002_BO.usda'].join('\n'))}`);
    await page.getByText('No name can be misread').waitFor();
    return page;
  },
  start: async (options) => {
    const page = await open(options);
    await signIn(page, 'Ines');
    await page.goto('/start?template=facade-show');
    await page.getByLabel('Title').fill('Lantern Quay');
    await page.getByLabel('Client').click();
    await page.getByPlaceholder('Name or code').fill('quill');
    await page.keyboard.press('Enter');
    await page.getByLabel('Opens').fill('2027-03-12');
    await page.getByLabel('Surfaces').fill('west-front, clock-tower, crane-7');
    await page.getByLabel('Scenes').fill('s01..s06');
    await page.getByLabel('Projectors').fill('A..D');
    await page.getByRole('radio', { name: 'spoken' }).click();
    await page.getByLabel('Languages').fill('en, nl');
    await page.getByRole('treeitem', { name: /renders/ }).first().click();
    return page;
  },
  projects: async () => {
    const page = await open();
    await signIn(page, 'Ines');
    return page;
  },
  findings: async (options) => {
    const page = await open(options);
    await signIn(page, 'Ines');
    await page.getByRole('link', { name: 'Harbour Lights' }).click();
    await page.getByRole('option', { name: /animation/ }).click();
    return page;
  },
  folders: async () => {
    const page = await open();
    await signIn(page, 'Ines');
    await page.getByRole('link', { name: 'Harbour Lights' }).click();
    await page.getByRole('tab', { name: 'Folders' }).click();
    await page.getByRole('treeitem', { name: /working/ }).first().click();
    return page;
  },
  'start-night': () => VIEWS.start({ night: true }),
  'findings-night': () => VIEWS.findings({ night: true }),
  'start-narrow': () => VIEWS.start({ width: 900, height: 700 }),
};

for (const [name, view] of Object.entries(VIEWS)) {
  if (only.length > 0 ? !only.includes(name) : name.endsWith('narrow')) continue;
  const page = await view();
  await settle(page);
  await page.screenshot({ path: `${folder}/${name}.png` });
  await page.context().close();
  console.log(`${folder}/${name}.png`);
}
await browser.close();
