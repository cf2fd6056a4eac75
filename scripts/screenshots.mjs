// Pictures of the main views in docs/screenshots, from a demo that is running at the address given.
import { mkdirSync } from 'node:fs';
import { chromium } from '@playwright/test';

const [address = 'http://127.0.0.1:4310', folder = 'docs/screenshots', ...only] = process.argv.slice(2);
mkdirSync(folder, { recursive: true });
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
});

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

const idOf = async (page, number) =>
  (await (await page.request.get(`/api/projects?find=${number}`)).json()).rows.find((p) => p.number === number).id;

async function settle(page) {
  await page.waitForLoadState('networkidle');
  await page.evaluate(() => document.fonts.ready);
}

const VIEWS = {
  pack: async () => {
    const page = await open();
    await signIn(page, 'Ines');
    await page.goto(`/projects/${await idOf(page, '26014')}/pack`);
    await page
      .getByRole('option', { name: /not for outsiders/ })
      .first()
      .click();
    return page;
  },
  map: async () => {
    const page = await open();
    await signIn(page, 'Ines');
    await page.goto(`/projects/${await idOf(page, '26014')}?view=map`);
    await page.getByRole('img', { name: /by what is in it/ }).waitFor();
    return page;
  },
  checks: async () => {
    const page = await open();
    await signIn(page, 'Maud');
    await page.goto('/checks');
    await page
      .getByRole('img', { name: /Findings over time/ })
      .locator('svg')
      .first()
      .waitFor();
    return page;
  },
  'put-right': async () => {
    const page = await open();
    await signIn(page, 'Ines');
    await page.goto(`/projects/${await idOf(page, '26014')}/repair`);
    await page
      .getByRole('option', { name: /name is taken/ })
      .first()
      .click();
    await page.getByRole('button', { name: 'Give it a free name' }).waitFor();
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
  'template-editor': async () => {
    const page = await open();
    await signIn(page, 'Ines');
    await page.goto('/templates/facade-show/edit?sample=yes&line=surface');
    await page.getByText(/the sample makes/).waitFor();
    return page;
  },
  'side-by-side': async () => {
    const page = await open();
    await signIn(page, 'Ines');
    await page.goto(`/compare?left=${await idOf(page, '26011')}&right=${await idOf(page, '26014')}`);
    await page.getByRole('listbox', { name: 'What differs' }).getByRole('option').first().waitFor();
    return page;
  },
  change: async () => {
    const page = await open();
    await signIn(page, 'Ines');
    await page.goto(`/projects/${await idOf(page, '26014')}/change?add=stands:lantern-boat`);
    await page.getByLabel('Title').fill('Harbour Nights');
    await page.getByText(/calls its folder 26014_QHT_harbour-nights/).waitFor();
    await page.getByRole('option').nth(2).click();
    return page;
  },
  batches: async () => {
    const page = await open();
    await signIn(page, 'Ines');
    // One batch at least: whatever another run left is shown as well.
    await page.goto(`/projects/${await idOf(page, '26011')}/change`);
    await page.getByRole('button', { name: /to Scenes/ }).click();
    await page.getByRole('button', { name: /to Test nights/ }).click();
    await page.getByRole('option').nth(3).waitFor();
    await page.getByRole('button', { name: 'Carry it out' }).click();
    await page.getByRole('listbox', { name: 'Lines of this change' }).waitFor();
    return page;
  },
  adopt: async () => {
    const page = await open();
    await signIn(page, 'Ines');
    await page.goto('/start/adopt?volume=archive');
    await page.getByRole('button', { name: '26008_SAK_candle-nave', exact: true }).click();
    await page.getByText(/folders? fit/).waitFor();
    return page;
  },
  registers: async () => {
    const page = await open();
    await signIn(page, 'Ines');
    await page.goto('/registers/clients');
    await page.getByRole('row', { name: /^QHT / }).click();
    return page;
  },
  convention: async (options) => {
    const page = await open(options);
    await signIn(page, 'Ines');
    await page.goto(
      `/conventions/working-file-facade-show?part=3&as=26014&names=${encodeURIComponent(['26014_clock-tower_s01_comp_LV_v012.usda', '26014_west-front_s03_animation_BO_final_v4.usda', 'West Front 26014 s02 comp AP V3.usda', '26014_west-front_s05_light_XX_v001.usda'].join('\n'))}`,
    );
    await page.getByText('No name can be misread').waitFor();
    return page;
  },
  names: async (options) => {
    const page = await open(options);
    await signIn(page, 'Bram');
    await page.goto(
      '/names?project=26014&save=working-file&in=40_motion%2Fwest-front%2Fs03%2Fworking&v.task=anim&name=26014_Clock%20Tower_s2_comp_bo_final_v7.usda',
    );
    await page.getByRole('button', { name: 'Give me the name' }).click();
    await page.getByText('Yours until').waitFor();
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
    await page.getByLabel('Stands').fill('pier, mill-roof, quay-crane');
    await page.getByRole('radio', { name: 'spoken' }).click();
    await page.getByLabel('Languages').fill('en, nl');
    await page
      .getByRole('treeitem', { name: /renders/ })
      .first()
      .click();
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
    await page.goto(`/projects/${await idOf(page, '26014')}?view=findings&group=folder&weight=must`);
    await page.getByRole('option', { name: /animation/ }).click();
    return page;
  },
  'convention-draft': async (options) => {
    const page = await VIEWS.convention(options);
    await page
      .getByRole('textbox', { name: 'The pattern' })
      .fill('{number}_{surface}_{scene}_{task}_v{version:00}.{ext}');
    await page.getByText('will break the rule').waitFor();
    return page;
  },
  'carry-over': async () => {
    const page = await open();
    await signIn(page, 'Ines');
    await page.goto(`/projects/${await idOf(page, '26014')}/carry?view=files&in=40_motion/clock-tower`);
    await page.getByText(/copies .* files/).waitFor();
    await page
      .getByRole('option', { name: /comp_v003/ })
      .first()
      .click();
    await page.getByText('Next', { exact: true }).waitFor();
    return page;
  },
  intake: async () => {
    const page = await open();
    await signIn(page, 'Ines');
    await page.goto(`/projects/${await idOf(page, '26014')}/intake?volume=arrivals&folder=downloads`);
    await page.getByText(/copies .* files/).waitFor();
    await page.getByRole('option', { name: /IMG_2208/ }).click();
    await page.getByRole('img', { name: 'IMG_2208.JPG' }).waitFor();
    return page;
  },
  'start-narrow': () => VIEWS.start({ width: 900, height: 700 }),
};

for (const [name, view] of Object.entries(VIEWS)) {
  if (only.length > 0 ? !only.includes(name) : name.endsWith('narrow') || name === 'convention-draft') continue;
  const page = await view();
  await settle(page);
  await page.screenshot({ path: `${folder}/${name}.png` });
  await page.context().close();
  console.log(`${folder}/${name}.png`);
}
await browser.close();
