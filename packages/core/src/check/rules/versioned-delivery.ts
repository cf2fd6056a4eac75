import { rule } from '../rule';

/** A version in a name that must stay the same, because others link to it. */
export const versionedDelivery = rule({
  code: 'versioned-delivery',
  weight: 'must',
  about: 'file',
  params: { name: 'text', version: 'text' },
  remedy: { act: 'replace' },
  file: ({ line, file, path }) => {
    const version = line.rules.stable
      ? /(?:^|[_\s.-])((?:v|ver|version|rev)[\s._-]?\d+)(?=[_\s.-]|$)/i.exec(file.name)?.[1]
      : undefined;
    return version === undefined ? null : { path, params: { name: file.name, version } };
  },
});
