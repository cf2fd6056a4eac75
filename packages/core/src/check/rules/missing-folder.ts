import type { Rule } from '../rule';

/** A folder that must exist and does not. What it should hold is not missing on its own account. */
export const missingFolder: Rule = {
  code: 'missing-folder',
  scope: 'end',
  judge: ({ ground, seen }) => {
    const pathOf = new Map(ground.expansion.lines.map((line) => [line.key, line.path]));
    return ground.expansion.lines
      .filter((line) => line.kind === 'folder' && line.parent !== null && line.presence === 'always')
      .filter((line) => !seen.has(line.path.normalize('NFC')) && seen.has((pathOf.get(line.parent as string) ?? '').normalize('NFC')))
      .map((line) => ({ path: line.path, subject: line.key, params: { name: line.name, purpose: line.folder?.purpose ?? '' } }));
  },
};
