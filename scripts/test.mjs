// Everything that must hold: types, lint, walls, units, the server against PostgreSQL, the browser. Ends with one line
// over all of it.
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { needBuild, needDebian, needPackages, root, say } from './setup.mjs';
import { TSC, TYPED } from './types.mjs';

const total = { passed: 0, failed: 0, skipped: 0 };
const temporary = path.join(root, '.tmp');

function add(what, counts) {
  total.passed += counts.passed;
  total.failed += counts.failed;
  total.skipped += counts.skipped;
  say(
    `${counts.failed === 0 ? 'ok    ' : 'FAILED'} ${what}: ${counts.passed} passed, ${counts.failed} failed, ${counts.skipped} skipped`,
  );
}

/** A whole check that passes or fails as one. */
function one(what, file, args) {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, [file, ...args], { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] });
    const said = [];
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (bytes) => said.push(bytes));
    child.on('close', (code) => {
      if (code !== 0) process.stdout.write(`${Buffer.concat(said)}\n`);
      add(what, code === 0 ? { passed: 1, failed: 0, skipped: 0 } : { passed: 0, failed: 1, skipped: 0 });
      resolve();
    });
  });
}

/** Two checks at a time, as there are two cores. */
async function each(checks) {
  const left = [...checks];
  const worker = async () => {
    for (let next = left.shift(); next !== undefined; next = left.shift()) await one(...next);
  };
  await Promise.all([worker(), worker()]);
}

function run(args, env) {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, args, {
      cwd: root,
      env: { ...process.env, ...env },
      stdio: ['ignore', 'inherit', 'inherit'],
    });
    child.on('exit', (code) => resolve(code ?? 1));
  });
}

async function main() {
  const started = Date.now();
  needDebian('postgresql', 'chromium', 'curl', 'jq');
  needPackages();
  needBuild();
  say(`Set up after ${Math.round((Date.now() - started) / 1000)} s.\n`);
  rmSync(temporary, { recursive: true, force: true });
  mkdirSync(temporary, { recursive: true });
  await each([
    ...TYPED.map((project) => [`types of ${project}`, TSC, ['-p', project]]),
    ['lint and format', 'node_modules/@biomejs/biome/bin/biome', ['check', '--diagnostic-level=warn', '.']],
    [
      'walls',
      'node_modules/dependency-cruiser/bin/dependency-cruise.mjs',
      ['--config', '.dependency-cruiser.cjs', 'packages'],
    ],
    ['nothing unused', 'node_modules/knip/bin/knip.js', ['--no-progress', '--no-config-hints']],
  ]);

  const { startCluster } = await import('./postgres.mjs');
  const cluster = await startCluster(path.join(root, '.data/test-postgres'), { throwaway: true });
  try {
    const database = cluster.url('postgres');
    await run(
      [
        '--experimental-vm-modules',
        '--no-warnings',
        'node_modules/jest/bin/jest.js',
        '-c',
        'jest.config.mjs',
        '--json',
        '--outputFile=.tmp/jest.json',
      ],
      { NESTING_TEST_DATABASE: database },
    );
    add('units, disk, command line and server', jestCounts());
    await run(['node_modules/@playwright/test/cli.js', 'test'], { NESTING_TEST_DATABASE: database });
    add('browser', playwrightCounts());
  } finally {
    cluster.stop();
  }
  say(`\n${Math.round((Date.now() - started) / 1000)} s in all.`);
  say(`${total.passed} passed, ${total.failed} failed, ${total.skipped} skipped`);
  process.exitCode = total.failed > 0 || total.passed === 0 ? 1 : 0;
}

/** A runner that wrote no report has failed, whatever it printed. */
function report(file) {
  const at = path.join(temporary, file);
  return existsSync(at) ? JSON.parse(readFileSync(at, 'utf8')) : null;
}

function jestCounts() {
  const jest = report('jest.json');
  if (jest === null) return { passed: 0, failed: 1, skipped: 0 };
  // A file that does not even load has no failed test, and is one.
  const broken = jest.testResults.filter(
    (file) => file.status === 'failed' && file.assertionResults.every((a) => a.status !== 'failed'),
  ).length;
  return {
    passed: jest.numPassedTests,
    failed: jest.numFailedTests + broken,
    skipped: jest.numPendingTests + jest.numTodoTests,
  };
}

function playwrightCounts() {
  const stats = report('playwright.json')?.stats;
  if (stats === undefined) return { passed: 0, failed: 1, skipped: 0 };
  return { passed: stats.expected + stats.flaky, failed: stats.unexpected, skipped: stats.skipped };
}

main().catch((error) => {
  process.stderr.write(`${error.stack ?? error}\n`);
  say(`${total.passed} passed, ${total.failed + 1} failed, ${total.skipped} skipped`);
  process.exitCode = 1;
});
