import { extensionOf } from '../ground';
import type { FileCase, Rule } from '../rule';

/** The family that programs fill by themselves. */
const GENERATED = 'generated';
/** What systems leave behind, whatever the families are. */
const SYSTEM = /^(?:\.DS_Store|Thumbs\.db|desktop\.ini|\._.*|~\$.*|.*~)$/;

/** A cache, preview, autosave or temporary file outside the folder meant for such. One that belongs to a document beside it is its companion. */
export const strayGenerated: Rule = {
  code: 'stray-generated',
  scope: 'file',
  judge: (c) => {
    const stray = SYSTEM.test(c.file.name) || c.ground.familyOf(c.file.name) === GENERATED;
    if (!stray || c.line.rules.accepts?.includes(GENERATED) || isCompanion(c)) return null;
    const home = c.ground.expansion.lines.find((l) => l.kind === 'folder' && (l.folder?.accepts?.includes(GENERATED) || l.folder?.signpost === 'cache'));
    return { path: c.path, params: { name: c.file.name, bytes: c.file.size, home: home?.path ?? '' } };
  },
};

function isCompanion({ ground, file, listing }: FileCase): boolean {
  const stem = file.name.slice(0, file.name.lastIndexOf('.'));
  const ext = file.name.slice(file.name.lastIndexOf('.') + 1).toLowerCase();
  const families = ground.registers.families.filter((f) => f.companions?.includes(ext));
  return families.length > 0 && listing.files.some((o) => o.name !== file.name && o.name.startsWith(`${stem}.`) && families.some((f) => f.extensions.includes(extensionOf(o.name, new Set(f.extensions)))));
}
