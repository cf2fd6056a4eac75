/**
 * Signposts of a project: named folders with their full path, in the form of each system, for people and programs. A
 * folder made once for each entry
 * of a list has a signpost for each of them: `renders` of the scene s03 on the west front is `renders.west-front.s03`.
 */
import type { Expansion } from '../template/expansion';

export interface Signpost {
  /** Unique in the project. */
  readonly name: string;
  /** From the project's root, parted by `/`. */
  readonly path: string;
  /** Where it is redirected to another volume. */
  readonly volume?: string | undefined;
}

export function signpostsOf(expansion: Expansion): Signpost[] {
  const out: Signpost[] = [{ name: 'project', path: '' }];
  const taken = new Set(['project']);
  for (const line of expansion.lines) {
    const named = line.folder?.signpost;
    if (named === undefined || line.kind !== 'folder') continue;
    const name = [named, ...Object.values(line.entries)].join('.');
    if (taken.has(name)) continue;
    taken.add(name);
    out.push({ name, path: line.path, ...(line.elsewhere && { volume: line.elsewhere.volume }) });
  }
  return out;
}

export type SystemName = 'windows' | 'macos' | 'linux';

/** A whole path as a system writes it; `prefix` is what that system has the volume under. */
export function pathOn(system: SystemName, prefix: string, folder: string, path: string): string {
  const separator = system === 'windows' ? '\\' : '/';
  const parts = [...folder.split('/'), ...path.split('/')].filter((p) => p !== '');
  return `${prefix.replace(/[\\/]+$/, '')}${separator}${parts.join(separator)}`;
}

/** `renders.west-front.s03` → `NESTING_RENDERS_WEST_FRONT_S03`; names that would be one are told apart by a number. */
export function variablesOf(
  signposts: readonly Signpost[],
): readonly { readonly name: string; readonly signpost: Signpost }[] {
  const taken = new Set<string>();
  return signposts.map((signpost) => {
    const base = `NESTING_${signpost.name
      .normalize('NFD')
      .replace(/\p{M}/gu, '')
      .toUpperCase()
      .replace(/[^A-Z0-9]+/g, '_')
      .replace(/^_+|_+$/g, '')}`;
    let name = base;
    for (let n = 2; taken.has(name); n++) name = `${base}_${n}`;
    taken.add(name);
    return { name, signpost };
  });
}

export const SIGNPOST_FORMATS = ['json', 'dotenv', 'sh', 'powershell'] as const;
export type SignpostFormat = (typeof SIGNPOST_FORMATS)[number];

/** Quoting leaves no name able to run anything, nor to end its line. */
export function printSignposts(
  form: SignpostFormat,
  signposts: readonly Signpost[],
  whole: (signpost: Signpost) => string,
): string {
  const lines = variablesOf(signposts);
  switch (form) {
    case 'json':
      return `${JSON.stringify(Object.fromEntries(signposts.map((s) => [s.name, whole(s)])), null, 2)}\n`;
    case 'dotenv':
      return lines.map((l) => `${l.name}="${whole(l.signpost).replace(/["\\$`]/g, '\\$&')}"\n`).join('');
    case 'sh':
      return lines.map((l) => `export ${l.name}='${whole(l.signpost).replaceAll("'", "'\\''")}'\n`).join('');
    case 'powershell':
      return lines
        .map((l) => `$env:${l.name} = '${whole(l.signpost).replace(/['\u2018\u2019\u201a\u201b]/g, '$&$&')}'\r\n`)
        .join('');
  }
}
