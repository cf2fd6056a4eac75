/** The template a project starts from: known by its nest, found by its words. */
import type { TemplateRow } from '@nesting/contract';
import { useMemo, useState } from 'react';
import { found } from '../../grid/sort';
import { Nest } from '../../nest/nest';
import { nestOfTemplate } from '../../nest/of-template';
import { Button, Popover, TextInput, Tip } from '../../ui';

interface Props {
  readonly row: TemplateRow;
  readonly all: readonly TemplateRow[];
  readonly onChoose: (id: string) => void;
}

/** Templates that stand side by side; more of them are found by their words. */
const SIDE_BY_SIDE = 5;

export function TemplateChoice({ row, all, onChoose }: Props) {
  const others = all.filter((t) => t.id !== row.id);
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-2 pb-3">
      <Shape row={row} width={84} />
      <span className="min-w-0 flex-1">
        <span className="block truncate font-semibold">{row.name}</span>
        <span className="block truncate text-xs text-ink2">
          edition {row.edition}
          {row.projects > 0 ? `, used by ${row.projects}` : ''}
        </span>
      </span>
      <ul aria-label="Other templates" className="flex items-center gap-1.5">
        {others.slice(0, SIDE_BY_SIDE).map((t) => (
          <li key={t.id}>
            <Tip words={t.name}>
              <button
                type="button"
                aria-label={`Start from ${t.name}`}
                onClick={() => onChoose(t.id)}
                className="rounded-tray p-1 opacity-70 hover:bg-bench hover:opacity-100 focus-visible:opacity-100"
              >
                <Shape row={t} width={46} />
              </button>
            </Tip>
          </li>
        ))}
      </ul>
      <FindTemplate row={row} all={all} onChoose={onChoose} />
    </div>
  );
}

function FindTemplate({ row, all, onChoose }: Props) {
  const [open, setOpen] = useState(false);
  const [words, setWords] = useState('');
  const shown = found(all, words, (t) => `${t.name} ${t.purpose}`);
  const choose = (id: string) => {
    setOpen(false);
    setWords('');
    onChoose(id);
  };
  return (
    <Popover
      label="Find a template"
      open={open}
      onOpen={setOpen}
      width="w-96"
      trigger={<Button variant="quiet">Find…</Button>}
    >
      <form
        className="p-1"
        onSubmit={(e) => {
          e.preventDefault();
          if (shown[0]) choose(shown[0].id);
        }}
      >
        <TextInput
          aria-label="Find a template"
          placeholder="Find a template"
          value={words}
          autoComplete="off"
          onChange={(e) => setWords(e.target.value)}
        />
      </form>
      <ul aria-label="Templates">
        {shown.map((t) => (
          <li key={t.id}>
            <button
              type="button"
              aria-pressed={t.id === row.id}
              onClick={() => choose(t.id)}
              className={`flex w-full items-center gap-3 rounded-tray p-1.5 text-left ${t.id === row.id ? 'bg-chosen' : 'hover:bg-bench'}`}
            >
              <Shape row={t} width={64} />
              <span className="min-w-0 flex-1">
                <span className="block truncate font-semibold">{t.name}</span>
                <span className="line-clamp-2 text-xs text-ink2">{t.purpose}</span>
              </span>
            </button>
          </li>
        ))}
      </ul>
      {shown.length === 0 && <p className="px-2 py-3 text-sm text-ink2">No template found.</p>}
    </Popover>
  );
}

function Shape({ row, width }: { row: TemplateRow; width: number }) {
  const nest = useMemo(() => nestOfTemplate(row.template), [row.template]);
  return <Nest root={nest} width={width} height={Math.round(width * 0.7)} label={`The shape of ${row.name}`} />;
}
