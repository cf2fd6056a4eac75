// Files of a computer sent through the browser, against curl into a bare route that pipes to a file. Against a running demo: node scripts/bench-sending.mjs [ADDRESS]
import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { chromium } from '@playwright/test';

const PIECE = 8 * 2 ** 20;
const SIZE = 32 * PIECE;
const ROUNDS = 3;
const address = process.argv[2] ?? 'http://127.0.0.1:4310';
const home = mkdtempSync(path.join(tmpdir(), 'nesting-sending-'));
const file = path.join(home, 'film.mov');
writeFileSync(file, Buffer.alloc(SIZE, 7));

// The rival stands in a thread of its own, as a server would.
const bare = new Worker(
  `const http = require('node:http'), fs = require('node:fs'), { pipeline } = require('node:stream/promises');
   const { parentPort, workerData } = require('node:worker_threads');
   http.createServer(async (q, s) => { await pipeline(q, fs.createWriteStream(workerData)); s.end(); })
     .listen(0, '127.0.0.1', function () { parentPort.postMessage(this.address().port); });`,
  { eval: true, workerData: path.join(home, 'bare.bin') },
);
const port = await new Promise((resolve) => bare.once('message', resolve));

const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] });
const page = await browser.newPage({ baseURL: address });
await page.goto('/');
await page.getByRole('button', { name: /Ines/ }).click();
await page.getByRole('navigation').first().waitFor();
await page.goto('/intake');

async function throughBrowser() {
  const from = page.getByRole('region', { name: 'From this computer' });
  await from.getByLabel('What it is').fill(`bench ${randomUUID()}`);
  const start = performance.now();
  await from.getByLabel('Files of this computer').setInputFiles(file);
  await from.getByText('all of it is there').waitFor({ timeout: 300_000 });
  const ms = performance.now() - start;
  await from.getByRole('button', { name: 'Send more' }).click();
  return ms;
}

function byCurl() {
  const start = performance.now();
  spawnSync('curl', ['-s', '-T', file, `http://127.0.0.1:${port}/`]);
  return performance.now() - start;
}

const median = (all) => all.toSorted((a, b) => a - b)[Math.floor(all.length / 2)];
const rate = (ms) => `${(SIZE / 1e3 / ms).toFixed(0)} MB/s`;
const [ours, theirs] = [[], []];
for (let round = 0; round <= ROUNDS; round++) {
  const mine = await throughBrowser();
  const his = byCurl();
  if (round > 0) ours.push(mine) && theirs.push(his);
}
const part = median(theirs) / median(ours);
process.stdout.write(
  `256 MB sent through the browser, read back and proved        ${(part * 100).toFixed(0)} % of curl into a bare route (${rate(median(ours))}, ${rate(median(theirs))})   aim: at least 60 %${part >= 0.6 ? '' : '   NOT MET'}\n`,
);
await browser.close();
await bare.terminate();
rmSync(home, { recursive: true });
