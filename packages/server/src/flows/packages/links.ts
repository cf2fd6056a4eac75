/**
 * Links that open one package. The secret stands behind the hash sign, so that no server on the way sees it; what the
 * file is fetched by is made of it and of the word, and opens nothing else.
 */
import { createHash, randomBytes, randomUUID, timingSafeEqual } from 'node:crypto';
import type { Me, Sent } from '@nesting/contract';
import { countAttempt } from '../../db/queries/people/access';
import {
  endPackageLink,
  insertPackageLink,
  linkByHash,
  listPackages,
  packageByPass,
  readPackageJob,
} from '../../db/queries/projects/packages';
import { untilAskerLeaves } from '../../request-context';
import { hashOf } from '../people/access';
import { projectWhere } from '../place';
import { Refused, type World } from '../world';

/** Tries of a word in an hour. */
const MOST_TRIES = 20;
const MOST_DAYS = 366;
const DAY = 86_400_000;

/** What the file is fetched by. */
const passOf = (secret: string, word: string): string =>
  createHash('sha256').update(`${secret} ${word}`).digest('base64url');

export async function sendPackage(
  world: World,
  me: Me,
  id: string,
  { until, word }: { readonly until: string; readonly word: string | null },
): Promise<{ readonly link: string }> {
  const job = await readPackageJob(world.db, id);
  if (job === null) throw new Refused('no-package');
  if (job.state !== 'done') throw new Refused('package-not-done');
  if (job.asked.kind === 'bag') throw new Refused('package-is-folder');
  const end = Date.parse(until) + DAY;
  if (end <= Date.now() || end > Date.now() + MOST_DAYS * DAY) throw new Refused('day-past');
  const secret = randomBytes(24).toString('base64url');
  await insertPackageLink(world.db, {
    ...{ id: randomUUID(), packageId: id, person: me.id, until, hash: hashOf(secret) },
    passHash: hashOf(passOf(secret, word ?? '')),
    wordHash: word === null ? null : wordHashOf(secret, word),
  });
  return { link: `${world.config.publicUrl}/sent#${secret}` };
}

/** With the link's own secret in it, which the database does not know: it cannot be guessed from there. */
const wordHashOf = (secret: string, word: string): string => hashOf(`word ${secret} ${word}`);

export async function revokeLink(world: World, id: string, link: string): Promise<void> {
  if (!(await endPackageLink(world.db, id, link))) throw new Refused('no-link');
}

export async function openSent(
  world: World,
  { secret, word }: { readonly secret: string; readonly word: string },
): Promise<Sent> {
  const link = await linkByHash(world.db, hashOf(secret));
  if (link === null) throw new Refused('no-link');
  const said = link.wordHash === null ? '' : word;
  if (link.wordHash !== null && !(await isWord(world, link.wordHash, secret, word))) throw new Refused('word-wrong');
  const [row] = await listPackages(world.db, { id: link.packageId });
  if (row === undefined || row.size === null || row.sha256 === null) throw new Refused('no-link');
  const { path, size, sha256, files, by, recipient, note, at } = row;
  return {
    ...{ name: path.split('/').at(-1) ?? '', size, sha256, files, from: by, recipient, note, at },
    until: link.until.toISOString(),
    download: `/api/sent/${passOf(secret, said)}/file`,
  };
}

async function isWord(world: World, hash: string, secret: string, word: string): Promise<boolean> {
  if ((await countAttempt(world.db, `sent:${hashOf(secret)}`, 60)) > MOST_TRIES) throw new Refused('too-many-tries');
  return timingSafeEqual(Buffer.from(hash), Buffer.from(wordHashOf(secret, word)));
}

/** Bytes that are handed over at once. */
const AT_ONCE = 1 << 20;

export interface SentFile {
  readonly name: string;
  readonly size: number;
  /** Bytes from one place to before another. */
  bytes(from: number, to: number): ReadableStream<Uint8Array>;
}

/** @param isBegun - from its first byte: so it is counted */
export async function sentFile(world: World, pass: string, isBegun: boolean): Promise<SentFile> {
  const found = await packageByPass(world.db, hashOf(pass), isBegun);
  if (found === null) throw new Refused('no-link');
  const { volume, folder, name, size } = found;
  const where = await projectWhere(world, { volume, folder: '' });
  const path = folder === '' ? name : `${folder}/${name}`;
  const asking = untilAskerLeaves();
  return {
    name,
    size,
    bytes: (from, to) => {
      let at = from;
      return new ReadableStream<Uint8Array>({
        pull: async (controller) => {
          if (at >= to) return controller.close();
          const task = { where, path, from: at, to: Math.min(to, at + AT_ONCE) };
          const bytes = await world.disks.run('stretchOfFile', task, asking);
          if (bytes.length === 0) return controller.error(new Error('the file is shorter than it was'));
          at += bytes.length;
          controller.enqueue(bytes);
        },
      });
    },
  };
}
