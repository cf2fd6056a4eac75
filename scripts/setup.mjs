// Whatever a fresh Debian machine lacks: its packages (as root), npm's packages, the build. Plain Node.js, for it runs
// before any package is there.
import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));

export function say(line) {
  process.stdout.write(`${line}\n`);
}

/** Debian packages by what shows that they are there. */
const DEBIAN = {
  postgresql: () => existsSync('/usr/lib/postgresql'),
  chromium: () => existsSync('/usr/bin/chromium'),
  // For the examples of docs/api.md.
  curl: () => existsSync('/usr/bin/curl'),
  jq: () => existsSync('/usr/bin/jq'),
};

export function needDebian(...names) {
  const lacking = names.filter((name) => !DEBIAN[name]());
  if (lacking.length === 0) return;
  if (process.getuid?.() !== 0) {
    throw new Error(
      `these packages are missing; install them as root: apt-get install -y --no-install-recommends ${lacking.join(' ')}`,
    );
  }
  say(`Installing ${lacking.join(' and ')} from Debian…`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  // The distribution's own cluster is neither wanted nor touched: ours is private.
  mkdirSync('/etc/postgresql-common', { recursive: true });
  if (lacking.includes('postgresql') && !existsSync('/etc/postgresql-common/createcluster.conf'))
    writeFileSync('/etc/postgresql-common/createcluster.conf', 'create_main_cluster = false\n');
  for (const args of [
    ['update', '-qq'],
    ['install', '-y', '-qq', '--no-install-recommends', ...lacking],
  ]) {
    const run = spawnSync('apt-get', args, { env, stdio: ['ignore', 'ignore', 'inherit'] });
    if (run.status !== 0) throw new Error(`apt-get ${args[0]} failed; install these packages: ${lacking.join(' ')}`);
  }
}

export function needPackages() {
  const lock = path.join(root, 'package-lock.json');
  const done = path.join(root, 'node_modules/.package-lock.json');
  if (
    existsSync(done) &&
    statSync(done).mtimeMs >= statSync(lock).mtimeMs - 1000 &&
    existsSync(path.join(root, 'node_modules/hono'))
  )
    return;
  say('Installing npm packages…');
  const run = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  if (run.status !== 0) throw new Error('npm ci failed');
}

/** Builds when a source is newer than the last build. */
export function needBuild() {
  const stamp = path.join(root, 'dist/.built');
  const built = existsSync(stamp) ? Number(readFileSync(stamp, 'utf8')) : 0;
  const newest = Math.max(
    ...['packages', 'demo', 'scripts/build.mjs', 'package-lock.json'].map((p) => newestIn(path.join(root, p))),
  );
  if (built >= newest) return;
  say('Building…');
  execFileSync(process.execPath, [path.join(root, 'scripts/build.mjs')], { cwd: root, stdio: 'inherit' });
  writeFileSync(stamp, String(Date.now()));
}

function newestIn(file) {
  const stats = statSync(file);
  if (!stats.isDirectory()) return stats.mtimeMs;
  const inside = readdirSync(file).filter((name) => name !== 'node_modules' && name !== 'dist');
  return Math.max(stats.mtimeMs, ...inside.map((name) => newestIn(path.join(file, name))));
}

/** For programs that only need to be there and built: what hinders them is one line, and they end. */
export function beReady() {
  try {
    needPackages();
    needBuild();
  } catch (error) {
    process.stderr.write(`nesting: ${error.message}\n`);
    process.exit(1);
  }
}
