/** The remedy that a rule declares → the ways there are for one finding of it, surest first. */
import { RULE_BY_CODE } from '../../check/registry';
import type { Choice, Remedy } from '../../check/rule';
import { assertNever } from '../../result';
import {
  anotherName,
  apartNames,
  knownCodes,
  nextVersions,
  ownNumber,
  portableName,
  properNames,
} from './name-options';
import { toNeighbour } from './neighbour';
import { bestFirst, type Option, type RepairCase } from './option';
import {
  asPlanned,
  cleared,
  contentsHome,
  emptied,
  keepOne,
  licenceNote,
  madeAgain,
  replacing,
  toDocument,
  toGenerated,
  toOlder,
  toPlannedFolder,
  toTakers,
} from './place-options';
import { pointed } from './reference-options';

export function optionsOf(c: RepairCase): readonly Option[] {
  const remedy = RULE_BY_CODE.get(c.finding.rule)?.remedy;
  return remedy === undefined ? [] : bestFirst(optionsBy(remedy, c));
}

function optionsBy(remedy: Remedy, c: RepairCase): readonly Option[] {
  switch (remedy.act) {
    case 'make':
      return c.finding.rule === 'licence-missing' ? licenceNote(c) : madeAgain(c);
    case 'rename':
      return remedy.to === 'meant' ? toPlannedFolder(c) : renamed(c);
    case 'move':
      return moved(remedy.to, c);
    case 'replace':
      return replacing(c);
    case 'point-to-file':
      return pointed(c);
    case 'set-aside':
      return emptied(c);
    case 'accept':
      return [ACCEPT];
    case 'choose':
      return remedy.among.flatMap((choice) => chosen(choice, c));
    case 'none':
      return [];
    default:
      return assertNever(remedy);
  }
}

/** It stays as it is, and does not count any more: nothing on a disk. */
const ACCEPT: Option = { key: 'accept:', way: 'accept', confidence: 'guess', to: null, value: null, acts: [] };

function renamed(c: RepairCase): Option[] {
  switch (c.finding.rule) {
    case 'unportable-name':
      return portableName(c);
    case 'name-clash':
      return apartNames(c);
    default:
      return properNames(c);
  }
}

function moved(to: Extract<Remedy, { act: 'move' }>['to'], c: RepairCase): Option[] {
  switch (to) {
    case 'home':
      return c.finding.rule === 'misplaced-folder' ? toPlannedFolder(c) : toTakers(c);
    case 'taker':
      return toTakers(c);
    case 'older':
      return toOlder(c);
    case 'document':
      return toDocument(c);
    default:
      return assertNever(to);
  }
}

function chosen(choice: Choice, c: RepairCase): Option[] {
  switch (choice) {
    case 'planned-name':
      return asPlanned(c);
    case 'move-contents':
      return contentsHome(c);
    case 'keep-as-own':
      return [ACCEPT];
    case 'take-number':
      return ownNumber(c);
    case 'known-code':
      return knownCodes(c);
    case 'which-stays':
      return keepOne(c);
    case 'next-version':
      return nextVersions(c);
    case 'another-name':
    case 'shorter-names':
      return anotherName(c);
    case 'move':
      return toGenerated(c);
    case 'clear':
      return cleared(c);
    case 'move-to-project':
      return toNeighbour(c);
    // The house's lists are changed at their own page.
    case 'add-to-lists':
      return [];
    default:
      return assertNever(choice);
  }
}
