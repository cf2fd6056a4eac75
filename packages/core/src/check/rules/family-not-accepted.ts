import type { Rule } from '../rule';

/** A family of files that the folder does not accept; which folder does, where one is meant for that very name. */
export const familyNotAccepted: Rule = {
  code: 'family-not-accepted',
  scope: 'file',
  judge: ({ rules, line, file, path }) => {
    const { accepts } = line.rules;
    const family = rules.familyOf(file.name);
    if (accepts === null || accepts.length === 0 || family === null || accepts.includes(family)) return null;
    return { path, params: { name: file.name, family, accepts, home: rules.homeOf(file.name)?.path ?? '' } };
  },
};
