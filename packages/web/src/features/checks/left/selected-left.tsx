/** The selected folder: the largest files that programs left right in it. */
import type { LeftFolder } from '@nesting/core/planners';
import { useEffect, useState } from 'react';
import { ago, many, size } from '../../../app/words';
import { CopyButton, Heading } from '../../../ui';
import { checksWorker } from '../../../workers/checks';
import type { LeftRow } from '../../../workers/here-clearing';
import type { LeftWork } from './use-left';

const MOST_FILES = 100;

export function SelectedLeft({ work: { looked, wish }, row }: { work: LeftWork; row: LeftRow }) {
  const [files, setFiles] = useState<LeftFolder['files']>([]);
  useEffect(() => {
    let isWanted = true;
    void checksWorker()
      .leftFiles(row.path, wish, MOST_FILES)
      .then((found) => isWanted && setFiles(found));
    return () => {
      isWanted = false;
    };
  }, [row.path, wish]);
  const path = [looked?.folder.name ?? '', row.path].filter((part) => part !== '').join('/');
  return (
    <div className="flex flex-col gap-3 text-sm">
      <div className="flex flex-col gap-1">
        <Heading>
          {many(row.files, 'file')}, {size(row.bytes)}
        </Heading>
        <p className="flex items-start gap-1">
          <span className="min-w-0 flex-1 font-mono break-all">{path}</span>
          <CopyButton text={path} what="the path" />
        </p>
      </div>
      <ul aria-label="The largest files">
        {files.map((file) => (
          <li key={file.name} className="flex items-baseline gap-3 border-b border-line py-1">
            <span className="min-w-0 flex-1 font-mono text-xs break-all">{file.name}</span>
            <span className="shrink-0 text-xs text-ink2">{ago(new Date(file.modified).toISOString())}</span>
            <span className="w-16 shrink-0 text-right text-xs">{size(file.size)}</span>
          </li>
        ))}
      </ul>
      {row.files > files.length && files.length > 0 && (
        <p className="text-ink2">And {many(row.files - files.length, 'smaller file')}.</p>
      )}
    </div>
  );
}
