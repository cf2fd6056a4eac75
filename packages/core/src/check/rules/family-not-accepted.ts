import { rule } from '../rule';

/** A family of files that the folder does not accept; which folder does, where one is meant for that very name. */
export const familyNotAccepted = rule({
  code: 'family-not-accepted',
  weight: 'should',
  about: 'file',
  params: { name: 'text', family: 'text', accepts: 'texts', home: 'text' },
  remedy: { act: 'move', to: 'taker' },
  file: ({ rules, line, file, path }) => {
    const { accepts } = line.rules;
    const family = rules.familyOf(file.name);
    if (accepts === null || accepts.length === 0 || family === null || accepts.includes(family)) return null;
    return { path, params: { name: file.name, family, accepts, home: rules.homeOf(file.name)?.path ?? '' } };
  },
});
