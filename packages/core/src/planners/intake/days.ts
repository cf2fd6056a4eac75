/** Days and entries that a project does not have yet, and that loose files ask for. */
import type { ListField, Value, Values } from '../../name/pattern/field';
import type { CheckInput, ProjectRules } from '../../project/rules';
import type { PlannedLine } from '../../template/expansion';

/** Days that are tried: a heap of many years asks for none. */
const MOST_DAYS = 60;
/** Entries of an outer list that each of them is tried in. */
const MOST_OUTER = 100;

/** An entry that a list is to have, and the entry of the outer list it is for. */
export interface NewEntry {
  readonly list: string;
  readonly outer: string | null;
  readonly entry: string;
}

/** Entries that a person gave to files, by the list's key. */
export interface GivenEntry {
  readonly list: string;
  readonly entry: string;
}

/** Lists of days with these ones too, and lists with the entries that were given: what folders there could be. */
export function withDays(
  input: CheckInput,
  rules: ProjectRules,
  days: ReadonlySet<string>,
  given: readonly GivenEntry[],
): CheckInput {
  const lists = rules.template.fields.filter((f): f is ListField => f.type === 'list');
  const made = lists.flatMap((field) => {
    const dated = field.of.type === 'date' && days.size <= MOST_DAYS ? [...days].sort() : [];
    const said = given.filter(({ list }) => list === field.key).map(({ entry }) => entry);
    const entries = [...new Set([...dated, ...said])];
    return outersOf(rules, field, given).flatMap((outer) =>
      entries.map((entry): NewEntry => ({ list: field.key, outer, entry })),
    );
  });
  return made.length === 0 ? input : { ...input, values: withEntries(rules, input.values, made) };
}

function outersOf(
  rules: ProjectRules,
  { within }: ListField,
  given: readonly GivenEntry[],
): readonly (string | null)[] {
  if (within === undefined) return [null];
  const added = given.filter(({ list }) => list === within).map(({ entry }) => entry);
  return [...new Set([...(rules.expansion.values.lists.get(within)?.all ?? []).slice(0, MOST_OUTER), ...added])];
}

/** The values with these entries behind those that are there. */
export function withEntries(rules: ProjectRules, values: Values, entries: readonly NewEntry[]): Values {
  const out: Record<string, Value> = { ...values };
  for (const field of rules.template.fields) {
    if (field.type !== 'list') continue;
    const added = entries.filter(({ list }) => list === field.key);
    const outers = entries.filter(({ list }) => list === field.within).map(({ entry }) => entry);
    if (added.length > 0) out[field.key] = grown(rules, field, added, outers);
  }
  return out;
}

/** @param outers - entries that the outer list gets too */
function grown(
  rules: ProjectRules,
  { key, within }: ListField,
  added: readonly NewEntry[],
  outers: readonly string[],
): Value {
  const { lists } = rules.expansion.values;
  const list = lists.get(key);
  if (within === undefined) return [...new Set([...(list?.all ?? []), ...added.map(({ entry }) => entry)])];
  const all = new Set([...(lists.get(within)?.all ?? []), ...outers]);
  return Object.fromEntries(
    [...all].map((outer) => {
      const there = list?.by === null || list === undefined ? (list?.all ?? []) : (list.by.get(outer) ?? []);
      return [outer, [...new Set([...there, ...added.filter((e) => e.outer === outer).map((e) => e.entry)])]];
    }),
  );
}

/** The entries that a folder needs and that the project does not have. */
export function entriesFor(rules: ProjectRules, line: PlannedLine): readonly NewEntry[] {
  return Object.entries(line.entries).flatMap(([as, entry]): NewEntry[] => {
    const list = rules.listOfEntry(as);
    const field = rules.template.fields.find((f): f is ListField => f.type === 'list' && f.key === list);
    if (list === undefined || field === undefined) return [];
    const outer = field.within === undefined ? null : (outerEntry(rules, line, field.within) ?? null);
    const known = rules.expansion.values.lists.get(list);
    const there = known?.by === null || known === undefined ? known?.all : known.by.get(outer ?? '');
    return there?.includes(entry) ? [] : [{ list, outer, entry }];
  });
}

const outerEntry = (rules: ProjectRules, line: PlannedLine, list: string): string | undefined =>
  Object.entries(line.entries).find(([as]) => rules.listOfEntry(as) === list)?.[1];
