// npm run bench load: how long the first request of every page takes while a start, a batch, a check and a plan run on
// the same server, against the same server at rest. Rounds of both in turn; who asks is a process of its own.
import { fork } from 'node:child_process';
import { fileURLToPath } from 'node:url';

const ROUNDS = 5;
const ASKS = 120;
/** Surfaces of a facade show: a hundred scenes on each make 301 folders. */
const SURFACES = 170;

const median = (all) => [...all].sort((a, b) => a - b)[Math.floor(all.length / 2)];
const me = fileURLToPath(import.meta.url);
const sleep = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** QAAA, QAAB, and so on: none is a banned word. */
const letters = (i) => `Q${[676, 26, 1].map((by) => String.fromCharCode(65 + (Math.floor(i / by) % 26))).join('')}`;
const names = (entries) => Array.from({ length: entries }, (_, i) => letters(i));

async function signIn(base) {
  const { people } = await (await fetch(`${base}/api/entrance`)).json();
  const { initials } = people.find((p) => p.role === 'coordinator');
  const headers = { origin: base, 'content-type': 'application/json' };
  const signed = await fetch(`${base}/api/demo/sign-in`, {
    method: 'POST',
    headers,
    body: JSON.stringify({ initials }),
  });
  headers.cookie = signed.headers.get('set-cookie').split(';')[0];
  return async (method, address, body) => {
    const response = await fetch(`${base}${address}`, { method, headers, body: body && JSON.stringify(body) });
    if (!response.ok) throw new Error(`${method} ${address}: ${response.status} ${await response.text()}`);
    return response.json();
  };
}

/** Each kind of work over and over, while it is told to. */
async function load(base) {
  const ask = await signIn(base);
  const templates = await ask('GET', '/api/templates');
  const editionOf = (template) => ({ template, edition: templates.find((t) => t.id === template).edition });
  let number = 90_000;
  const start = (template, values) => {
    const given = { number: String(++number), title: `Load ${number}`, client: 'MSW', ...values };
    return ask('POST', '/api/projects', { ...editionOf(template), volume: 'studio', values: given });
  };
  const plan = async ({ id }, more) => {
    const { version, values, template } = await ask('GET', `/api/projects/${id}`);
    const asked = { version, ...editionOf(template.id), values: { ...values, ...more, title: 'Other' } };
    return { asked, plan: await ask('POST', `/api/projects/${id}/plan`, asked) };
  };
  const large = await start('window-piece', { windows: names(1000) });
  const show = await start('facade-show', { surfaces: names(2), scenes: 's01..s09' });
  const wish = { surfaces: names(SURFACES), scenes: 's00..s99' };
  const works = [
    () => start('window-piece', { windows: names(500) }),
    () => plan(show, wish),
    async () => {
      const made = await start('window-piece', { windows: names(50) });
      const { asked, plan: planned } = await plan(made, { windows: names(700) });
      await ask('POST', `/api/projects/${made.id}/batches`, { ...asked, fingerprint: planned.fingerprint });
    },
    async () => {
      await ask('POST', `/api/projects/${large.id}/checks`, {});
      for (let isOver = false; !isOver; ) {
        await sleep(100);
        const { newest } = await ask('GET', `/api/projects/${large.id}/checks`);
        isOver = newest.state !== 'running' && newest.state !== 'waiting';
      }
    },
  ];
  let isOn = false;
  process.on('message', async (message) => {
    isOn = message === 'on';
    if (!isOn) return;
    const rounds = works.map(async (work) => {
      let times = 0;
      for (; isOn; times++) await work();
      return times;
    });
    process.send({ done: await Promise.all(rounds) });
  });
  process.send({ lines: (await plan(show, wish)).plan.all });
}

/** Milliseconds of so many requests, one after another, as often as it is told. */
function entrance(base) {
  process.on('message', async () => {
    const times = [];
    for (let i = 0; i < ASKS; i++) {
      const begun = performance.now();
      await (await fetch(`${base}/api/entrance`)).text();
      times.push(performance.now() - begun);
    }
    process.send(times);
  });
}

async function compare({ port }) {
  const base = `http://127.0.0.1:${port}`;
  const [loader, asker] = ['load', 'entrance'].map((role) => fork(me, [role, base]));
  const said = (child) => new Promise((resolve) => child.once('message', resolve));
  const times = async () => {
    asker.send('go');
    return said(asker);
  };
  const { lines } = await said(loader);
  const [idle, busy] = [[], []];
  let done = [0, 0, 0, 0];
  await times();
  for (let round = 0; round < ROUNDS; round++) {
    idle.push(...(await times()));
    loader.send('on');
    // All four are under way by then.
    await sleep(500);
    busy.push(...(await times()));
    loader.send('off');
    const counts = (await said(loader)).done;
    done = done.map((n, i) => n + counts[i]);
  }
  for (const child of [loader, asker]) child.kill();
  const ratio = median(busy) / median(idle);
  const p95 = [...busy].sort((a, b) => a - b)[Math.floor(busy.length * 0.95)];
  const what = `/api/entrance beside a start, a batch, a check, a plan of ${lines} lines`;
  const figure = `${ratio.toFixed(2)} × at rest (${median(busy).toFixed(1)} ms; p95 ${p95.toFixed(0)} ms)`;
  const missed = ratio <= 1.5 ? '' : '   NOT MET';
  process.stdout.write(`${what.padEnd(58)} ${figure.padEnd(34)} aim: at most 1.5 ×${missed}\n`);
  const works = ['starts', 'plans', 'batches', 'checks'].map((work, i) => `${done[i]} ${work}`);
  process.stdout.write(`  meanwhile: ${works.join(', ')}\n`);
}

const [role, base] = process.argv.slice(2);
if (role === 'load') await load(base);
else if (role === 'entrance') entrance(base);
else {
  const { withBenchWorld } = await import('./bench-world.mjs');
  await withBenchWorld(compare);
}
