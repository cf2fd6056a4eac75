/**
 * Where a file belongs: the folders of a plan that take it, best first, each with why and how surely.
 *
 * 1. The folder whose convention this very name follows.
 * 2. Folders that take its family under the name it has. One alone is likely; several are a guess each.
 * 3. Folders that take its family under another name, which is proposed.
 *
 * Within each the nearest folder comes first: the one with most of the way in common.
 */
import { faultOfFile } from '../../check/file-fault';
import type { FileEntry } from '../../listing/entry';
import { type Confidence, explainName } from '../../name/mend/suggest';
import type { ProjectRules } from '../../project/rules';
import { Remembered } from '../../remembered';
import type { PlannedLine } from '../../template/expansion';

export type RouteReason = 'convention' | 'family' | 'family-renamed';

export interface Route {
  /** The folder that takes it. */
  readonly line: PlannedLine;
  /** What the file is called there. */
  readonly name: string;
  readonly reason: RouteReason;
  readonly confidence: Confidence;
}

/** Folders by the families they take; what anything goes in is no home for a certain file. */
const takers = new Remembered((rules: ProjectRules): ReadonlyMap<string, readonly PlannedLine[]> => {
  const out = new Map<string, PlannedLine[]>();
  for (const line of rules.expansion.lines) {
    if (line.kind !== 'folder' || line.elsewhere !== undefined) continue;
    for (const family of line.rules.accepts ?? []) {
      const known = out.get(family);
      if (known === undefined) out.set(family, [line]);
      else known.push(line);
    }
  }
  return out;
});

/** Folders that are tried: where more take a family, none of them is meant more than the others. */
const MOST_TRIED = 200;
const MOST_ROUTES = 8;

/** `from` is the folder it lies in, which is no answer. */
export function routesOf(rules: ProjectRules, file: FileEntry, from: string): readonly Route[] {
  const home = rules.homeOf(file.name);
  if (home !== null && home.elsewhere === undefined && home.path !== from && faultOfFile(rules, home, file) === null)
    return [{ line: home, name: file.name, reason: 'convention', confidence: 'sure' }];
  const family = rules.familyOf(file.name);
  if (family === null) return [];
  const tried = [...(takers.of(rules).get(family) ?? [])]
    .filter((line) => line.path !== from)
    .sort((a, b) => shared(b.path, from) - shared(a.path, from) || a.depth - b.depth || (a.path < b.path ? -1 : 1))
    .slice(0, MOST_TRIED);
  const taking = tried.filter((line) => faultOfFile(rules, line, file) === null);
  if (taking.length > 0)
    return taking.slice(0, MOST_ROUTES).map((line) => ({
      line,
      name: file.name,
      reason: 'family',
      confidence: taking.length === 1 ? 'likely' : 'guess',
    }));
  return tried.flatMap((line) => renamedThere(rules, line, file)).slice(0, MOST_ROUTES);
}

function renamedThere(rules: ProjectRules, line: PlannedLine, file: FileEntry): Route[] {
  for (const { strict, context } of rules.conventionsFor(line, file.name)) {
    const name = explainName(strict, file.name, context).suggestions[0]?.name;
    if (name !== undefined && faultOfFile(rules, line, { ...file, name }) === null)
      return [{ line, name, reason: 'family-renamed', confidence: 'guess' }];
  }
  return [];
}

/** Folders that two ways have in common. */
function shared(a: string, b: string): number {
  const [left, right] = [a.split('/'), `${b}/`.split('/')];
  let n = 0;
  while (n < left.length && left[n] === right[n]) n++;
  return n;
}
