/**
 * Reads a project's own folder: the marker, and the rules it was made by. Everything in it is checked as if a stranger
 * wrote it.
 */
import { codeOf } from '@nesting/core/change';
import { join } from '@nesting/core/listing';
import { MARKER_PATH, MARKER_REGISTERS_PATH, MARKER_TEMPLATE_PATH } from '@nesting/core/planners';
import { readText } from './roots/plain-file';
import type { Root } from './roots/root';

export interface MarkerTexts {
  readonly marker: string;
  readonly template: string | null;
  readonly registers: string | null;
}

/** The texts of a project's marker files, or `null` where the folder has no marker. */
export function readMarker(root: Root): MarkerTexts | null {
  const marker = textAt(root, MARKER_PATH);
  return marker === null
    ? null
    : { marker, template: textAt(root, MARKER_TEMPLATE_PATH), registers: textAt(root, MARKER_REGISTERS_PATH) };
}

/** Rules of a large house take some hundred kilobytes. */
const MOST_BYTES = 32 * 2 ** 20;

const NOTHING: ReadonlySet<string> = new Set(['ENOENT', 'ENOTDIR', 'ELOOP']);

/** The marker of a folder somewhere below a root. @throws `ENOTFILE`, `EFBIG`, `EACCES` where one is there and cannot be read */
export const markerIn = (root: Root, folder: string): string | null => textAt(root, join(folder, MARKER_PATH));

function textAt(root: Root, path: string): string | null {
  try {
    return readText(root, path, MOST_BYTES);
  } catch (error) {
    if (NOTHING.has(codeOf(error))) return null;
    throw error;
  }
}
