/** Ways for a document whose references lead nowhere, out of the project, or along a whole path. */
import { nameOf } from '../../listing/entry';
import type { Confidence } from '../../name/mend/suggest';
import { isInLibrary } from '../../references/libraries';
import { isThere, targetOf } from '../../references/target';
import { type Act, type Option, RANK, type RepairCase } from './option';

/** Files of one name that are offered. */
const MOST_FOUND = 8;

interface Found {
  readonly path: string;
  readonly confidence: Confidence;
}

/**
 * Each reference of the kind the finding is about to the file where it lies in the project: found by its path, by the
 * end of it, else by its name. All of them at once where each has one answer; else a choice for the first that has not.
 */
export function pointed(c: RepairCase): Option[] {
  const { finding, view } = c;
  const wrong = view.targets(finding.path).filter((target) => isWrong(c, target));
  const answers = wrong.map((target) => ({ target, found: filesFor(c, target) }));
  const known = answers.filter(({ found }) => found.length === 1);
  const acts = known.flatMap(({ target, found }) => found.map(({ path }) => pointing(c, target, path)));
  const isAll = known.length === wrong.length;
  const worst = known.reduce<Confidence>((w, { found }) => worse(w, found[0]?.confidence ?? 'guess'), 'sure');
  const open = answers.find(({ found }) => found.length > 1);
  const chosen = (open?.found ?? []).map(
    ({ path }): Option => ({
      key: `point:${path}`,
      way: 'point',
      confidence: 'guess',
      to: null,
      value: path,
      acts: [...acts, pointing(c, open?.target ?? '', path)],
    }),
  );
  if (acts.length === 0) return chosen;
  const first: Option = {
    key: 'point:',
    way: 'point',
    confidence: isAll ? worst : 'guess',
    to: null,
    value: known[0]?.found[0]?.path ?? null,
    acts,
  };
  return [first, ...chosen];
}

const worse = (a: Confidence, b: Confidence): Confidence => (RANK[a] >= RANK[b] ? a : b);

const pointing = ({ finding }: RepairCase, target: string, to: string): Act => ({
  do: 'point',
  document: finding.path,
  target,
  to,
});

function isWrong({ finding, roots, view, rules }: RepairCase, target: string): boolean {
  const meant = targetOf(finding.path, target, roots);
  const libraries = rules.registers.libraries ?? [];
  if (isInLibrary(meant, { file: finding.path, roots, libraries })) return false;
  switch (finding.rule) {
    case 'absolute-reference':
      return meant.kind === 'absolute';
    case 'outside-reference':
      return meant.kind === 'outside';
    default:
      return meant.kind === 'inside' && !isThere(meant.path, namesIn(view));
  }
}

const namesIn =
  (view: RepairCase['view']) =>
  (folder: string): ReadonlySet<string> | null => {
    const listing = view.list(folder);
    return listing === null ? null : new Set([...listing.folders, ...listing.files.map((f) => f.name)]);
  };

function filesFor(c: RepairCase, target: string): readonly Found[] {
  const { finding, roots, view } = c;
  const meant = targetOf(finding.path, target, roots);
  const inside = meant.kind === 'absolute' ? meant.inside : null;
  const isHere = (path: string) => isThere(path, namesIn(view));
  if (inside !== null && isHere(inside)) return [{ path: inside, confidence: 'sure' }];
  // Behind the name of this project's own folder stands its way in it, on whichever machine.
  const slashed = target.replaceAll('\\', '/');
  for (const root of roots) {
    const at = slashed.lastIndexOf(`/${nameOf(root.replaceAll('\\', '/').replace(/\/+$/, ''))}/`);
    const rest = at < 0 ? '' : slashed.slice(slashed.indexOf('/', at + 1) + 1);
    if (rest !== '' && isHere(rest)) return [{ path: rest, confidence: 'sure' }];
  }
  const found = view.find(nameOf(slashed)).filter((path) => path !== finding.path);
  return found.slice(0, MOST_FOUND).map((path) => ({ path, confidence: found.length === 1 ? 'likely' : 'guess' }));
}
