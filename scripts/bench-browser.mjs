// npm run bench browser [address of a running demo]: pages first shown on a cold cache; and 100,000 pasted names are
// read in a worker; the gaps between frames meanwhile, beside those of the page at rest.
import { chromium } from '@playwright/test';

const address = process.argv[2] ?? 'http://127.0.0.1:4310';
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: address });
await page.goto('/');
await page.getByRole('button', { name: /Ines/ }).click();
await page.getByRole('navigation').waitFor();
const median = (all) => all.toSorted((a, b) => a - b)[Math.floor(all.length / 2)];

/**
 * What stands on a page once it can be worked with; from the address being asked for until the frame after that, each
 * time in a browser that has nothing kept.
 */
const PAGES = {
  '/projects': '[role=rowgroup] [role=row]',
  '/templates': 'main a[href^="/templates/"]',
  '/start': 'main input',
  '/registers/clients': '[role=rowgroup] [role=row]',
  '/activity': '[role=rowgroup] [role=row]',
  '/conventions': 'main a[href^="/conventions/"]',
  '/names': 'main textarea, main input',
};
const cookies = await page.context().cookies();
const shown = {};
for (let round = 0; round < 8; round++) {
  for (const [at, selector] of Object.entries(PAGES)) {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL: address });
    await context.addCookies(cookies);
    const fresh = await context.newPage();
    await fresh.addInitScript((wanted) => {
      const look = () =>
        document.querySelector(wanted)
          ? requestAnimationFrame(() =>
              setTimeout(() => {
                globalThis.shown = performance.now();
              }),
            )
          : requestAnimationFrame(look);
      requestAnimationFrame(look);
    }, selector);
    await fresh.goto(at);
    await fresh.waitForFunction(() => globalThis.shown !== undefined);
    const took = await fresh.evaluate(() => globalThis.shown);
    if (round > 0) shown[at] = [...(shown[at] ?? []), took];
    await context.close();
  }
}
for (const [at, all] of Object.entries(shown))
  console.log(
    `${`${at} first shown, nothing in the cache`.padEnd(58)} ${`${median(all).toFixed(0)} ms`.padEnd(34)} aim: under 1500 ms${median(all) < 1500 ? '' : '   NOT MET'}`,
  );

const runs = { rest: [], paste: [] };
for (let round = 0; round < 6; round++) {
  for (const kind of ['rest', 'paste']) {
    await page.goto('/conventions/render');
    await page.getByText('No name can be misread').waitFor();
    const result = await page.evaluate(async (paste) => {
      const names = Array.from({ length: 100_000 }, (_, i) =>
        i % 10 === 0
          ? `holiday ${i}.jpg`
          : `26014_west-front_s${String(1 + (i % 60)).padStart(2, '0')}_comp_v003.${String(1 + (i % 9000)).padStart(4, '0')}.exr`,
      ).join('\n');
      const data = new DataTransfer();
      data.setData('text/plain', names);
      const gaps = [];
      let last = performance.now();
      const start = last;
      let done = false;
      if (paste)
        document
          .querySelector('textarea[placeholder^="Type or paste"]')
          .dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
      while (!done) {
        await new Promise((resolve) => requestAnimationFrame(resolve));
        const now = performance.now();
        gaps.push(now - last);
        last = now;
        // FileFacts for in the one place it stands in: reading the whole page's text would itself drop frames.
        const said = document.querySelector('[aria-label="Trying names"] [role=status]')?.textContent ?? '';
        done = paste ? /90.000 of 100.000/.test(said) || now - start > 20_000 : now - start > 1000;
      }
      return {
        longest: Math.max(...gaps),
        late: gaps.filter((g) => g > 34).length,
        frames: gaps.length,
        took: last - start,
      };
    }, kind === 'paste');
    if (round > 0) runs[kind].push(result);
  }
}
for (const kind of ['rest', 'paste']) {
  const of = (key) => median(runs[kind].map((r) => r[key]));
  console.log(
    `${(kind === 'rest' ? 'the page at rest, one second' : 'while 100,000 pasted names are read').padEnd(58)} ${`longest gap ${of('longest').toFixed(0)} ms, ${of('late')} of ${of('frames')} frames late, ${of('took').toFixed(0)} ms in all`}   aim: no frame dropped (34 ms)`,
  );
}
await browser.close();
