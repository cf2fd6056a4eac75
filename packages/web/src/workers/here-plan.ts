/** The plan of an intake on this computer: routes, names, and what the project's folder grows by first. */
import type { IntakePlan } from '@nesting/contract';
import { type Change, type Expected, orderChanges, rootIdOf } from '@nesting/core/change';
import { nameOf, parentOf } from '@nesting/core/listing';
import {
  type Growth,
  growingBy,
  type Intake,
  intake,
  intakeSummary,
  type Pairing,
  type Placed,
} from '@nesting/core/planners';
import { changesCsv, changesJson, changesText, pairsCsv, pairsOtio } from '@nesting/core/report';
import { placeWords } from '@nesting/core/words';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import type { LookedThrough } from '../browser-disk/look-through';
import type { Heap } from './loose-heap';
import type { MarkedFolder } from './marked-folder';

export interface HereFolders {
  readonly marked: MarkedFolder;
  readonly project: LookedThrough;
  readonly heap: Heap;
}

export interface SaidHere {
  readonly placed: Readonly<Record<string, Placed>>;
  readonly pairing: Pairing;
}

export interface ShownHere extends Growth {
  readonly fingerprint: string;
  readonly planned: Intake;
  /** The growth's included. */
  readonly all: readonly Change[];
}

/** What a batch knows the loose files by. */
const HEAP = rootIdOf('heap');
const MOST_LINES = 20_000;
const MOST_UNSEEN = 200;

export function planHere({ marked, project, heap }: HereFolders, { placed, pairing }: SaidHere): ShownHere {
  const input = { ...marked.input, now: Date.now() };
  const inFolder = (folder: string) => {
    const listing = project.listings.get(folder);
    return listing === undefined ? [] : [...listing.folders, ...listing.files.map((f) => f.name), ...listing.others];
  };
  const fileAt = (path: string): Expected | null => {
    const file = project.listings.get(parentOf(path))?.files.find(({ name }) => name === nameOf(path));
    return file === undefined ? null : { size: file.size, modified: file.modified };
  };
  const made = intake({
    ...{ input, files: heap.files, sourceName: heap.name, placed, pairing, isMove: false, root: HEAP },
    ...{ there: inFolder, fileAt, referrers: () => 0, sameAs: (path) => heap.same[path] ?? null },
  });
  const growth = growingBy(made.entries, input, {
    marker: marked.marker,
    textAt: (path) => marked.texts.get(path) ?? null,
    look: (path) => {
      if (project.listings.has(path)) return { kind: 'folder', size: 0, modified: 0 };
      const file = fileAt(path);
      return file === null ? null : { kind: 'file', ...file };
    },
    files: (folder) => project.listings.get(folder)?.files.map(({ name }) => name) ?? [],
  });
  const all = [...growth.changes, ...made.changes];
  const fingerprint = bytesToHex(sha256(new TextEncoder().encode(JSON.stringify(all))));
  return { ...growth, planned: made, all, fingerprint };
}

/** As the page shows it. */
export function toldHere(shown: ShownHere, { heap }: HereFolders): IntakePlan {
  const { orderFaults: _own, ...told } = intakeSummary(shown.planned, MOST_LINES);
  const refused = orderChanges(shown.all).faults.map(({ at }) => `${placeWords(at)} would be wanted twice.`);
  const unseen = heap.unseen.slice(0, MOST_UNSEEN).map((path) => ({ path, code: 'not given by the browser' }));
  return {
    ...told,
    ...{ made: shown.changes.length, free: null, double: null, readAt: new Date().toISOString() },
    ...{ unseen, isCut: heap.isCut, refused, fingerprint: shown.fingerprint },
  };
}

/** A file that is saved from the page. */
export interface SavedHere {
  readonly name: string;
  readonly type: string;
  readonly body: string;
}

export type HereForm = 'text' | 'csv' | 'json' | 'pairs' | 'otio';

export function printedHere({ planned, all }: ShownHere, name: string, as: HereForm): SavedHere {
  switch (as) {
    case 'text':
      return { name: `${name}-intake.txt`, type: 'text/plain', body: changesText(all) };
    case 'csv':
      return { name: `${name}-intake.csv`, type: 'text/csv', body: changesCsv(all) };
    case 'json':
      return { name: `${name}-intake.json`, type: 'application/json', body: changesJson(all) };
    case 'pairs':
      return { name: `${name}-pairs.csv`, type: 'text/csv', body: pairsCsv(planned.pairs) };
    case 'otio':
      return { name: `${name}-pairs.otio`, type: 'application/json', body: pairsOtio(planned.pairs, planned.items) };
  }
}
