/** Which lines of a plan are shown, under which headings: as the address says. */
import type { RepairPlan } from '@nesting/contract';
import { nameOf, parentOf } from '@nesting/core/listing';
import { REPAIR_STATE_WORDS, RULE_WORDS } from '@nesting/core/words';
import { many } from '../../app/words';
import type { ListItem } from '../../changes/line-list';

export type Line = RepairPlan['lines'][number];
export type Row =
  | { readonly kind: 'finding'; readonly line: Line }
  | { readonly kind: 'document'; readonly document: RepairPlan['documents'][number] }
  | { readonly kind: 'by-hand'; readonly reference: RepairPlan['byHand'][number] };

export const GROUPS = ['place', 'cause', 'family', 'state'] as const;
export type Group = (typeof GROUPS)[number];
export const GROUP_WORDS: Readonly<Record<Group, string>> = {
  place: 'by folder',
  cause: 'by cause',
  family: 'by family',
  state: 'by state',
};

/** How certain: what one filters by. */
export const CERTAINTIES = ['chosen', 'likely', 'answer', 'stays'] as const;
export type Certainty = (typeof CERTAINTIES)[number];
export const CERTAINTY_WORDS: Readonly<Record<Certainty, string>> = {
  chosen: 'Chosen',
  likely: 'Likely, not chosen',
  answer: 'Need an answer',
  stays: 'Stay as they are',
};

export function certaintyOf({ state, options }: Line): Certainty {
  switch (state) {
    case 'ready':
      return 'chosen';
    case 'ask':
      return options[0]?.confidence === 'likely' ? 'likely' : 'answer';
    case 'clash':
      return 'answer';
    default:
      return 'stays';
  }
}

export const SIZES = ['any', 'over-1-mb', 'over-100-mb', 'over-1-gb'] as const;
type Size = (typeof SIZES)[number];
export const SIZE_WORDS: Readonly<Record<Size, string>> = {
  any: 'Any size',
  'over-1-mb': 'Over 1 MB',
  'over-100-mb': 'Over 100 MB',
  'over-1-gb': 'Over 1 GB',
};
const LEAST: Readonly<Record<Size, number>> = { any: 0, 'over-1-mb': 1e6, 'over-100-mb': 1e8, 'over-1-gb': 1e9 };

export const WRITTEN = ['any', 'last-week', 'before-a-month', 'before-a-year'] as const;
type Written = (typeof WRITTEN)[number];
export const WRITTEN_WORDS: Readonly<Record<Written, string>> = {
  any: 'Any time',
  'last-week': 'In the last 7 days',
  'before-a-month': 'Over 30 days ago',
  'before-a-year': 'Over a year ago',
};

const DAY = 24 * 60 * 60 * 1000;

/** `now` in milliseconds since 1970. */
function isWritten(modified: number | null, written: Written, now: number): boolean {
  if (written === 'any') return true;
  if (modified === null) return false;
  const days = (now - modified) / DAY;
  return written === 'last-week' ? days <= 7 : days > (written === 'before-a-month' ? 30 : 365);
}

export interface Filter {
  readonly cause: string | null;
  readonly certainty: string | null;
  readonly family: string | null;
  readonly find: string;
  readonly size: Size;
  readonly written: Written;
}

export const isShown = (line: Line, { cause, certainty, family, find, size, written }: Filter, now: number): boolean =>
  (cause === null || line.rule === cause) &&
  (certainty === null || certaintyOf(line) === certainty) &&
  (family === null || (line.family ?? '') === family) &&
  line.bytes >= LEAST[size] &&
  isWritten(line.modified, written, now) &&
  (find === '' || `${line.path}\n${line.after ?? ''}`.toLowerCase().includes(find.toLowerCase()));

