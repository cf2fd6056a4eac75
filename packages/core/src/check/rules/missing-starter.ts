import { rule } from '../rule';

/** A starter file that was removed. In a folder that is not there it is not missing on its own account. */
export const missingStarter = rule({
  code: 'missing-starter',
  weight: 'note',
  about: 'file',
  params: { name: 'text' },
  remedy: { act: 'make' },
  end: ({ rules, rows, starters }) => {
    const seen = new Set(rows.map((r) => r.path.normalize('NFC')));
    const parents = new Map(rules.expansion.lines.map((line) => [line.key, line.path.normalize('NFC')]));
    return rules.expansion.lines
      .filter(
        (line) =>
          line.kind === 'file' &&
          line.made &&
          !starters.has(line.key) &&
          seen.has(parents.get(line.parent ?? '') ?? ''),
      )
      .map((line) => ({ path: line.path, subject: line.key, params: { name: line.name } }));
  },
});
