/** What may be passed over in a broken name, as belonging to no part: separators, marks of copies, words said twice. */
import { elementAt } from '../../element';
import type { Reading } from '../pattern/field';
import type { Atom } from './atoms';
import { type ChangeCode, COST, type NameContext } from './costs';
import { copyMarkAt, isAside, isBanned, VERSION_WORDS } from './habit-words';
import type { Step } from './hypotheses';
import { squash } from './near';

/** A version, a day, a remark in brackets: known for what it is, and not asked for. */
const STRAY = { version: 2.2, second: 0.2, day: 1.5, remark: 2.5, aside: 1.5, number: 2.2 } as const;
/** Longest stretch that is looked for a second time, in atoms. */
const MOST_REPEATED = 7;

const DAY = /^(?:(?:19|20)\d{2}([-._])(?:0\d|1[0-2])\1[0-3]\d|(?:19|20)\d{2}(?:0\d|1[0-2])[0-3]\d)(?!\d)/;
const VERSION = /(?:^|[^\p{L}])v(?:er|ersion)?[ ._-]?\d/iu;
const REMARK = /^[([{][^()[\]{}]{0,60}[)\]}]/;

export function straysAt(all: readonly Atom[], a: number, name: string, { banned, bound }: NameContext): Step[] {
  const atom = all[a];
  if (atom === undefined) return [];
  const out: Step[] = [];
  const pass = (to: number, change: ChangeCode, cost = COST[change], doubtful = false) =>
    out.push({
      to,
      cost,
      move: { target: null, at: atom.at, end: elementAt(all, to - 1).end, text: '', change },
      invented: false,
      doubtful,
    });
  const passTo = (end: number, change: ChangeCode, cost?: number) => {
    const to = all.findIndex((x) => x.end === end);
    if (to >= a) pass(to + 1, change, cost);
  };
  const rest = name.slice(atom.at);
  const copy = copyMarkAt(name, atom.at);
  if (copy > 0) passTo(atom.at + copy, 'copy-mark');
  // "clip.mov.mov": the last extension said again, to the end.
  if (atom.text === '.' && name.slice(0, atom.at).toLowerCase().endsWith(rest.toLowerCase()))
    pass(all.length, 'doubled');
  for (const to of repeatedFrom(all, a, name, bound)) pass(to, 'doubled');
  const remark = REMARK.exec(rest)?.[0];
  if (remark !== undefined) passTo(atom.at + remark.length, 'extra', STRAY.remark);
  if (atom.kind === 'separator') {
    pass(a + 1, 'separator');
    return out;
  }
  if (atom.kind === 'word' && isBanned(atom.text, banned)) {
    // "final2": the number behind a banned word belongs to it.
    const doubtful = isInText(all, a);
    pass(a + 1, 'banned-word', COST['banned-word'], doubtful);
    if (all[a + 1]?.kind === 'digits') pass(a + 2, 'banned-word');
    return out;
  }
  const day = DAY.exec(rest)?.[0];
  if (day !== undefined) passTo(atom.at + day.length, 'extra', STRAY.day);
  const version = VERSION_WORDS.has(squash(atom.text)) && all[a + 1]?.kind === 'digits';
  // Of two versions the second was put behind the first.
  if (version) pass(a + 2, 'extra', STRAY.version + (VERSION.test(name.slice(0, atom.at)) ? STRAY.second : 0));
  // A number of its own between separators: "_2" behind a version.
  const isAlone = (all[a - 1]?.kind ?? 'separator') === 'separator' && all[a + 1]?.kind === 'separator';
  const to = runEnd(all, a);
  if (atom.kind === 'digits' && isAlone) pass(a + 1, 'extra', STRAY.number);
  else pass(a + 1, 'extra');
  if (isAside(name.slice(atom.at, elementAt(all, to - 1).end))) pass(to, 'extra', STRAY.aside);
  else if (to > a + 1) pass(to, 'extra', COST.extra + 0.2);
  return out;
}

/** `_New York_`: it hangs together with the word behind it more than with what is before, and may be a part of a text. */
function isInText(all: readonly Atom[], a: number): boolean {
  const [before, after] = [all[a - 1]?.text, all[a + 1]?.text];
  return (after === ' ' || after === '-') && before !== after && all[a + 2]?.kind === 'word';
}

/** The end of the letters and digits that touch each other. */
function runEnd(all: readonly Atom[], a: number): number {
  let to = a + 1;
  while (all[to]?.kind === 'word' || all[to]?.kind === 'digits') to++;
  return to;
}

/** Ends of the stretches at `a` that were said before: the same words, or a value the name must carry. */
function repeatedFrom(all: readonly Atom[], a: number, name: string, bound: Reading): number[] {
  const first = elementAt(all, a);
  if (first.kind === 'separator' || first.kind === 'other') return [];
  const before = squash(name.slice(0, first.at));
  const values = Object.values(bound).map((value) => squash(String(value)));
  const ends: number[] = [];
  for (let to = a + 1; to <= Math.min(all.length, a + MOST_REPEATED); to++) {
    const last = elementAt(all, to - 1);
    if (last.kind === 'separator') continue;
    // Letters or digits that go on are another word.
    if (all[to]?.kind === 'word' || all[to]?.kind === 'digits') continue;
    const text = squash(name.slice(first.at, last.end));
    if (text === '') continue;
    const isSaid = before.endsWith(text) && (text.length > 1 || to === a + 1) && isWholeBefore(all, a, text);
    if (isSaid || (values.includes(text) && before.includes(text))) ends.push(to);
  }
  return ends;
}

/** Whether the words right before make up the text, none of them cut. */
function isWholeBefore(all: readonly Atom[], a: number, text: string): boolean {
  let said = '';
  for (let i = a - 1; i >= 0 && said.length < text.length; i--) said = squash(elementAt(all, i).text) + said;
  return said === text;
}
