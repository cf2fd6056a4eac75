/** Frames of one image sequence are one item: their findings hang on the name without its frame. */
import { nameOf } from '../listing/entry';
import type { CompiledConvention } from '../name/pattern/ops';

/** The subject of a finding about a frame, where the convention has frames; nothing where it has none. */
export function frameless(convention: CompiledConvention, path: string): { subject: string } | Record<string, never> {
  if (!convention.slots.some((slot) => slot.field === 'frame')) return {};
  const name = nameOf(path);
  // The frame is the number just before the extension, broken names included.
  const cut = name.replace(/\d+(\.[A-Za-z0-9]+)$/, '#$1');
  return cut === name ? {} : { subject: path.slice(0, path.length - name.length) + cut };
}
