import type { Rule } from '../rule';

/** A folder that must exist and does not. What it should hold is not missing on its own account. */
export const missingFolder: Rule = {
  code: 'missing-folder',
  scope: 'end',
  judge: ({ folders }) =>
    folders.missing.map((line) => ({
      path: line.path,
      subject: line.key,
      params: { name: line.name, purpose: line.folder?.purpose ?? '' },
    })),
};
