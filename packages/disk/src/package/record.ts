/** The files of a package that describe it, with the lists that prove it at their end. */
import { createHash } from 'node:crypto';
import { tagFiles } from '@nesting/core/package';
import { type PackedFile, sumsText } from '@nesting/core/report';
import type { RecordFile, ToPack } from './form';

export const sha256Of = (text: string): string => createHash('sha256').update(text).digest('hex');

export function recordOf(
  { layout, info, kind }: Pick<ToPack, 'layout' | 'info' | 'kind'>,
  files: readonly PackedFile[],
  record: readonly RecordFile[],
): readonly RecordFile[] {
  const payload = files.map(({ place, hash, size }) => ({ path: place, hash, size }));
  if (kind !== 'zip')
    return tagFiles(
      payload.map((one) => ({ ...one, path: one.path.slice('data/'.length) })),
      info,
      record,
      sha256Of,
    );
  const described = record.map(({ path, text }) => ({ path, hash: sha256Of(text) }));
  return [...record, { path: layout.sums ?? '', text: sumsText([...payload, ...described]) }];
}
