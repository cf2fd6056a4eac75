/** Findings on paper: one project's, one person's, and a list behind a link for who has no account at hand. */

import type { KeptFinding } from '@nesting/contract';
import { RULE_WORDS } from '@nesting/core/words';
import { type ReactNode, useEffect } from 'react';
import { Link, useLocation, useParams } from 'react-router';
import { troubleOf } from '../../app/api';
import { day, many } from '../../app/words';
import { Button, Trouble } from '../../ui';
import { WeightSign } from '../../ui/signs';
import { findingsApi } from '../findings/findings-api';
import { projectsApi } from '../projects/projects-api';
import { PersonList } from './person-list';

function Paper({ back, children }: { back?: ReactNode; children: ReactNode }) {
  return (
    <div className="min-h-0 flex-1 overflow-auto px-8 py-6 print:overflow-visible print:p-0">
      <div className="flex gap-3 pb-4 print:hidden">
        {back}
        <Button className="ml-auto" onClick={() => print()}>
          Print
        </Button>
      </div>
      <article className="mx-auto max-w-3xl">{children}</article>
    </div>
  );
}

/** Everything that stands in one project, under its causes. */
export function FindingsPaperPage() {
  const { id = '' } = useParams();
  const { data: project } = projectsApi.useProjectQuery(id);
  const { data, hasNextPage, fetchNextPage, isFetching, isError, error } = findingsApi.useFindingsInfiniteQuery({
    project: id,
    group: 'cause',
  });
  // On paper everything is there.
  useEffect(() => {
    if (hasNextPage && !isFetching) void fetchNextPage();
  }, [hasNextPage, isFetching, fetchNextPage]);
  if (isError) return <Trouble message={troubleOf(error)} />;
  if (project === undefined || data === undefined) return null;
  const rows = data.pages.flatMap((p) => p.rows);
  const causes = Map.groupBy(rows, (f: KeptFinding) => f.rule);
  return (
    <Paper
      back={
        <Link to={`/projects/${id}?view=findings`} className="text-sm text-bottle hover:underline">
          Back to the project
        </Link>
      }
    >
      <p className="font-mono">{project.folder}</p>
      <h1 className="text-2xl font-semibold">{project.title}: to put right</h1>
      <p className="pb-4 text-ink2">
        {many(rows.length, 'finding')}
        {project.check ? `, checked ${day(project.check.at)}` : ''}
        {hasNextPage ? '; more are on their way…' : ''}
      </p>
      {[...causes].map(([rule, findings]) => (
        <section key={rule} className="pb-5">
          <h2 className="text-lg font-semibold">
            {RULE_WORDS[rule].title} <span className="font-normal text-ink2 tabular-nums">{findings.length}</span>
          </h2>
          <p className="pb-1 text-sm text-ink2">{RULE_WORDS[rule].reason}</p>
          <ul>
            {findings.map((f) => (
              <li key={f.id} className="flex gap-3 border-b border-line py-1.5 text-sm break-inside-avoid">
                <span className="pt-1">
                  <WeightSign weight={f.weight} />
                </span>
                <div className="min-w-0 flex-1">
                  <p className="font-mono break-all">{f.path || '.'}</p>
                  <p>{f.message}</p>
                  {f.suggestion && (
                    <p>
                      Call it <span className="font-mono">{f.suggestion.name}</span>
                    </p>
                  )}
                  {f.note !== '' && <p className="text-ink2">{f.note}</p>}
                </div>
                <span className="font-mono">{f.to}</span>
              </li>
            ))}
          </ul>
        </section>
      ))}
    </Paper>
  );
}

export function PersonPaperPage() {
  const { initials = '' } = useParams();
  const { data, isError, error } = findingsApi.useListOfQuery(initials);
  if (isError) return <Trouble message={troubleOf(error)} />;
  return data === undefined ? null : (
    <Paper
      back={
        <Link to={`/checks/people?person=${initials}`} className="text-sm text-bottle hover:underline">
          Back
        </Link>
      }
    >
      <h1 className="pb-4 text-2xl font-semibold">{data.name}: to put right</h1>
      <PersonList list={data} linked={false} />
    </Paper>
  );
}

/** Opened by a link alone: the secret stands behind the hash sign and goes to no log. */
export function YoursPage() {
  const secret = useLocation().hash.slice(1);
  const { data, isError, error } = findingsApi.useYoursQuery(secret, { skip: secret === '' });
  return (
    <main className="flex h-full flex-col">
      {isError || secret === '' ? (
        <Trouble
          message={secret === '' ? 'This address is not whole: open the link as it was given.' : troubleOf(error)}
        />
      ) : (
        data && (
          <Paper>
            <h1 className="text-2xl font-semibold">{data.name}: to put right</h1>
            <p className="pb-4 text-ink2">As it stands now. Whoever has this link sees this list, and nothing else.</p>
            <PersonList list={data} linked={false} />
          </Paper>
        )
      )}
    </main>
  );
}
