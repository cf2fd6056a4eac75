/** Every starter file kept for a template: where it is used, and which ones no folder names any more. */

import { type FolderNode, starterFiles, type Template } from '@nesting/core/template';
import { many, size } from '../../../app/words';
import { Button, Heading } from '../../../ui';
import { templatesApi } from '../templates-api';

function usesOfFiles(template: Template): Map<string, number> {
  const uses = new Map<string, number>();
  const walk = (node: FolderNode): void => {
    for (const s of node.starters ?? [])
      for (const { from } of starterFiles(s)) uses.set(from, (uses.get(from) ?? 0) + 1);
    node.folders?.forEach(walk);
  };
  walk(template.root);
  for (const block of template.blocks ?? []) block.folders.forEach(walk);
  return uses;
}

export function FilesOfTemplate({ template }: { template: Template }) {
  const { data = [] } = templatesApi.useStartersQuery(template.id);
  const [drop] = templatesApi.useDropStarterMutation();
  if (data.length === 0) return null;
  const uses = usesOfFiles(template);
  return (
    <section aria-label="Starter files of the template" className="flex flex-col gap-1 text-sm">
      <Heading>Starter files, {size(data.reduce((n, f) => n + f.bytes, 0))}</Heading>
      <ul>
        {data.map((f) => {
          const used = uses.get(f.path) ?? 0;
          return (
            <li key={f.path} className="flex items-baseline gap-2 border-b border-line py-1">
              <span className="min-w-0 flex-1 font-mono text-xs break-all">{f.path.replace(/^starters\//, '')}</span>
              <span className="shrink-0 text-xs text-note">
                {used === 0
                  ? f.inDraft
                    ? 'in no folder'
                    : 'of an earlier edition'
                  : used === 1
                    ? size(f.bytes)
                    : `${many(used, 'place')}, ${size(f.bytes)}`}
              </span>
              {used === 0 && f.inDraft && (
                <Button
                  variant="quiet"
                  className="h-5!"
                  aria-label={`Drop ${f.path}`}
                  onClick={() => void drop({ id: template.id, path: f.path })}
                >
                  Drop
                </Button>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/**
 * Given where a file of that name is already, it is its new content; the same name in another folder is another file.
 */
export function pathOfStarter(template: Template, node: FolderNode, name: string): string {
  const here = node.starters?.find((s) => s.from.split('/').at(-1) === name);
  if (here) return here.from;
  return usesOfFiles(template).has(`starters/${name}`) ? `starters/${node.id}/${name}` : `starters/${name}`;
}
