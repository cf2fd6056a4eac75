/** A name as far as it is known, and what stands in it before anybody writes. */
import type { Me, ProjectRow } from '@nesting/contract';
import { examplePieces, type Value, withFirstState, writePieces } from '@nesting/core/name';
import type { FolderConvention } from '@nesting/core/project';

export const isOptional = ({ strict }: FolderConvention, field: string): boolean =>
  strict.parts.some(
    (p) => p.kind === 'group' && p.parts.some((inner) => inner.kind === 'slot' && inner.field === field),
  );

/** The person's own initials, today, the project's title, and the only entry of a list. */
export function defaultsOf(
  { strict }: FolderConvention,
  me: Me,
  row: ProjectRow | null,
): Record<string, string | number> {
  const out: Record<string, string | number> = { ...withFirstState<string>(strict, {}) };
  for (const { field, domain } of strict.slots) {
    if (domain.kind === 'fixed' && domain.of === 'person' && domain.entries.some((e) => e.value === me.initials))
      out[field] = me.initials;
    else if (domain.kind === 'fixed' && domain.entries.length === 1) out[field] = String(domain.entries[0]?.value);
    else if (domain.kind === 'fixed' && domain.of === 'ext') out[field] = String(domain.entries[0]?.value);
    else if (domain.kind === 'date') out[field] = new Date().toLocaleDateString('sv');
    else if (field === 'title' && row) out[field] = row.title;
  }
  return out;
}

export interface Preview {
  readonly parts: readonly { text: string; label: string | null; ok: boolean }[];
  readonly complete: boolean;
}

/** The name as far as it is known; the version stands for the next free one. */
export function previewOf({ strict, bound }: FolderConvention, values: Readonly<Record<string, Value>>): Preview {
  const letters = strict.slots.some((s) => s.field === 'version' && s.domain.kind === 'letters');
  const all = { ...bound, ...values, version: letters ? 'A' : 1, frame: 1 };
  const written = writePieces(strict, all);
  const pieces = written.ok ? written.value : examplePieces(strict, all);
  const missing = new Set(written.ok ? [] : written.faults.map((f) => f.field));
  return {
    complete: written.ok,
    parts: pieces.map((p) => ({
      text: p.field === 'version' ? p.text.replace(/./g, '·') : missing.has(p.field ?? '') ? '?' : p.text,
      label: p.field === 'version' ? 'next free' : p.field,
      ok: !missing.has(p.field ?? ''),
    })),
  };
}
