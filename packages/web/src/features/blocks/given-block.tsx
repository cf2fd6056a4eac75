/** What is known of a block at left: its name, where it is used, its editions. */
import type { BlockBody, BlockEditionRow, BlockRow } from '@nesting/contract';
import { diffTemplates } from '@nesting/core/template';
import { differenceWords } from '@nesting/core/words';
import { useId, useMemo } from 'react';
import { Link } from 'react-router';
import { ago, many } from '../../app/words';
import { Nest } from '../../nest/nest';
import { nestOfTemplate } from '../../nest/of-template';
import { Heading, Labelled, TextInput } from '../../ui';
import { templateOfBlock } from './as-template';
import { blocksApi } from './blocks-api';

interface GivenBlockProps {
  readonly row: BlockRow;
  readonly body: BlockBody;
  readonly template: ReturnType<typeof templateOfBlock>;
  readonly mayWrite: boolean;
  readonly onName: (name: string) => void;
}

export function GivenBlock({ row, body, template, mayWrite, onName }: GivenBlockProps) {
  const id = useId();
  return (
    <div className="flex flex-col gap-4">
      <Link to="/blocks" className="text-sm text-bottle hover:underline">
        All shared parts
      </Link>
      <h1 className="sr-only">{body.name}</h1>
      <Labelled id={id} label="Shared part">
        <TextInput
          id={id}
          value={body.name}
          readOnly={!mayWrite}
          onChange={(e) => onName(e.target.value)}
          className="text-lg font-semibold"
        />
      </Labelled>
      <Nest root={nestOfTemplate(template)} width={200} height={110} label={`The shape of ${body.name}`} />
      <UsedIn row={row} />
      <Editions block={row.id} />
    </div>
  );
}

function UsedIn({ row }: { row: BlockRow }) {
  return (
    <section aria-label="Where it is used" className="flex flex-col gap-1 text-sm">
      <Heading>Where it is used</Heading>
      {row.usedIn.length === 0 && (
        <p className="text-ink2">In no template yet: open one, choose a folder, and put it in.</p>
      )}
      <ul>
        {row.usedIn.map((u) => (
          <li key={u.template} className="flex justify-between gap-3 border-b border-line py-1">
            <Link to={`/templates/${encodeURIComponent(u.template)}`} className="text-bottle hover:underline">
              {u.name}
            </Link>
            <span className="text-note">{u.edition === row.edition ? 'as it is now' : `edition ${u.edition}`}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Editions({ block }: { block: string }) {
  const { data: editions = [] } = blocksApi.useBlockEditionsQuery(block);
  return (
    <section aria-label="Editions" className="flex flex-col gap-1 text-sm">
      <Heading>Editions</Heading>
      <ul>
        {editions.map((e, i) => (
          <EditionLine key={e.edition} block={block} edition={e} before={editions[i + 1]} />
        ))}
      </ul>
    </section>
  );
}

interface EditionProps {
  readonly block: string;
  readonly edition: BlockEditionRow;
  readonly before: BlockEditionRow | undefined;
}

/** One edition, with what is otherwise in it than in the one before. */
function EditionLine({ block, edition, before }: EditionProps) {
  const words = useMemo(
    () =>
      before === undefined
        ? []
        : diffTemplates(templateOfBlock(block, before, []), templateOfBlock(block, edition, [])).map(differenceWords),
    [block, before, edition],
  );
  return (
    <li className="border-b border-line py-1">
      <span className="font-semibold">{edition.edition}</span> {edition.said}{' '}
      <span className="text-xs text-ink2">
        {ago(edition.at)}
        {edition.by ? `, ${edition.by}` : ''}
      </span>
      {words.length > 0 && (
        <details className="text-xs">
          <summary className="cursor-pointer text-bottle">{many(words.length, 'difference')}</summary>
          <ul className="list-inside list-disc">
            {words.slice(0, 60).map((w) => (
              <li key={w}>{w}</li>
            ))}
          </ul>
        </details>
      )}
    </li>
  );
}
