import { elementAt } from '../../element';
import { join } from '../../listing/entry';
import { Remembered } from '../../remembered';
import { textHash } from '../../text/hash';
import { rowOf } from '../number-table';
import { type EndCase, rule } from '../rule';

/** Where the documents of lonely side files are, found once for both rules. */
const lonely = new Remembered((c: EndCase) => {
  const { alone, documents, rows } = c.part;
  const wanted = new Map<number, string[]>();
  for (const side of alone) for (const family of side.families) wanted.set(textHash(`${family}/${side.stem}`), []);
  if (wanted.size > 0) {
    documents.values.forEach((value, place) => {
      wanted.get(value)?.push(rows[rowOf(documents, place)]?.path ?? '');
    });
  }
  return alone.map((side) => ({
    side,
    folder: rows[side.row]?.path ?? '',
    apart: [...new Set(side.families.flatMap((family) => wanted.get(textHash(`${family}/${side.stem}`)) ?? []))].sort(),
  }));
});

/** A side file whose document is nowhere in the project. */
export const companionMissing = rule({
  code: 'companion-missing',
  weight: 'should',
  about: 'file',
  params: { name: 'text', families: 'texts' },
  remedy: { act: 'none' },
  end: (c) =>
    lonely.of(c).flatMap(({ side, folder, apart }) =>
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
});

/** A side file whose document lies in another folder. */
export const companionApart = rule({
  code: 'companion-apart',
  weight: 'should',
  about: 'file',
  params: { name: 'text', home: 'text', families: 'texts' },
  remedy: { act: 'move', to: 'document' },
  end: (c) =>
    lonely.of(c).flatMap(({ side, folder, apart }) =>
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
});
