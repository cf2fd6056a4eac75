/**
 * The worker thread of a check: walks and judges the folders it is given, or looks into their files, and hands back
 * what it finds too much for itself.
 */

import { parentPort } from 'node:worker_threads';
import { present } from '@nesting/core';
import { Checker } from '@nesting/core/check';
import { join } from '@nesting/core/listing';
import { ProjectRules } from '@nesting/core/project';
import { FactsReader } from '../file-facts';
import { listFolder, type Unseen } from '../walk';
import type { FromWorker, ToWorker } from './worker-pool';

/** Folders walked before the rest is handed back to be shared. */
const SLICE = 1500;

const port = parentPort;
if (port === null) throw new Error('check-worker runs as a worker thread only');

let rules: ProjectRules | null = null;
let checker: Checker | null = null;
let reader: FactsReader | null = null;
let begun: Extract<ToWorker, { kind: 'begin' }> | null = null;
let unseen: Unseen[] = [];
const say = (message: FromWorker) => port.postMessage(message);
const note = (u: Unseen) => unseen.push(u);

port.on('message', (message: ToWorker) => {
  switch (message.kind) {
    case 'begin':
      begun = message;
      rules = new ProjectRules(message.input);
      if (message.request === undefined) checker = new Checker(rules);
      else
        reader = new FactsReader(
          { root: message.root, mounts: message.mounts },
          rules,
          { ...message.request, known: new Map(message.request.known.map((k) => [k.path, k])) },
          note,
        );
      return say({ kind: 'idle', files: 0, folders: 0, rest: [] });
    case 'folders':
      return work(message.paths);
    case 'take':
      say({ kind: 'part', part: checker?.part() ?? null, facts: reader?.facts ?? [], unseen });
      unseen = [];
      if (checker !== null && rules !== null) checker = new Checker(rules);
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
  while (queue.length > 0 && folders < SLICE) {
    const listing = listFolder(begun.root, present(queue.pop()), note, begun.mounts);
    if (listing === null) continue;
    reader?.folder(listing);
    checker?.folder(listing);
    folders++;
    files += listing.files.length;
    if (reader !== null) continue;
    for (const name of listing.folders) (begun.shallow ? rest : queue).push(join(listing.path, name));
  }
  say({ kind: 'idle', files, folders, rest: [...rest, ...queue] });
}
