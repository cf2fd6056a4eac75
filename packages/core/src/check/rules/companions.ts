import { elementAt } from '../../element';
import { join } from '../../listing/entry';
import { rowOf, textHash } from '../number-table';
import type { AloneSide } from '../partial-result';
import type { EndCase, RawFinding, Rule } from '../rule';

/** Where the documents of lonely side files are, found once for both rules. */
const known = new WeakMap<
  EndCase,
  { readonly side: AloneSide; readonly folder: string; readonly apart: readonly string[] }[]
>();

function lonely(c: EndCase) {
  const before = known.get(c);
  if (before !== undefined) return before;
  const { alone, documents, rows } = c.part;
  const wanted = new Map<number, string[]>();
  for (const side of alone) for (const family of side.families) wanted.set(textHash(`${family}/${side.stem}`), []);
  if (wanted.size > 0) {
    documents.values.forEach((value, place) => {
      wanted.get(value)?.push(rows[rowOf(documents, place)]?.path ?? '');
    });
  }
  const made = alone.map((side) => ({
    side,
    folder: rows[side.row]?.path ?? '',
    apart: [...new Set(side.families.flatMap((family) => wanted.get(textHash(`${family}/${side.stem}`)) ?? []))].sort(),
  }));
  known.set(c, made);
  return made;
}

/** A side file whose document is nowhere in the project. */
export const companionMissing: Rule = {
  code: 'companion-missing',
  scope: 'end',
  judge: (c) =>
    lonely(c).flatMap(({ side, folder, apart }): RawFinding[] =>
      apart.length > 0
        ? []
        : [
            {
              path: join(folder, side.name),
              params: { name: side.name, families: [...side.families] },
              modified: side.modified,
            },
          ],
    ),
};

/** A side file whose document lies in another folder. */
export const companionApart: Rule = {
  code: 'companion-apart',
  scope: 'end',
  judge: (c) =>
    lonely(c).flatMap(({ side, folder, apart }): RawFinding[] =>
      apart.length === 0
        ? []
        : [
            {
              path: join(folder, side.name),
              params: { name: side.name, home: elementAt(apart, 0), families: [...side.families] },
              modified: side.modified,
            },
          ],
    ),
};
