/** What a working week does to a project: each damage with the findings that name it, and no others. Deterministic. */
import { CONTENT_DAMAGES } from './content-damages';
import type { DiskDamage } from './damage-kinds';
import { FOLDER_DAMAGES } from './folder-damages';
import { NAME_DAMAGES } from './name-damages';

export const DISK_DAMAGES: readonly DiskDamage[] = [...FOLDER_DAMAGES, ...NAME_DAMAGES, ...CONTENT_DAMAGES];
