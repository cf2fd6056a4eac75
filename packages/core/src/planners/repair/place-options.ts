/** Ways to the place where something belongs: files and folders that move, are put together, are set aside. */

import { distance } from 'fastest-levenshtein';
import { faultOfFile } from '../../check/file-fault';
import { join, nameOf, parentOf } from '../../listing/entry';
import { meaningOf } from '../../portable/meaning';
import type { PlannedLine } from '../../template/expansion';
import { routesOf } from '../intake/route';
import { noteFor } from '../pack/terms';
import { movedItem, namesOfItem, ownName } from './item';
import { inPlaceOf, lastingName } from './name-options';
import { type Act, factsOf, type Option, type RepairCase, textOf } from './option';

/** Planned folders that are offered in place of an unplanned one. */
const MOST_PLANNED = 5;

/** To the folder that its name, or its family, belongs to; several are a choice. */
export function toTakers(c: RepairCase): Option[] {
  const { file, rules, finding } = c;
  if (file === null) return [];
  return routesOf(rules, file, parentOf(finding.path)).flatMap(({ line, name, confidence }) =>
    moving(c, line.path, name, confidence),
  );
}

function moving(c: RepairCase, folder: string, name: string, confidence: Option['confidence']): Option[] {
  const acts = movedItem(c, folder, name);
  return acts === null
    ? []
    : [{ key: `move:${folder}`, way: 'move', confidence, to: join(folder, name), value: folder, acts }];
}

/** A folder to its planned place; where it is there already the two are put together. */
export function toPlannedFolder({ finding, rules, view }: RepairCase): Option[] {
  const home = textOf(finding, 'home');
  const line = rules.planned(home);
  if (line?.kind !== 'folder' || line.elsewhere !== undefined) return [];
  const isDoubled = finding.params.doubled === 1;
  const way = isDoubled ? 'move-up' : parentOf(finding.path) === parentOf(home) ? 'rename' : 'move';
  const acts: Act[] = [{ do: 'move', entry: 'folder', from: finding.path, to: line.path }];
  // Put together with what is there, only what is in order there is no surprise.
  const isJoined = view.list(line.path) !== null;
  const inside = isJoined ? (view.list(finding.path)?.files ?? []) : [];
  const confidence = inside.every((file) => faultOfFile(rules, line, file) === null) ? 'sure' : 'likely';
  const away: Option[] = isJoined
    ? [
        {
          key: 'set-aside:',
          way: 'set-aside',
          confidence: 'guess',
          to: null,
          value: null,
          acts: [{ do: 'set-aside', from: finding.path }],
        },
      ]
    : [];
  return [{ key: `${way}:`, way, confidence, to: line.path, value: null, acts }, ...away];
}

/** An unplanned folder as one of the planned ones beside it, nearest by its name. */
export function asPlanned(c: RepairCase): Option[] {
  const { finding, rules } = c;
  const parent = rules.planned(parentOf(finding.path));
  if (parent === undefined) return [];
  const name = meaningOf(nameOf(finding.path));
  const beside = rules.expansion.lines.filter(
    (l) => l.kind === 'folder' && l.parent === parent.key && l.elsewhere === undefined,
  );
  return beside
    .map((line) => ({ line, far: distance(meaningOf(line.name), name) }))
    .sort((a, b) => a.far - b.far || (a.line.name < b.line.name ? -1 : 1))
    .slice(0, MOST_PLANNED)
    .map(({ line }) => folderTo(c, line));
}

const folderTo = ({ finding }: RepairCase, line: PlannedLine): Option => ({
  key: `planned-name:${line.path}`,
  way: 'planned-name',
  confidence: 'guess',
  to: line.path,
  value: line.name,
  acts: [{ do: 'move', entry: 'folder', from: finding.path, to: line.path }],
});

