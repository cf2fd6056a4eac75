/**
 * What each system allows in a name and a path. Sources: POSIX.1-2017 3.282; Windows "Naming Files"; APFS and exFAT
 * specifications.
 */
export const PROFILE_NAMES = ['posix', 'windows', 'macos', 'exfat', 'object'] as const;
export type ProfileName = (typeof PROFILE_NAMES)[number];

export interface Profile {
  readonly name: ProfileName;
  readonly label: string;
  /** Characters refused beside `/`, NUL and control characters. */
  readonly forbidden: string;
  readonly reservedNames: boolean;
  readonly trailingDotOrBlank: boolean;
  readonly controls: boolean;
  /** Longest name, in UTF-8 bytes and UTF-16 units; 0 is no limit. */
  readonly nameBytes: number;
  readonly nameUnits: number;
  /** Longest whole path, in UTF-16 units, 0 is no limit; bytes for object keys. */
  readonly pathUnits: number;
  readonly pathBytes: number;
}

export const PROFILES: Readonly<Record<ProfileName, Profile>> = {
  posix: {
    name: 'posix',
    label: 'POSIX',
    forbidden: '',
    reservedNames: false,
    trailingDotOrBlank: false,
    controls: false,
    nameBytes: 255,
    nameUnits: 0,
    pathUnits: 0,
    pathBytes: 4095,
  },
  windows: {
    name: 'windows',
    label: 'Windows',
    forbidden: '<>:"\\|?*',
    reservedNames: true,
    trailingDotOrBlank: true,
    controls: true,
    nameBytes: 0,
    nameUnits: 255,
    pathUnits: 259,
    pathBytes: 0,
  },
  macos: {
    name: 'macos',
    label: 'macOS',
    forbidden: ':',
    reservedNames: false,
    trailingDotOrBlank: false,
    controls: false,
    nameBytes: 255,
    nameUnits: 255,
    pathUnits: 0,
    pathBytes: 1023,
  },
  exfat: {
    name: 'exfat',
    label: 'removable exFAT',
    forbidden: '<>:"\\|?*',
    reservedNames: false,
    trailingDotOrBlank: true,
    controls: true,
    nameBytes: 0,
    nameUnits: 255,
    pathUnits: 0,
    pathBytes: 0,
  },
  object: {
    name: 'object',
    label: 'object storage',
    forbidden: '\\{}^%`[]"<>~#|',
    reservedNames: false,
    trailingDotOrBlank: false,
    controls: true,
    nameBytes: 0,
    nameUnits: 0,
    pathUnits: 0,
    pathBytes: 1024,
  },
};

export const DEFAULT_PROFILES: readonly ProfileName[] = ['posix', 'windows', 'macos'];

/** Characters left for what programs add to a path (temporary and side files), in the default budget. */
export const DEFAULT_PATH_BUDGET = 240;

const RESERVED = new Set([
  'con',
  'prn',
  'aux',
  'nul',
  'conin$',
  'conout$',
  ...[...'0123456789¹²³'].flatMap((n) => [`com${n}`, `lpt${n}`]),
]);

/** Windows device names, with or without an extension (`nul`, `NUL.txt`, `com1 .log`). */
export function isReservedName(name: string): boolean {
  const dot = name.indexOf('.');
  const stem = dot < 0 ? name : name.slice(0, dot);
  // The longest of them has seven letters; blanks behind it do not count.
  return stem.trimEnd().length < 8 && RESERVED.has(stem.trimEnd().toLowerCase());
}
