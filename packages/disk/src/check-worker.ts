/**
 * The worker thread of a check: walks and judges the folders it is given, or looks into their files, and hands back
 * what it finds too much for itself.
 */
import { parentPort } from 'node:worker_threads';
import { Checker, CheckGround, join } from '@nesting/core';
import { Looker } from './looked';
import type { FromWorker, ToWorker } from './sharing';
import { listFolder, type Unseen } from './walk';

/** Folders walked before the rest is handed back to be shared. */
const STINT = 1500;

const port = parentPort;
if (port === null) throw new Error('check-worker runs as a worker thread only');

let ground: CheckGround | null = null;
let checker: Checker | null = null;
let looker: Looker | null = null;
let begun: Extract<ToWorker, { kind: 'begin' }> | null = null;
let unseen: Unseen[] = [];
const say = (message: FromWorker) => port.postMessage(message);
const note = (u: Unseen) => unseen.push(u);

port.on('message', (message: ToWorker) => {
  switch (message.kind) {
    case 'begin':
      begun = message;
      ground = new CheckGround(message.input);
      if (message.looking === undefined) checker = new Checker(ground);
      else
        looker = new Looker(
          { root: message.root, mounts: message.mounts },
          ground,
          { ...message.looking, known: new Map(message.looking.known.map((k) => [k.path, k])) },
          note,
        );
      return say({ kind: 'hungry', files: 0, folders: 0, rest: [] });
    case 'folders':
      return work(message.paths);
    case 'take':
      say({ kind: 'part', part: checker?.part() ?? null, looked: looker?.looked ?? [], unseen });
      unseen = [];
      if (checker !== null && ground !== null) checker = new Checker(ground);
      // It ends by itself: nobody need wait for that.
      if (message.last) port.close();
      return;
  }
});

function work(paths: readonly string[]): void {
  if (begun === null) return;
  const queue = [...paths];
  const rest: string[] = [];
  let folders = 0;
  let files = 0;
  while (queue.length > 0 && folders < STINT) {
    const listing = listFolder(begun.root, queue.pop() as string, note, begun.mounts);
    if (listing === null) continue;
    looker?.folder(listing);
    checker?.folder(listing);
    folders++;
    files += listing.files.length;
    if (looker !== null) continue;
    for (const name of listing.folders) (begun.shallow ? rest : queue).push(join(listing.path, name));
  }
  say({ kind: 'hungry', files, folders, rest: [...rest, ...queue] });
}
