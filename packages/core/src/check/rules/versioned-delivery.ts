import { join } from '../../listing/entry';
import { rule } from '../rule';

/** A version in a name that must stay the same, because others link to it. */
export const versionedDelivery = rule({
  code: 'versioned-delivery',
  weight: 'must',
  about: 'file',
  params: { name: 'text', version: 'text' },
  remedy: { act: 'replace' },
  file: ({ line, file, path }) => (line.rules.stable ? versionIn(path, file.name) : null),
  // A free text of the convention may hold one as well.
  folder: ({ listing, state, items }) =>
    state.kind === 'planned' && state.line.rules.stable
      ? items.read.flatMap(({ file }) => versionIn(join(listing.path, file.name), file.name) ?? [])
      : [],
});

function versionIn(path: string, name: string) {
  const version = /(?:^|[_\s.-])((?:v|ver|version|rev)[\s._-]?\d+)(?=[_\s.-]|$)/i.exec(name)?.[1];
  return version === undefined ? null : { path, params: { name, version } };
}
