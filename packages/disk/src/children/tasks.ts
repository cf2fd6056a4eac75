/** What a process that works on disks can be asked: plain functions of plain data, and the kind of work each is. */

import { planCarry } from './carry';
import {
  addTo,
  applyBatch,
  freeKept,
  hasBegun,
  journalPage,
  keptBy,
  planUndo,
  renameFolder,
  settleBatch,
  start,
  sweepBatches,
  sweepStart,
  takeUpVolume,
  unadd,
  unstart,
} from './changes';
import { check } from './check';
import { compareFolders } from './compare';
import type { Context } from './context';
import { dueIn } from './due';
import { freeOriginal } from './free-original';
import { copiesOfHeap } from './heap-copies';
import { planIntake, readLoose } from './intake';
import {
  bytesOfFile,
  folder,
  hasChanged,
  marker,
  namesInEach,
  pathsThere,
  pieceOfFile,
  reach,
  volumeState,
} from './looks';
import { mentions, oldPlaces } from './mentions';
import { openZip } from './open-zip';
import { dropPart, forgetLog, packProject, planPack } from './pack';
import {
  compareReturned,
  contentsOfPackage,
  lookAtPackage,
  stretchOfFile,
  unpackPackage,
  verifyFiles,
} from './packages';
import { arrived, dropArrived, endArriving, makeHeap, takePiece } from './receive';
import { planRepair } from './repair';
import { ownChanges, plannedKeys, planReshape } from './reshape';
import { foldersBelow, markersBelow, namesBelow, sizesBelow } from './walks';

export type Kind = 'look' | 'walk' | 'batch' | 'check';

const look = <R>(run: R) => ({ kind: 'look' as const, run });
const walk = <R>(run: R) => ({ kind: 'walk' as const, run });
const batch = <R>(run: R) => ({ kind: 'batch' as const, run });

export const TASKS = {
  volumeState: look(volumeState),
  reach: look(reach),
  marker: look(marker),
  pathsThere: look(pathsThere),
  namesInEach: look(namesInEach),
  folder: look(folder),
  bytesOfFile: walk(bytesOfFile),
  makeHeap: look(makeHeap),
  arrived: walk(arrived),
  takePiece: walk(takePiece),
  endArriving: batch(endArriving),
  dropArrived: walk(dropArrived),
  stretchOfFile: look(stretchOfFile),
  pieceOfFile: walk(pieceOfFile),
  hasChanged: look(hasChanged),
  hasBegun: look(hasBegun),
  planUndo: walk(planUndo),
  journalPage: walk(journalPage),
  keptBy: walk(keptBy),
  namesBelow: walk(namesBelow),
  foldersBelow: walk(foldersBelow),
  sizesBelow: walk(sizesBelow),
  markersBelow: walk(markersBelow),
  planReshape: walk(planReshape),
  planRepair: walk(planRepair),
  planCarry: walk(planCarry),
  readLoose: walk(readLoose),
  planIntake: walk(planIntake),
  copiesOfHeap: walk(copiesOfHeap),
  compareFolders: walk(compareFolders),
  planPack: walk(planPack),
  contentsOfPackage: walk(contentsOfPackage),
  dueIn: look(dueIn),
  mentions: walk(mentions),
  oldPlaces: walk(oldPlaces),
  ownChanges: walk(ownChanges),
  plannedKeys: walk(plannedKeys),
  applyBatch: batch(applyBatch),
  settleBatch: batch(settleBatch),
  sweepBatches: batch(sweepBatches),
  freeKept: batch(freeKept),
  start: batch(start),
  addTo: batch(addTo),
  unstart: batch(unstart),
  sweepStart: batch(sweepStart),
  unadd: batch(unadd),
  renameFolder: batch(renameFolder),
  takeUpVolume: batch(takeUpVolume),
  packProject: batch(packProject),
  dropPart: batch(dropPart),
  forgetLog: batch(forgetLog),
  verifyFiles: batch(verifyFiles),
  lookAtPackage: batch(lookAtPackage),
  compareReturned: batch(compareReturned),
  freeOriginal: batch(freeOriginal),
  unpackPackage: batch(unpackPackage),
  openZip: batch(openZip),
  check: { kind: 'check' as const, run: check },
} as const;

export type TaskName = keyof typeof TASKS;
type Run<K extends TaskName> = (typeof TASKS)[K]['run'];
export type TaskInput<K extends TaskName> = Parameters<Run<K>>[0];
export type TaskOutput<K extends TaskName> = Awaited<ReturnType<Run<K>>>;
export type TaskTold<K extends TaskName> = Parameters<Run<K>> extends [unknown, Context<infer Told>] ? Told : never;