/** What is in an unplanned folder, each to where it belongs; it goes itself where nothing stays in it. */
export function contentsHome(c: RepairCase): Option[] {
  const { finding, rules, view } = c;
  const home = rules.planned(textOf(finding, 'home'));
  const listing = view.list(finding.path);
  if (listing === null || listing.files.length === 0 || listing.folders.length > 0) return [];
  const acts = listing.files.flatMap((file): Act[] => {
    const [route] = routesOf(rules, file, finding.path);
    const line = route?.line ?? (home?.kind === 'folder' ? home : undefined);
    if (line === undefined) return [];
    return [
      { do: 'move', entry: 'file', from: join(finding.path, file.name), to: join(line.path, route?.name ?? file.name) },
    ];
  });
  if (acts.length === 0) return [];
  const isWhole = acts.length === listing.files.length && listing.others.length === 0;
  const gone: Act[] = isWhole ? [{ do: 'set-aside', from: finding.path }] : [];
  return [
    {
      key: 'move-contents:',
      way: 'move-contents',
      confidence: isWhole ? 'likely' : 'guess',
      to: null,
      value: null,
      acts: [...acts, ...gone],
    },
  ];
}

/** What a program made, to the folder for such, by the way it lay; what systems leave behind is cleared. */
export function toGenerated(c: RepairCase): Option[] {
  const { finding } = c;
  const home = textOf(finding, 'home');
  if (home === '' || isLitter(ownName(c))) return [];
  const folder = parentOf(finding.path) === '' ? home : join(home, parentOf(finding.path));
  return moving(c, folder, ownName(c), 'sure').map((o) => ({ ...o, key: 'move:', value: null }));
}

export function cleared(c: RepairCase): Option[] {
  const home = textOf(c.finding, 'home');
  const acts = setAside(c);
  const confidence = isLitter(ownName(c)) ? 'sure' : home === '' ? 'likely' : 'guess';
  return acts.length === 0 ? [] : [{ key: 'clear:', way: 'clear', confidence, to: null, value: null, acts }];
}

/** Systems leave such behind everywhere, and make them anew. */
const isLitter = (name: string): boolean => /^(?:\.DS_Store|Thumbs\.db|desktop\.ini|\._.*)$/.test(name);

export function emptied(c: RepairCase): Option[] {
  const acts = setAside(c);
  return acts.length === 0
    ? []
    : [{ key: 'set-aside:', way: 'set-aside', confidence: 'sure', to: null, value: null, acts }];
}

/** Of a sequence with empty frames those alone. */
const namesSaid = (c: RepairCase): readonly string[] =>
  c.finding.rule === 'empty-file' && c.file !== null
    ? [c.finding.path, ...c.finding.related].map(nameOf)
    : namesOfItem(c);

const setAside = (c: RepairCase): Act[] =>
  namesSaid(c).map((name) => ({ do: 'set-aside', from: join(parentOf(c.finding.path), name) }));

/** Superseded versions into the folder for them; of too many of them the oldest are set aside. */
export function toOlder(c: RepairCase): Option[] {
  const { finding, line, listing } = c;
  if (line === null || listing === null) return [];
  const names = new Set(listing.files.map((f) => f.name));
  const paths = [finding.path, ...finding.related].filter((path) => names.has(nameOf(path)));
  const older = line.folder?.older?.folder;
  if (typeof finding.params.keep === 'number')
    return [
      {
        key: 'set-aside:',
        way: 'set-aside',
        confidence: 'likely',
        to: null,
        value: null,
        acts: paths.map((from) => ({ do: 'set-aside', from })),
      },
    ];
  if (older === undefined || paths.length === 0) return [];
  const folder = join(line.path, older);
  const acts = paths.map((from): Act => ({ do: 'move', entry: 'file', from, to: join(folder, nameOf(from)) }));
  return [
    {
      key: 'to-older:',
      way: 'to-older',
      confidence: 'sure',
      to: join(folder, nameOf(finding.path)),
      value: null,
      acts,
    },
  ];
}

