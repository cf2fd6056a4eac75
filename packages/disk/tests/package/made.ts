/** Projects on a real disk for tests of packages, and readers of packages that share nothing with what writes them. */
import { execFileSync, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, utimesSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { PackageKind } from '@nesting/core/package';
import { WHOLE_PROJECT } from '@nesting/core/planners';
import type { CheckInput } from '@nesting/core/project';
import { forgetLog, type PackTask, packProject } from '../../src/children/pack';
import type { PackProgress } from '../../src/package/pack';

export type Files = Readonly<Record<string, string | Uint8Array>>;

/** Seconds since 1970. */
export const THEN = Date.UTC(2026, 2, 6, 7, 8, 9) / 1000;

export function put(root: string, files: Files, written = THEN): void {
  for (const [at, content] of Object.entries(files)) {
    mkdirSync(path.dirname(path.join(root, at)), { recursive: true });
    writeFileSync(path.join(root, at), content);
    utimesSync(path.join(root, at), written, written);
  }
}

const RULES: CheckInput = {
  template: {
    format: 'nesting/template',
    formatVersion: 1,
    id: 'small',
    name: 'Small',
    fields: [],
    conventions: [{ id: 'cut', name: 'Cut', pattern: '{number}_{scene}_v{version:000}.{ext}' }],
    registers: {
      families: [
        { name: 'generated', extensions: ['cache'] },
        { name: 'moving image', extensions: ['mov'] },
      ],
    },
    root: {
      id: 'root',
      name: '{number}_show',
      folders: [
        { id: 'motion', name: 'motion', conventions: ['cut'] },
        { id: 'quotes', name: 'quotes', outsiders: false, free: true },
        { id: 'empty', name: 'empty' },
      ],
    },
  },
  values: { number: '26014' },
  registers: { clients: [], people: [], families: [], abbreviations: [], banned: [] },
};

export function taskFor(root: string, into: string, kind: PackageKind, more: Partial<PackTask> = {}): PackTask {
  return {
    where: { base: root, folder: '' },
    mounts: [],
    rules: RULES,
    selection: WHOLE_PROJECT,
    kind,
    roots: [root],
    ...{ must: [], mostLines: 1000 },
    target: { base: into, folder: '' },
    into: '',
    name: kind === 'bag' ? '26014_show' : '26014_show.zip',
    isSideBySide: false,
    project: '00000000-0000-4000-8000-000000000001',
    about: {
      ...{ number: '26014', title: 'Show', client: '', folder: '26014_show', recipient: '', note: '' },
      ...{ at: '2026-03-09T10:11:12.000Z', by: '' },
    },
    accepted: [],
    settings: {},
    mayLeaveOut: false,
    shown: null,
    ...more,
  };
}

/** As whoever asked and lived on. */
export async function packed(
  task: PackTask,
  { cancel = new AbortController().signal, tell = (_: PackProgress): void => undefined } = {},
) {
  const outcome = await packProject(task, { cancel, tell: async (progress) => tell(progress) });
  if (outcome.state === 'done') forgetLog({ where: task.target, into: task.into, name: task.name });
  return outcome;
}

/** Every file with its bytes and its second. */
export function treeOf(root: string): Readonly<Record<string, string>> {
  const out: Record<string, string> = {};
  for (const at of readdirSync(root, { recursive: true, encoding: 'utf8' })) {
    const entry = statSync(path.join(root, at));
    if (entry.isFile())
      out[at] = `${createHash('sha256')
        .update(readFileSync(path.join(root, at)))
        .digest('hex')} ${Math.floor(entry.mtimeMs / 1000)}`;
  }
  return out;
}

export const has = (program: string): boolean => spawnSync('which', [program]).status === 0;

export const run = (program: string, args: readonly string[], cwd: string): string =>
  execFileSync(program, args, { cwd, encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] });

/**
 * What RFC 8493 says a complete and valid bag is, written from it and from nothing of ours. Gives what is wrong.
 */
export function faultsOfBag(bag: string): string[] {
  const faults: string[] = [];
  const read = (at: string) => readFileSync(path.join(bag, at), 'utf8');
  if (!/^BagIt-Version: 1\.0\nTag-File-Character-Encoding: UTF-8\n$/.test(read('bagit.txt')))
    faults.push('declaration');
  if (!existsSync(path.join(bag, 'data'))) faults.push('no data');
  const hashIn = (at: string, algorithm: string) =>
    createHash(algorithm)
      .update(readFileSync(path.join(bag, at)))
      .digest('hex');
  const files = readdirSync(bag, { recursive: true, encoding: 'utf8' }).filter((at) =>
    statSync(path.join(bag, at)).isFile(),
  );
  const payload = files.filter((at) => at.startsWith('data/'));
  const lists = readdirSync(bag).filter((name) => /^(tag)?manifest-\w+\.txt$/.test(name));
  if (!lists.some((name) => name.startsWith('manifest-'))) faults.push('no manifest');
  for (const name of lists) {
    const algorithm = /-(\w+)\.txt$/.exec(name)?.[1] ?? '';
    const listed = new Set<string>();
    for (const line of read(name).split('\n').slice(0, -1)) {
      const [, hash = '', written = ''] = /^(\S+)\s+(.*)$/.exec(line) ?? [];
      const at = written.replaceAll('%0A', '\n').replaceAll('%0D', '\r').replaceAll('%25', '%');
      if (at.startsWith('data/') === name.startsWith('tag')) faults.push(`${name} lists ${at}`);
      if (listed.has(at)) faults.push(`${name} lists ${at} twice`);
      listed.add(at);
      if (!files.includes(at)) faults.push(`${at} is missing`);
      else if (hashIn(at, algorithm) !== hash) faults.push(`${at} is another`);
    }
    if (name.startsWith('manifest-')) for (const at of payload) if (!listed.has(at)) faults.push(`${at} is not listed`);
  }
  const oxum = /^Payload-Oxum: (\d+)\.(\d+)$/m.exec(read('bag-info.txt'));
  const bytes = payload.reduce((sum, at) => sum + statSync(path.join(bag, at)).size, 0);
  if (oxum !== null && (Number(oxum[1]) !== bytes || Number(oxum[2]) !== payload.length)) faults.push('oxum');
  return faults;
}