/** What needs an answer comes first; then what is to be done; what stays comes last. */
function headOf(line: Line, group: Group): readonly [order: number, words: string, isPath: boolean] {
  const certainty = certaintyOf(line);
  if (group === 'cause') return [0, RULE_WORDS[line.rule].title, false];
  if (group === 'family') return [0, line.family ?? (line.entry === 'folder' ? 'Folders' : 'Other files'), false];
  if (group === 'state') return [STATE_ORDER.indexOf(line.state), REPAIR_STATE_WORDS[line.state], false];
  // What was answered stays where it was asked, and what was left where it lies: nothing jumps away under one's hand.
  const isAsked = certainty === 'answer' || (certainty !== 'likely' && line.options[0]?.confidence === 'guess');
  if (isAsked) return [0, CERTAINTY_WORDS.answer, false];
  if (certainty === 'stays' && line.state !== 'left') return [2, REPAIR_STATE_WORDS[line.state], false];
  return [1, parentOf(line.path) || 'the project’s root', true];
}

const STATE_ORDER = ['clash', 'ask', 'ready', 'held', 'by-hand', 'left', 'elsewhere', 'gone'] as const;

/** @param named - what other programs' documents name, beside what the plan itself knows of */
export function rowsOf(
  plan: RepairPlan,
  group: Group,
  filter: Filter,
  named: RepairPlan['byHand'] = [],
): ListItem<Row>[] {
  const shown = plan.lines
    .filter((line) => isShown(line, filter, plan.now))
    .map((line) => ({ line, head: headOf(line, group) }));
  shown.sort((a, b) => {
    const [left, right] = [a.head, b.head];
    if (left[0] !== right[0]) return left[0] - right[0];
    if (left[1] !== right[1]) return left[1] < right[1] ? -1 : 1;
    return a.line.path < b.line.path ? -1 : 1;
  });
  const counts = new Map<string, number>();
  for (const { head } of shown) counts.set(head[1], (counts.get(head[1]) ?? 0) + 1);
  const out: ListItem<Row>[] = [];
  let last = '';
  for (const { line, head } of shown) {
    const [order, words, isPath] = head;
    if (`${order} ${words}` !== last)
      out.push({ kind: 'head', key: `head ${order} ${words}`, words, isPath, note: String(counts.get(words) ?? 0) });
    last = `${order} ${words}`;
    out.push({ kind: 'line', key: line.id, line: { kind: 'finding', line } });
  }
  return isWhole(filter) ? [...out, ...documentRows(plan.documents, [...plan.byHand, ...named])] : out;
}

const isWhole = ({ cause, certainty, family, find, size, written }: Filter): boolean =>
  cause === null && certainty === null && family === null && find === '' && size === 'any' && written === 'any';

function documentRows(documents: RepairPlan['documents'], byHand: RepairPlan['byHand']): ListItem<Row>[] {
  const out: ListItem<Row>[] = [];
  if (documents.length > 0)
    out.push({ kind: 'head', key: 'head documents', words: 'Documents that follow', note: String(documents.length) });
  for (const document of documents)
    out.push({ kind: 'line', key: `document ${document.path}`, line: { kind: 'document', document } });
  if (byHand.length > 0)
    out.push({
      kind: 'head',
      key: 'head by hand',
      words: 'References to put right by hand',
      note: many(byHand.length, 'reference'),
    });
  byHand.forEach((reference, i) => {
    out.push({ kind: 'line', key: `by hand ${i}`, line: { kind: 'by-hand', reference } });
  });
  return out;
}

/** The name it gets, where it gets another one in its own folder. */
export const isRenamed = ({ path, after }: Line): boolean => after !== null && nameOf(path) !== nameOf(after);

/** Lines to which the same answer can be given: of one rule, with a way that is called the same. */
export function alikeOf(
  lines: readonly Line[],
  line: Line,
  key: string,
): readonly { readonly id: string; readonly key: string }[] {
  const at = line.options.findIndex((o) => o.key === key);
  const way = line.options[at]?.way;
  return lines.flatMap((other) => {
    if (other.id === line.id || other.rule !== line.rule || certaintyOf(other) === 'stays') return [];
    const same =
      other.options.find((o) => o.key === key) ?? (other.options[at]?.way === way ? other.options[at] : undefined);
    return same === undefined ? [] : [{ id: other.id, key: same.key }];
  });
}
