/** Blocks of the house: parts of hierarchies kept once and used in several templates. */

import type { BlockRow } from '@nesting/contract';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { troubleOf } from '../../app/api';
import { many } from '../../app/words';
import { Nest } from '../../nest/nest';
import { nestOfTemplate } from '../../nest/of-template';
import { Empty, Trouble } from '../../ui';
import { sizeOfTemplate } from '../templates/size';
import { templateOfBlock } from './as-template';
import { blocksApi } from './blocks-api';

export function BlocksPage() {
  const { data = [], isLoading, isError, error, refetch } = blocksApi.useBlocksQuery();
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  return (
    <div className="overflow-auto px-8 py-6">
      <h1 className="text-xl font-semibold">Shared parts</h1>
      <p className="pb-5 text-ink2">
        Parts of hierarchies that are kept once and used in several templates. A shared part is changed once; each
        template takes the change up with what it made of its own copy.
      </p>
      {!isLoading && data.length === 0 && (
        <Empty title="No shared part yet">
          Open a template, choose a folder, make what is in it a shared part, and share that:{' '}
          <Link to="/templates" className="text-bottle underline">
            all templates
          </Link>
          .
        </Empty>
      )}
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(300px,1fr))] gap-4">
        {data.map((row) => (
          <li key={row.id}>
            <Card row={row} />
          </li>
        ))}
      </ul>
    </div>
  );
}

function Card({ row }: { row: BlockRow }) {
  const template = useMemo(() => templateOfBlock(row.id, row, []), [row]);
  const behind = row.usedIn.filter((u) => u.edition < row.edition).length;
  return (
    <div className="relative flex h-full gap-4 rounded-tray border border-line bg-sheet p-4 hover:border-ink">
      <Nest root={nestOfTemplate(template)} width={104} height={84} label={`The shape of ${row.name}`} />
      <span className="flex min-w-0 flex-1 flex-col">
        <Link
          to={`/blocks/${encodeURIComponent(row.id)}`}
          className="text-lg font-semibold after:absolute after:inset-0"
        >
          {row.name}
        </Link>
        <span className="flex-1 pb-2 text-sm text-ink2">
          {row.usedIn.length === 0 ? 'In no template' : `In ${row.usedIn.map((u) => u.name).join(', ')}`}
        </span>
        <span className="text-xs text-note">
          edition {row.edition}
          {row.draft ? ' and a draft' : ''} · {many(sizeOfTemplate(template).folders - 1, 'folder')}
          {behind > 0 ? ` · ${many(behind, 'template')} on an earlier edition` : ''}
        </span>
      </span>
    </div>
  );
}