/** A side file to its document. */
export function toDocument(c: RepairCase): Option[] {
  return moving(c, textOf(c.finding, 'home'), ownName(c), 'sure');
}

/**
 * The newest takes the lasting name; what lies there goes to the folder for older ones, with its day, or is kept with
 * the batch.
 */
export function replacing(c: RepairCase): Option[] {
  const { finding, file, listing } = c;
  const name = lastingName(c);
  if (file === null || listing === null || name === null) return [];
  const to = join(listing.path, name);
  const [instead] = inPlaceOf(c, to);
  if (instead !== undefined) return [instead];
  const acts: Act[] = [{ do: 'move', entry: 'file', from: finding.path, to }];
  return [{ key: 'rename:', way: 'rename', confidence: 'sure', to, value: null, acts }];
}

/** Files of one content that are offered to stay. */
const MOST_KEPT = 20;

/** One of them stays; the others are set aside, and what refers to them leads to the one that stays. */
export function keepOne(c: RepairCase): Option[] {
  const { finding, view, rules } = c;
  if (typeof finding.params.frames === 'number') return [];
  const paths = [finding.path, ...finding.related].filter((path) =>
    view.list(parentOf(path))?.files.some((f) => f.name === nameOf(path)),
  );
  if (paths.length < 2) return [];
  const right = new Set(paths.filter((path) => isInPlace(path)));
  return [...paths]
    .sort((a, b) => Number(right.has(b)) - Number(right.has(a)) || (a < b ? -1 : 1))
    .slice(0, MOST_KEPT)
    .map((stays): Option => {
      const others = paths.filter((path) => path !== stays);
      // A copy that carries the mark of one beside a name in order is nobody's second work.
      const isCopy = right.has(stays) && right.size === 1 && others.every((path) => isCopyOf(path, stays));
      return {
        key: `keep-this:${stays}`,
        way: 'keep-this',
        confidence: isCopy ? 'sure' : right.has(stays) && right.size === 1 ? 'likely' : 'guess',
        to: null,
        value: stays,
        facts: factsOf(c, stays),
        acts: others.map((from) => ({ do: 'set-aside', from, instead: stays })),
      };
    });

  function isInPlace(path: string): boolean {
    const line = rules.planned(parentOf(path));
    const file = view.list(parentOf(path))?.files.find((f) => f.name === nameOf(path));
    return line?.kind === 'folder' && file !== undefined && faultOfFile(rules, line, file) === null;
  }
}

/** `a (1).png`, `a - Copy.png`, `a copy 2.png` beside `a.png`. */
function isCopyOf(path: string, original: string): boolean {
  const mark = /(?:\s*\(\d+\)|\s*[-_ ]\s*copy(?:\s*\(?\d+\)?)?)(?=\.[A-Za-z0-9]+$|$)/i;
  return parentOf(path) === parentOf(original) && nameOf(path).replace(mark, '') === nameOf(original);
}

/** The planned line that is missing, made. */
export function madeAgain(c: RepairCase): Option[] {
  const { rules, finding } = c;
  const line = rules.planned(finding.path);
  if (line === undefined || line.elsewhere !== undefined) return [];
  return [{ key: 'make:', way: 'make', confidence: 'sure', to: line.path, value: null, acts: [{ do: 'make', line }] }];
}

/** A note beside licensed material, to be filled in: nothing is known of it yet, so nothing is sure. */
export function licenceNote(c: RepairCase): Option[] {
  const own = ownName(c);
  const stem = own.lastIndexOf('.') > 0 ? own.slice(0, own.lastIndexOf('.')) : own;
  const to = join(parentOf(c.finding.path), `${stem}.licence.txt`);
  return [
    {
      key: 'write-note:',
      way: 'write-note',
      confidence: 'likely',
      to,
      value: null,
      acts: [{ do: 'write', to, text: noteFor(own) }],
    },
  ];
}
