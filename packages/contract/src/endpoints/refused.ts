/** Refusals that several rows share. */
import type { RefusalCode } from '@nesting/core/words';

/** A folder that cannot be looked at. */
export const FOLDER = [
  'no-volume',
  'root-missing',
  'path-refused',
  'path-link',
  'path-missing',
  'disk-silent',
  'disk-refused',
] as const satisfies readonly RefusalCode[];
/** A volume that cannot be written on. */
export const VOLUME = [
  'volume-missing',
  'volume-new',
  'volume-other',
  'volume-read-only',
] as const satisfies readonly RefusalCode[];
/** A folder that cannot be written. */
export const WRITING = [
  'no-room',
  'volume-full',
  'volume-closed',
  'volume-lost',
  'write-failed',
  'folder-exists',
  'disk-ended',
  'start-cancelled',
  'project-gone',
] as const satisfies readonly RefusalCode[];
/** A number that a project cannot have. */
export const NUMBER = [
  'number-missing',
  'number-held',
  'number-reserved',
  'number-taken',
] as const satisfies readonly RefusalCode[];
/** A change that cannot be carried out. */
export const BATCH = [
  'key-used',
  'batch-open',
  'batch-paused',
  'not-begun',
  'could-not-begin',
  'plan-stale',
  'no-room',
  'gave-up',
  'stopped',
  'asker-left',
  'taken-back',
  'batch-forgotten',
  'not-known',
] as const satisfies readonly RefusalCode[];
/** A project that cannot be planned anew. */
export const PLAN = [
  'no-project',
  'project-changed',
  'not-running',
  'artist-not-allowed',
  'no-template',
] as const satisfies readonly RefusalCode[];
/** Findings that cannot be planned to be put right. */
export const REPAIR = ['no-project', 'not-running'] as const satisfies readonly RefusalCode[];
