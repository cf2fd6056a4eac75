/** One person's findings, project by project: as a page, in a link, on paper. */
import type { PersonFindings } from '@nesting/contract';
import { nameOf, parentOf } from '@nesting/core/listing';
import type { Weight } from '@nesting/core/template';
import { Link } from 'react-router';
import { many } from '../../app/words';
import { WeightSign } from '../../ui/signs';

interface Props {
  readonly list: PersonFindings;
  /** Projects lead to their pages. */
  readonly linked: boolean;
  /** They also lead to the plan that puts this person's findings right. */
  readonly mayRepair?: boolean;
}

export function PersonList({ list, linked, mayRepair = false }: Props) {
  if (list.projects.length === 0) return <p className="text-bottle">Nothing to put right.</p>;
  return (
    <div className="flex flex-col gap-6">
      {list.projects.map((p) => (
        <section key={p.id} className="flex flex-col gap-2">
          <h2 className="flex flex-wrap items-baseline gap-x-3 text-lg font-semibold">
            <span className="font-mono text-plum">{p.number}</span>
            {linked ? (
              <Link to={`/projects/${p.id}?view=findings&person=${list.initials}`} className="hover:underline">
                {p.title}
              </Link>
            ) : (
              p.title
            )}
            {mayRepair && (
              <Link
                to={`/projects/${p.id}/repair?person=${list.initials}`}
                className="text-sm font-semibold text-bottle hover:underline"
              >
                Put right…
              </Link>
            )}
          </h2>
          <ul>
            {p.findings.map((f) => (
              <li key={`${f.rule} ${f.path}`} className="flex gap-3 border-b border-line py-2">
                <span className="pt-1">
                  <WeightSign weight={f.weight as Weight} />
                </span>
                <div className="min-w-0 flex-1">
                  <p className="font-mono break-all">{nameOf(f.path)}</p>
                  <p className="font-mono text-xs break-all text-ink2">{parentOf(f.path) || 'the project’s root'}</p>
                  <p className="text-sm">{f.message}</p>
                  {f.suggestion !== null && (
                    <p className="text-sm">
                      Call it <span className="font-mono text-bottle">{f.suggestion}</span>
                    </p>
                  )}
                </div>
              </li>
            ))}
          </ul>
          {p.more > 0 && <p className="text-sm text-ink2">and {many(p.more, 'more')}</p>}
        </section>
      ))}
    </div>
  );
}
