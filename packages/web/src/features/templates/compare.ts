/**
 * Two editions as one tree: what the later one has, and where what it has no more stood; each folder says what became
 * of it.
 */
import type { Registers } from '@nesting/core/name';
import { type Difference, diffTemplates, mergeFolders, type Template } from '@nesting/core/template';
import { differenceWords } from '@nesting/core/words';
import { linesOfTemplate, type TemplateLine } from './tree';

const BADGES: Readonly<Record<Difference['kind'], string>> = {
  added: 'new',
  removed: 'gone',
  renamed: 'renamed',
  moved: 'moved',
  changed: 'changed',
};

export function comparedLines(before: Template, after: Template, registers: Registers): TemplateLine[] {
  const differences = diffTemplates(before, after);
  const about = new Map<string, Difference[]>();
  for (const d of differences) if (d.of === 'folder') about.set(d.id, [...(about.get(d.id) ?? []), d]);
  const both: Template = {
    ...after,
    root: { ...after.root, folders: mergeFolders([], after.root.folders ?? [], before.root.folders ?? []).folders },
  };
  return linesOfTemplate(both, registers).map((line) => {
    const own = about.get(line.folder?.node.id ?? '') ?? [];
    if (line.folder === null || own.length === 0) return line;
    const gone = own.some((d) => d.kind === 'removed');
    return {
      ...line,
      tree: {
        ...line.tree,
        open: true,
        state: gone ? 'absent' : 'there',
        badge: [...new Set(own.map((d) => BADGES[d.kind]))].join(', '),
        note: own.map(differenceWords).join('; '),
      },
    };
  });
}
