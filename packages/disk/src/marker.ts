/**
 * Reads a project's own folder: the marker, and the rules it was made by. Everything in it is checked as if a stranger
 * wrote it.
 */
import { readFileSync } from 'node:fs';
import { codeOf } from '@nesting/core/change';
import { MARKER_PATH, MARKER_REGISTERS_PATH, MARKER_TEMPLATE_PATH } from '@nesting/core/planners';
import { inside } from './guard';

export interface MarkerTexts {
  readonly marker: string;
  readonly template: string | null;
  readonly registers: string | null;
}

/** The texts of a project's marker files, or `null` where the folder has no marker. */
export function readMarker(root: string): MarkerTexts | null {
  const marker = textAt(root, MARKER_PATH);
  return marker === null
    ? null
    : { marker, template: textAt(root, MARKER_TEMPLATE_PATH), registers: textAt(root, MARKER_REGISTERS_PATH) };
}

function textAt(root: string, path: string): string | null {
  const absolute = inside(root, path);
  if (!absolute.ok) return null;
  try {
    return readFileSync(absolute.value, 'utf8');
  } catch (error) {
    if (codeOf(error) === 'ENOENT') return null;
    throw error;
  }
}
