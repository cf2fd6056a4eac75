/** What of a project must be delivered, by which day, and whether it is there. */
import type { DueLine } from '@nesting/contract';
import { troubleOf } from '../../app/api';
import { day, many } from '../../app/words';
import { Heading, Refused } from '../../ui';
import { projectsApi } from './projects-api';

/** A section of a page, or folded under its heading where the page is about something else. */
export function DueList({ project, isFolded = false }: { project: string; isFolded?: boolean }) {
  const { data = [], error } = projectsApi.useDueQuery(project, { refetchOnMountOrArgChange: true });
  if (error) return <Refused words={troubleOf(error)} />;
  if (data.length === 0) return null;
  const late = data.filter(({ isLate }) => isLate).length;
  const there = data.filter(({ file }) => file !== null).length;
  const heading = `What is due, ${there} of ${data.length} there`;
  const lines = (
    <ul className="text-sm">
      {data.map((due) => (
        <Due key={`${due.folder} ${due.name} ${due.entry}`} due={due} />
      ))}
    </ul>
  );
  const warning = late > 0 && (
    <p className="text-sm font-semibold text-brick">
      {many(late, 'delivery', 'deliveries')} {late === 1 ? 'is' : 'are'} late.
    </p>
  );
  return isFolded ? (
    <div>
      <details>
        <summary className="cursor-pointer text-sm font-semibold">{heading}</summary>
        {lines}
      </details>
      {warning}
    </div>
  ) : (
    <section aria-label="What is due" className="flex flex-col gap-2">
      <Heading>{heading}</Heading>
      {warning}
      {lines}
    </section>
  );
}

function Due({ due: { name, folder, entry, by, file, isLate } }: { due: DueLine }) {
  return (
    <li className="flex items-baseline gap-3 border-b border-line py-1.5">
      <span className="min-w-0 flex-1">
        {name}
        {entry !== null && <span className="font-mono"> {entry}</span>}
        <span className="block font-mono text-xs break-all text-ink2">{file ?? `${folder}/`}</span>
      </span>
      <span
        className={`shrink-0 text-xs ${file !== null ? 'text-bottle' : isLate ? 'font-semibold text-brick' : 'text-ink2'}`}
      >
        {stateWords({ by, file, isLate })}
      </span>
    </li>
  );
}

function stateWords({ by, file, isLate }: Pick<DueLine, 'by' | 'file' | 'isLate'>): string {
  if (file !== null) return 'there';
  if (by === null) return 'no day set';
  return isLate ? `late since ${day(by)}` : `by ${day(by)}`;
}
