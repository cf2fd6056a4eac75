/** Places outside of every project that the house lets references lead to. */
import type { Library } from '../name/pattern/field';
import type { Target } from './target';

/** Whether a reference leads to one of them. `roots` are whole paths of the project's root, as each system has it. */
export function isInLibrary(
  target: Target,
  {
    file,
    roots,
    libraries,
  }: { readonly file: string; readonly roots: readonly string[]; readonly libraries: readonly Library[] },
): boolean {
  if (libraries.length === 0) return false;
  if (target.kind === 'absolute') return libraries.some(({ path }) => isBelow(slashed(target.path), path));
  if (target.kind !== 'outside') return false;
  const steps = [...file.split('/').slice(0, -1), ...slashed(target.path).split('/')];
  return roots.some((root) => {
    const whole = wholeOf(slashed(root), steps);
    return whole !== null && libraries.some(({ path }) => isBelow(whole, path));
  });
}

const slashed = (path: string): string => {
  const plain = path.trim().replace(/^file:(?:\/\/(?:localhost)?(?=\/))?/i, '');
  return plain.replaceAll('\\', '/').replace(/^\/(?=[A-Za-z]:\/)/, '');
};

/** Steps from a folder, up and down; `null` where they lead above everything. */
function wholeOf(root: string, steps: readonly string[]): string | null {
  const parts = root.replace(/\/+$/, '').split('/');
  for (const step of steps) {
    if (step === '' || step === '.') continue;
    if (step !== '..') parts.push(step);
    else if (parts.length <= 1 || parts.pop() === undefined) return null;
  }
  return parts.join('/');
}

/** Drives and shares do not tell capitals apart. A path with steps up in it may lead anywhere. */
function isBelow(path: string, library: string): boolean {
  if (path.split('/').includes('..')) return false;
  const above = `${slashed(library).replace(/\/+$/, '')}/`;
  return /^[A-Za-z]:|^\/\//.test(above) ? path.toLowerCase().startsWith(above.toLowerCase()) : path.startsWith(above);
}
