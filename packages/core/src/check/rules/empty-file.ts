import { join } from '../../listing/entry';
import { groupFrames, rangesShown, type Sequence } from '../../name/frames';
import { rule } from '../rule';

/**
 * A file of no bytes; of a sequence all such frames as one. One that was just made is left in peace, and what the plan
 * makes empty is meant so.
 */
export const emptyFile = rule({
  code: 'empty-file',
  weight: 'should',
  about: 'file',
  params: { name: 'text', ranges: 'texts?', count: 'count?' },
  remedy: { act: 'set-aside' },
  folder: ({ rules, listing, state }) => {
    if (state.kind !== 'planned' || !listing.files.some((file) => file.size === 0)) return [];
    const empty = listing.files.filter(
      (file) =>
        file.size === 0 &&
        !file.isFolder &&
        file.modified > 0 &&
        !rules.isSettling(file.modified) &&
        rules.planned(join(listing.path, file.name))?.kind !== 'file',
    );
    const { sequences, singles } = groupFrames(empty.map((file) => file.name));
    const alone = singles.map((name) => ({ path: join(listing.path, name), params: { name } }));
    return [...alone, ...sequences.map((sequence) => emptyFrames(listing.path, empty, sequence))];
  },
});

function emptyFrames(folder: string, empty: readonly { readonly name: string }[], sequence: Sequence) {
  const { head, tail, ranges, count } = sequence;
  const isFrame = /^\d+$/;
  const names = empty
    .map((file) => file.name)
    .filter(
      (name) =>
        name.startsWith(head) &&
        name.endsWith(tail) &&
        isFrame.test(name.slice(head.length, name.length - tail.length)),
    )
    .sort();
  const [name = head, ...others] = names;
  return {
    path: join(folder, name),
    subject: join(folder, `${head}#${tail}`),
    params: { name, ranges: rangesShown(ranges), count },
    related: others.map((other) => join(folder, other)),
  };
}
