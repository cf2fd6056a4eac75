/** About the selected row: both sides of it, and by what they were found to be one. */
import type { Comparison } from '@nesting/contract';
import { EVIDENCE_WORDS } from '@nesting/core/words';
import { Link } from 'react-router';
import { many, moment, size } from '../../app/words';
import { CopyButton, Heading } from '../../ui';
import type { Row } from './compare-api';
import { stateWords } from './compare-line';
import { sideWords } from './compare-rows';

interface Props {
  readonly row: Row;
  readonly sides: Comparison;
}

export function SelectedRow({ row, sides: { left, right } }: Props) {
  const words = stateWords(row, sideWords({ left, right }));
  return (
    <div className="flex flex-col gap-4 text-sm">
      <div className="flex flex-col gap-1">
        <Heading>{words.replace(/^./, (c) => c.toUpperCase())}</Heading>
        {row.evidence !== null && <p className="text-ink2">{EVIDENCE_WORDS[row.evidence]}</p>}
        {row.isUnread && (
          <p className="text-ink2">
            Both are as large as each other and were written at different times. They were not read.
          </p>
        )}
      </div>
      <Side project={left} item={row.left} />
      <Side project={right} item={row.right} />
    </div>
  );
}

function Side({ project, item }: { project: Comparison['left']; item: Row['left'] }) {
  return (
    <section className="flex flex-col gap-1 rounded-tray border border-line bg-sheet px-3 py-2">
      <p className="text-xs">
        <Link to={`/projects/${project.id}`} className="font-semibold text-plum hover:underline">
          {project.number} {project.title}
        </Link>
      </p>
      {item === null ? (
        <p className="text-ink2">It is not there.</p>
      ) : (
        <>
          <p className="flex items-start gap-1">
            <span className="min-w-0 flex-1 font-mono break-all">{item.path}</span>
            <CopyButton text={item.path} what="the path" />
          </p>
          <p className="text-xs text-ink2">
            {size(item.size)}
            {item.frames > 1 && ` in ${many(item.frames, 'frame')}`}, written{' '}
            {moment(new Date(item.modified).toISOString())}
          </p>
        </>
      )}
    </section>
  );
}
