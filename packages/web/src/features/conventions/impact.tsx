/** What would happen to the files that are there, were the draft put in force: by project, with examples. */
import type { ConventionImpact, ImpactRow } from '@nesting/contract';
import { count, many } from '../../app/words';
import { Heading } from '../../ui';
import { Pair } from '../templates/folder-facts';

interface NameImpactProps {
  readonly impact: ConventionImpact | null;
  readonly edition: number;
  readonly waiting: boolean;
  readonly trouble: string | null;
}

export function NameImpact({ impact, edition, waiting, trouble }: NameImpactProps) {
  return (
    <section aria-label="If it is put in force" className={`flex flex-col gap-3 ${waiting ? 'opacity-70' : ''}`}>
      <Heading>If edition {edition} comes into force</Heading>
      {trouble !== null && <p className="text-sm text-brick">{trouble}</p>}
      {impact !== null &&
        (impact.projects.length === 0 ? (
          <p className="text-sm text-ink2">No running project uses it, so no file is concerned.</p>
        ) : (
          <Counts impact={impact} />
        ))}
    </section>
  );
}

function Counts({ impact: { projects, names } }: { impact: ConventionImpact }) {
  const sum = (key: 'still' | 'starts' | 'stops' | 'breaks') => projects.reduce((n, p) => n + p[key], 0);
  const concerned = projects.filter((p) => p.stops > 0 || p.starts > 0 || p.trouble !== null);
  return (
    <>
      <dl className="grid grid-cols-[1fr_auto] gap-x-3 gap-y-1 text-sm [&_dd]:text-right [&_dd]:font-mono">
        <Pair what="still follow" words={count(sum('still'))} />
        <Pair what="will follow" words={count(sum('starts'))} />
        <Pair
          what="will break the rule"
          words={<span className={sum('stops') > 0 ? 'font-semibold text-brick' : ''}>{count(sum('stops'))}</span>}
        />
        <Pair what="break it either way" words={count(sum('breaks'))} />
      </dl>
      <p className="text-xs text-ink2">
        {many(names, 'file')} in {many(projects.length, 'running project')} looked at. They keep the edition they were
        started with until their own plan says otherwise.
      </p>
      <ul className="flex flex-col gap-3">
        {concerned.map((p) => (
          <Project key={`${p.project.id}`} row={p} />
        ))}
      </ul>
    </>
  );
}

function Project({ row }: { row: ImpactRow }) {
  return (
    <li className="border-t border-line pt-2 text-sm">
      <p className="flex justify-between gap-3 font-mono">
        <span className="break-all">{row.project.folder}</span>
        <span className="shrink-0 text-ink2">
          {row.stops > 0 && `−${count(row.stops)}`} {row.starts > 0 && `+${count(row.starts)}`}
        </span>
      </p>
      {row.trouble && <p className="text-brick">{row.trouble}</p>}
      <ul className="mt-1 flex flex-col gap-1 font-mono text-xs break-all">
        {row.stopExamples.slice(0, 3).map((e) => (
          <li key={e.name}>
            <span className="wavy">{e.name}</span>
            {e.meant && <span className="block text-bottle">{e.meant}</span>}
          </li>
        ))}
        {row.startExamples.slice(0, 3).map((name) => (
          <li key={name} className="text-bottle">
            {name}
          </li>
        ))}
      </ul>
    </li>
  );
}
