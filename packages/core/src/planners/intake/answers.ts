/** What a person said of a heap: of single files, and of folders for all that is in them. */
import { parentOf } from '../../listing/entry';
import type { GivenEntry } from './days';
import type { IntakeGiven, Placed } from './given';
import type { GivenValues } from './naming';
import type { Recognised, Recogniser } from './recognise';

const UNSAID: Placed = { values: {} };

export class Answers {
  private readonly isUnsaid: boolean;

  constructor(private readonly placed: IntakeGiven['placed']) {
    this.isUnsaid = Object.keys(placed).length === 0;
  }

  /** The nearest word counts; values add up. */
  of(path: string): Placed {
    const { placed } = this;
    if (this.isUnsaid) return UNSAID;
    const ways: Placed[] = [];
    for (let at = path; ; at = parentOf(at)) {
      const own = Object.hasOwn(placed, at) ? placed[at] : undefined;
      // A name is one file's own, and so is the place of another.
      if (own !== undefined) ways.unshift(at === path ? own : { ...own, name: undefined, replaces: undefined });
      if (at === '') break;
    }
    return ways.reduce<Placed>(
      (all, { comes, folder, name, values, replaces }) => ({
        comes: comes ?? all.comes,
        folder: folder ?? all.folder,
        name: name ?? all.name,
        replaces: replaces ?? all.replaces,
        values: { ...all.values, ...values },
      }),
      {},
    );
  }

  /** Folders that are cards, or none. */
  cards(): ReadonlyMap<string, boolean> {
    const said = Object.entries(this.placed).flatMap(([path, { isCard }]) =>
      isCard === undefined ? [] : [[path, isCard] as const],
    );
    return new Map(said);
  }

  /** Which of the values are entries of lists is seen by their keys. */
  entries(): readonly GivenEntry[] {
    return Object.values(this.placed).flatMap(({ values = {} }) =>
      Object.entries(values).flatMap(([list, entry]) => (entry === '' ? [] : [{ list, entry }])),
    );
  }
}

/** What a person gave counts as said, for the folder too. */
export function withGiven(file: Recognised, values: GivenValues | undefined, { listNames }: Recogniser): Recognised {
  const given = Object.entries(values ?? {}).filter(([, value]) => value !== '');
  if (given.length === 0) return file;
  const said = new Map(file.said);
  const fields = new Set<string>();
  for (const [field, value] of given)
    for (const as of new Set([field, ...(listNames.get(field) ?? [])])) {
      fields.add(as);
      said.set(as, [{ field: as, value, isSlip: false }]);
    }
  const day = given.find(([, value]) => /^\d{4}-\d{2}-\d{2}$/.test(value))?.[1];
  const when = day === undefined ? file.when : ({ day, time: null, by: 'name', isUnsure: false } as const);
  return { ...file, said, when, given: fields };
}
