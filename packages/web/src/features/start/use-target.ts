/** What stands at the place a start is to be written to. */
import type { Look, VolumeRow } from '@nesting/contract';
import type { Expansion } from '@nesting/core/template';
import { useMemo } from 'react';
import { useDebounced } from '../../app/use-debounced';
import { startsApi } from './starts-api';

/** Looked up a moment after the last letter: another project, or a folder that stands there already. */
export function useClash(
  number: string,
  volume: VolumeRow | undefined,
  folder: string,
): { clash: string | null; adds: boolean; note: string | null } {
  const asked = useDebounced(
    useMemo(() => ({ number, volume: volume?.name ?? '', folder }), [number, volume?.name, folder]),
    250,
  );
  const { data, originalArgs } = startsApi.useLookQuery(asked, {
    skip: asked.volume === '' || (asked.folder === '' && asked.number === ''),
    refetchOnMountOrArgChange: true,
    pollingInterval: 15_000,
  });
  if (data === undefined || originalArgs?.folder !== folder || originalArgs.number !== number)
    return { clash: null, adds: false, note: null };
  return {
    clash: clashOf(data, number, folder, volume?.name ?? ''),
    adds: data.folderOnDisk && !data.folderTaken,
    note: data.numberNote,
  };
}

function clashOf(look: Look, number: string, folder: string, volume: string): string | null {
  if (look.numberReserved !== null) return `The number ${number} is reserved: ${look.numberReserved}.`;
  if (look.numberTaken) return `The number ${number} belongs to another project.`;
  if (look.numberHeldBy !== null) return `The number ${number} is held for ${look.numberHeldBy} just now.`;
  if (look.folderTaken || look.folderOnDisk) return `${folder} exists already on ${volume}.`;
  return null;
}

const NOTHING: readonly string[] = [];

/** Which of the planned paths are in the folder that is added to. */
export function useThere(volume: VolumeRow | undefined, expansion: Expansion): readonly string[] {
  const paths = useMemo(() => expansion.lines.filter((l) => l.made && l.path !== '').map((l) => l.path), [expansion]);
  const asked = useDebounced(
    useMemo(
      () => ({ volume: volume?.name ?? '', folder: expansion.rootName, paths }),
      [volume?.name, expansion.rootName, paths],
    ),
    250,
  );
  const { data } = startsApi.usePathsThereQuery(asked, { skip: volume === undefined || asked.folder === '' });
  return volume === undefined ? NOTHING : (data ?? NOTHING);
}
