import { rule } from '../rule';

/** A folder larger than its limit, all that is in it counted but for the files of the plan. */
export const overLimit = rule({
  code: 'over-limit',
  weight: 'should',
  about: 'folder',
  params: { name: 'text', bytes: 'count', limit: 'count' },
  remedy: { act: 'none' },
  end: ({ rules, rows }) =>
    rules.expansion.lines.flatMap((line) => {
      const limit = line.folder?.limitBytes;
      if (limit === undefined || line.kind !== 'folder') return [];
      const bytes = rows.reduce(
        (n, r) =>
          r.path === line.path || r.path.startsWith(`${line.path}/`) ? n + r.bytes - (r.starterBytes ?? 0) : n,
        0,
      );
      return bytes > limit ? [{ path: line.path, subject: line.key, params: { name: line.name, bytes, limit } }] : [];
    }),
});
