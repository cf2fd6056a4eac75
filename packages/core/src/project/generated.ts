/** What programs and systems make by themselves. */
import { extensionOf } from '../listing/extension';
import type { Family } from '../name/pattern/field';

/** The family that programs fill by themselves. */
export const GENERATED = 'generated';

/** What systems leave behind, whatever the families are. */
const SYSTEM = /^(?:\.DS_Store|Thumbs\.db|desktop\.ini|\._.*|~\$.*|\.~lock\..*#|.*~|.*\.(?:part|partial|download))$/;

export const isLeftBySystem = (name: string): boolean => SYSTEM.test(name);

/** The extension by which a name is one that programs make; `null` where it is a person's file. */
export function generatedBy(families: readonly Family[]): (name: string) => string | null {
  const extensions = new Map(families.flatMap((f) => f.extensions.map((ext) => [ext.toLowerCase(), f.name] as const)));
  return (name) => {
    const ext = extensionOf(name, extensions);
    if (extensions.get(ext) === GENERATED) return ext;
    return isLeftBySystem(name) ? '' : null;
  };
}
