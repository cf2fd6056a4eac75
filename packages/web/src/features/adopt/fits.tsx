/** How well each template fits a folder, and what is otherwise in it. */
import type { FitRow, TemplateRow } from '@nesting/contract';
import { many } from '../../app/words';
import { Nest } from '../../nest/nest';
import { nestOfTemplate } from '../../nest/of-template';
import { Heading } from '../../ui';

interface FitsProps {
  readonly fits: readonly FitRow[];
  readonly chosen: string;
  readonly templates: readonly TemplateRow[];
  readonly onChoose: (template: string) => void;
}

export function Fits({ fits, chosen, templates, onChoose }: FitsProps) {
  return (
    <section aria-label="Templates that fit" className="flex flex-col gap-1">
      <Heading>Templates, the best fitting first</Heading>
      <ul>
        {fits.map((f) => {
          const row = templates.find((t) => t.id === f.template);
          return (
            <li key={f.template}>
              <button
                type="button"
                aria-pressed={f.template === chosen}
                onClick={() => onChoose(f.template)}
                className={`flex w-full items-center gap-3 rounded-tray px-2 py-1 text-left text-sm ${f.template === chosen ? 'bg-chosen ring-1 ring-plum ring-inset' : 'hover:bg-bench'}`}
              >
                {row && (
                  <Nest root={nestOfTemplate(row.template)} width={64} height={44} label={`The shape of ${f.name}`} />
                )}
                <span className="min-w-0 flex-1 truncate font-semibold">{f.name}</span>
                <span className="text-ink2 tabular-nums">{Math.round(f.score * 100)} of 100</span>
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

export function FitShown({ fit }: { fit: FitRow }) {
  const parts = [
    {
      title: `${many(fit.otherwise.length, 'folder')} called otherwise`,
      lines: fit.otherwise.map((o) => ({ path: o.path, note: `planned as ${o.planned}` })),
      none: 'Every folder found has the name the template gives it.',
    },
    {
      title: `${many(fit.missing.length, 'folder')} it lacks`,
      lines: fit.missing.map((path) => ({ path, note: 'not there' })),
      none: 'Nothing the template always makes is missing.',
    },
    {
      title: `${many(fit.unplanned.length, 'folder')} no rule knows`,
      lines: fit.unplanned.map((path) => ({ path, note: 'stays as it is' })),
      none: 'The template knows every folder.',
    },
  ];
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled by keyboard
    <div tabIndex={0} className="flex min-h-0 flex-1 flex-col gap-5 overflow-auto">
      <p className="text-lg">
        <strong className="font-semibold">{many(fit.matched, 'folder')} fit.</strong>
      </p>
      {parts.map((p) => (
        <section key={p.title} aria-label={p.title} className="flex flex-col gap-1">
          <Heading>{p.title}</Heading>
          {p.lines.length === 0 && <p className="text-sm text-ink2">{p.none}</p>}
          <ul>
            {p.lines.slice(0, 200).map((l) => (
              <li key={l.path} className="flex items-baseline justify-between gap-3 border-b border-line py-1">
                <span className="min-w-0 font-mono text-sm break-all">{l.path}</span>
                <span className="shrink-0 text-xs text-ink2">{l.note}</span>
              </li>
            ))}
          </ul>
          {p.lines.length > 200 && <p className="text-xs text-ink2">…and {p.lines.length - 200} more</p>}
        </section>
      ))}
    </div>
  );
}
