/** Bytes that a kept listing takes in the database, indexes and all: frames as renderers write them, files as people do. */
import { randomUUID } from 'node:crypto';
import type { FileEntry, FolderListing } from '@nesting/core/listing';
import type pg from 'pg';
import { keptListing } from '../packages/disk/src/check/kept-listing';
import { storeListings } from '../packages/server/src/db/queries/checks/kept';
import { transaction } from '../packages/server/src/index';
import { line } from './measure';

/** The same numbers in every run (mulberry32). */
function numbers(seed: number): (below: number) => number {
  let state = seed;
  return (below) => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return Math.floor((((t ^ (t >>> 14)) >>> 0) / 2 ** 32) * below);
  };
}

const BEGINNING = Date.UTC(2026, 1, 2);
const FRAME_FOLDERS = 400;
const FRAMES = 250;
const FILE_FOLDERS = 5000;

/** Frames of some twelve megabytes, of which no two have the same size, half a minute to two minutes apart. */
function frames(): FolderListing[] {
  const any = numbers(1);
  return Array.from({ length: FRAME_FOLDERS }, (_, n) => {
    const shot = `s${String(n % 90).padStart(3, '0')}`;
    const name = `26014_surface-${n % 7}_${shot}_comp_v${String(n % 12).padStart(3, '0')}`;
    let at = BEGINNING + any(80 * 86_400_000);
    const files = Array.from({ length: FRAMES }, (_frame, i): FileEntry => {
      at += 30_000 + any(90_000);
      const size = 12_000_000 + any(900_000);
      return { name: `${name}.${String(i + 1001)}.exr`, size, modified: at };
    });
    const path = `40_motion/surface-${n % 7}/${shot}/renders/${name}_${n}`;
    return { path, folders: [], others: [], files, changed: at };
  });
}

/** Versions of a work with what lies beside them, sent pictures and papers, hours to days apart. */
function files(): FolderListing[] {
  const any = numbers(2);
  const endings = ['usda', 'png', 'txt', 'wav', 'pdf'];
  return Array.from({ length: FILE_FOLDERS }, (_, n) => {
    const shot = `s${String(n % 300).padStart(3, '0')}`;
    const task = ['anim', 'light', 'comp', 'sound'][any(4)] ?? '';
    let at = BEGINNING + any(80 * 86_400_000);
    const all = Array.from({ length: 4 + any(24) }, (_file, i): FileEntry => {
      at += 600_000 + any(2 * 86_400_000);
      const who = ['BO', 'LV', 'AP', 'QT'][any(4)] ?? '';
      const name =
        any(5) === 0
          ? `notes ${at % 9973} of ${who}.${endings[any(5)]}`
          : `26014_surface-${n % 40}_${shot}_${task}_${who}_v${String(i + 1).padStart(3, '0')}.${endings[any(5)]}`;
      return { name, size: any(5_000_000), modified: at };
    });
    const path = `40_motion/surface-${n % 40}/${shot}/working-${n}`;
    return { path, folders: [], others: [], files: all, changed: at };
  });
}

export async function benchListings(db: pg.Pool): Promise<void> {
  await bytesOf(db, 'a frame', frames(), 12);
  await bytesOf(db, 'a file', files(), 40);
}

class Undone extends Error {}

async function bytesOf(db: pg.Pool, what: string, listings: readonly FolderListing[], aim: number): Promise<void> {
  const count = listings.reduce((n, l) => n + l.files.length, 0);
  const kept = listings.map(keptListing);
  const packed = kept.reduce((n, l) => n + l.body.length, 0);
  let whole = 0;
  await transaction(db, async (client) => {
    const project = randomUUID();
    // A table like it, which no project's row must hold together.
    await client.query('create temp table folder_count (project_id uuid, path text) on commit drop');
    await client.query('insert into folder_count select $1, unnest($2::text[])', [project, kept.map((l) => l.path)]);
    await client.query('create temp table kept_listing (like public.kept_listing including all) on commit drop');
    await storeListings(client, project, kept);
    whole = Number(
      (await client.query<{ size: string }>("select pg_total_relation_size('pg_temp.kept_listing') size")).rows[0]
        ?.size ?? 0,
    );
    throw new Undone();
  }).catch((error: unknown) => {
    if (!(error instanceof Undone)) throw error;
  });
  line(
    `a kept listing, ${count} of ${listings.length} folders`,
    `${(whole / count).toFixed(1)} bytes ${what} (${(packed / count).toFixed(1)} packed)`,
    `at most ${aim}`,
    whole / count <= aim,
  );
}
