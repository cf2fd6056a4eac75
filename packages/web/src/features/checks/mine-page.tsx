/** What is mine to put right, in all projects. */

import { troubleOf } from '../../app/api';
import { many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Trouble } from '../../ui';
import { findingsApi } from '../findings/findings-api';
import { ChecksNav } from './checks-nav';
import { PersonList } from './person-list';
import { RenamedLately } from './renamed-lately';

export function MinePage() {
  const { data, isError, error, refetch } = findingsApi.useMyFindingsQuery();
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  if (data === undefined) return null;
  const all = data.projects.reduce((n, p) => n + p.findings.length + p.more, 0);
  return (
    <Columns
      id="checks"
      labels={['Checks', 'Mine', 'What it is']}
      given={<ChecksNav />}
      plan={
        <div className="flex min-h-0 flex-1 flex-col gap-4 overflow-auto">
          <h1 className="text-xl font-semibold">Mine to put right</h1>
          <PersonList list={data} linked mayRepair />
          <RenamedLately />
        </div>
      }
      consequence={
        <p className="text-sm text-ink2">
          Names that carry your initials <span className="font-mono text-plum">{data.initials}</span>, and what was
          given to you. Open a project to see each with its reasons.
        </p>
      }
      ledger={
        <p className="flex-1">
          <strong className="font-semibold">{many(all, 'finding')}</strong>{' '}
          <span className="text-ink2">in {many(data.projects.length, 'project')}.</span>
        </p>
      }
    />
  );
}
