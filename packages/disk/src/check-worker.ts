/** The worker thread of a check: walks and judges the folders it is given, and hands back what it finds too much for itself. */
import { parentPort } from 'node:worker_threads';
import { Checker, CheckGround, join } from '@nesting/core';
import type { FromWorker, ToWorker } from './check';
import { listFolder, type Unseen } from './walk';

/** Folders walked before the rest is handed back to be shared. */
const STINT = 1500;

const port = parentPort;
if (port === null) throw new Error('check-worker runs as a worker thread only');

let checker: Checker | null = null;
let root = '';
const unseen: Unseen[] = [];
const say = (message: FromWorker) => port.postMessage(message);

port.on('message', (message: ToWorker) => {
  if (message.kind === 'begin') {
    root = message.root;
    checker = new Checker(new CheckGround(message.input));
    return say({ kind: 'hungry', files: 0, folders: 0, rest: [] });
  }
  if (checker === null) return;
  if (message.kind === 'end') {
    say({ kind: 'part', part: checker.part(), unseen });
    // It ends by itself: nobody need wait for that.
    port.close();
    return;
  }
  const queue = [...message.paths];
  let folders = 0;
  let files = 0;
  while (queue.length > 0 && folders < STINT) {
    const listing = listFolder(root, queue.pop() as string, (u) => unseen.push(u));
    if (listing === null) continue;
    checker.folder(listing);
    folders++;
    files += listing.files.length;
    for (const name of listing.folders) queue.push(join(listing.path, name));
  }
  say({ kind: 'hungry', files, folders, rest: queue });
});
