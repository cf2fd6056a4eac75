/** What refers to the file or folder a finding is about, and what it refers to itself: as the last check read it. */
import type { References } from '@nesting/contract';
import { Heading } from '../../ui';
import { findingsApi } from './findings-api';

/** References shown of each kind. */
const MOST = 8;

interface Props {
  readonly project: string;
  readonly path: string;
}

export function Referring({ project, path }: Props) {
  const { currentData } = findingsApi.useReferencesQuery({ project, of: path }, { skip: path === '' });
  if (currentData === undefined || currentData.by.length + currentData.to.length === 0) return null;
  const isFolder = [...currentData.by.map((r) => r.target), ...currentData.to.map((r) => r.document)].some(
    (file) => file !== path,
  );
  return (
    <>
      <Some
        title={isFolder ? 'Refer to what is in it' : 'Refer to it'}
        lines={currentData.by.map(({ document, target }) => [document, isFolder ? target : null])}
      />
      <Some title={isFolder ? 'What is in it refers to' : 'It refers to'} lines={currentData.to.map(referred)} />
    </>
  );
}

const referred = ({ written, target }: References['to'][number]): readonly [string, string | null] =>
  target === null ? [written, 'out of the project'] : [target, null];

function Some({ title, lines }: { title: string; lines: readonly (readonly [string, string | null])[] }) {
  if (lines.length === 0) return null;
  return (
    <div className="flex flex-col gap-2">
      <Heading>{title}</Heading>
      <ul className="flex flex-col gap-1 text-xs">
        {lines.slice(0, MOST).map(([path, note]) => (
          <li key={`${path} ${note}`}>
            <span className="font-mono break-all">{path}</span>
            {note !== null && <span className="text-ink2"> · {note}</span>}
          </li>
        ))}
        {lines.length > MOST && <li className="text-ink2">and {lines.length - MOST} more</li>}
      </ul>
    </div>
  );
}
