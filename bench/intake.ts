/**
 * npm run bench intake: a hundred thousand loose files routed, the facts of media read by our threads and by a bare loop
 * of as many, and the copying itself is that of `carry`.
 */
import { mkdtempSync, openSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { HOME } from '@nesting/core/change';
import { readName } from '@nesting/core/name';
import { intake, type LooseFile, PLAIN_PAIRING } from '@nesting/core/planners';
import { ProjectRules } from '@nesting/core/project';
import { TASKS } from '@nesting/disk';
import { PROJECTS, REGISTERS } from '../corpus/intake/projects';
import { clip, photo, recording } from '../demo/media';
import { interleave, line, median } from './measure';

const input = { ...PROJECTS.show, registers: REGISTERS, now: Date.parse('2026-05-15T09:00:00Z') };
const FILES = 100_000;

/** Photographs, sound and frames, as they come back from people. */
function looseFiles(): LooseFile[] {
  return Array.from({ length: FILES }, (_, i) => {
    const n = String(i).padStart(6, '0');
    const at = { size: 1000 + i, modified: Date.parse('2026-03-05T09:00:00Z') };
    switch (i % 4) {
      case 0:
        return { ...at, path: `pier/IMG_${n}.JPG`, facts: { taken: '2026-03-02T21:00:00', has: 'still' as const } };
      case 1:
        return { ...at, path: `26014_west-front_s04_comp_v002.${n}.exr`, facts: {} };
      case 2:
        return { ...at, path: `sound/speech nl s0${(i % 6) + 1} v${i}.wav`, facts: {} };
      default:
        return { ...at, path: `mill roof/2026-03-04 ${n}.jpg`, facts: {} };
    }
  });
}

function routing(): void {
  const files = looseFiles();
  const rules = new ProjectRules(input);
  const conventions = input.template.conventions.flatMap(({ id }) => {
    const folder = rules.expansion.lines.find((l) => l.kind === 'folder' && l.rules.conventions?.includes(id));
    return folder === undefined ? [] : rules.conventionsIn(folder).filter((c) => c.convention.id === id);
  });
  const given = {
    ...{ input, files, sourceName: 'heap', placed: {}, pairing: PLAIN_PAIRING, isMove: false, root: HOME },
    ...{ there: () => [], sameAs: () => null, fileAt: () => null, referrers: () => 0 },
  };
  const times = interleave(
    [
      {
        name: 'names',
        run: () => {
          for (const { path: at } of files)
            for (const { strict } of conventions) readName(strict, at.slice(at.lastIndexOf('/') + 1));
          return undefined;
        },
      },
      { name: 'route', run: () => void intake(given) },
    ],
    3,
  );
  const ratio = times.route / times.names;
  line(`routing ${FILES} files`, `${ratio.toFixed(1)} × their names (${times.route.toFixed(0)} ms)`, '≤ 3', ratio <= 3);
}

/** As many threads as ours, asked one after the other with no more around it. */
async function bareLoop(folder: string, names: readonly string[]): Promise<number> {
  const script = new URL('./media-worker.js', import.meta.url);
  const start = performance.now();
  const workers = [0, 1].map(() => new Worker(script));
  await Promise.all(
    workers.map(async (worker, w) => {
      for (let i = w; i < names.length; i += workers.length) {
        const at = path.join(folder, names[i] ?? '');
        const fd = openSync(at, 'r');
        const answer = new Promise((resolve) => worker.once('message', resolve));
        worker.postMessage({ id: i, fd, size: statSync(at).size });
        await answer;
      }
      await worker.terminate();
    }),
  );
  return performance.now() - start;
}

async function facts(): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), 'nesting-bench-'));
  try {
    const made = { at: '2026-03-02T21:14:03', device: 'Quernway 4' };
    const samples = [photo(made, 1), clip(made, 12, 2), recording(made, 7, 3)];
    for (let i = 0; i < 2000; i++) writeFileSync(path.join(folder, `${i}.x`), samples[i % 3] ?? '');
    const names = readdirSync(folder);
    const ours: number[] = [];
    const bare: number[] = [];
    for (let round = 0; round < 4; round++) {
      const start = performance.now();
      await TASKS.readLoose.run(
        {
          where: { base: folder, folder: '' },
          known: [],
          into: { base: tmpdir(), folder: path.basename(folder) },
          mounts: [],
        },
        { cancel: { aborted: false }, tell: async () => undefined },
      );
      ours.push(performance.now() - start);
      bare.push(await bareLoop(folder, names));
    }
    const ratio = median(ours.slice(1)) / median(bare.slice(1));
    line(
      'facts of 2000 media files',
      `${ratio.toFixed(2)} × a bare loop (${median(ours.slice(1)).toFixed(0)} ms)`,
      '≤ 1.2',
      ratio <= 1.2,
    );
  } finally {
    rmSync(folder, { recursive: true });
  }
}

export async function benchIntake(): Promise<void> {
  routing();
  await facts();
}
