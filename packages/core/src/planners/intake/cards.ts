/**
 * Cards of cameras and recorders: trees whose structure belongs to the device. They stay as they are, for its own
 * programs find their way by it.
 */
import { nameOf, parentOf, partsOf } from '../../listing/entry';
import type { ProjectRules } from '../../project/rules';
import type { LooseFile } from './recognise';

export interface Card {
  /** From the source's root; empty where the source itself is one. */
  readonly path: string;
  readonly files: readonly LooseFile[];
}

/** Folders of pictures as the standard for camera file systems (DCF) names them. */
const DCF_ROOT = /^DCIM$/i;
const DCF_FOLDER = /^[1-9]\d{2}[A-Z0-9_]{5}$/;
const OF_DEVICE = /^[A-Z0-9_-]+$/;

/** @param said - what a person says of a folder: that it is one, or none */
export function cardsIn(rules: ProjectRules, files: readonly LooseFile[], said: ReadonlyMap<string, boolean>): Card[] {
  const tops = new Map<string, LooseFile[]>();
  for (const file of files) {
    const root = rootOf(file.path, said);
    const known = tops.get(root);
    if (known === undefined) tops.set(root, [file]);
    else known.push(file);
  }
  const whole = said.get('') ?? isOfDevice(rules, '', files);
  if (whole) return [{ path: '', files }];
  return [...tops]
    .filter(([path, some]) => path !== '' && (said.get(path) ?? isOfDevice(rules, path, some)))
    .map(([path, some]) => ({ path, files: some }));
}

/** The folder that a person spoke of, else the outermost one. */
function rootOf(path: string, said: ReadonlyMap<string, boolean>): string {
  for (let at = parentOf(path); at !== ''; at = parentOf(at)) if (said.has(at)) return at;
  return path.includes('/') ? path.slice(0, path.indexOf('/')) : '';
}

/**
 * Either the standard's own folder of pictures, or folders that are all in capitals, with nothing but folders and
 * indexes at the top, and indexes that no family knows.
 */
function isOfDevice(rules: ProjectRules, root: string, files: readonly LooseFile[]): boolean {
  const depth = root === '' ? 0 : partsOf(root).length;
  const ways = files.map(({ path }) => partsOf(path).slice(depth));
  if (
    ways.some(
      ([first = '', second = '', third]) => third !== undefined && DCF_ROOT.test(first) && DCF_FOLDER.test(second),
    )
  )
    return true;
  const deep = ways.filter((way) => way.length > 1);
  const isMachine = deep.length > 0 && deep.every((way) => way.slice(0, -1).every((name) => OF_DEVICE.test(name)));
  const isMedia = ({ path, facts }: LooseFile) => facts.has !== undefined || rules.familyOf(nameOf(path)) !== null;
  const hasIndex = files.some((file) => !isMedia(file) && !rules.isGenerated(nameOf(file.path)));
  const isTopEmpty = files.every((file, i) => (ways[i]?.length ?? 0) > 1 || !isMedia(file));
  return isMachine && hasIndex && isTopEmpty && files.some(isMedia);
}
