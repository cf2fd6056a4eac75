/**
 * Loose files are brought into a project: what they come from and which are shown at left, where each goes in the
 * middle, the selected one at right.
 */
import type { Me, ProjectPage } from '@nesting/contract';
import type { Registers } from '@nesting/core/name';
import { useMemo } from 'react';
import { useOutletContext, useParams, useSearchParams } from 'react-router';
import { troubleOf } from '../../app/api';
import { usePageTitle } from '../../app/use-page-title';
import { useCarryOut } from '../../changes/use-carry-out';
import { Columns } from '../../columns/columns';
import { Empty, Trouble } from '../../ui';
import { houseApi } from '../house/house-api';
import { projectsApi } from '../projects/projects-api';
import { IntakeGiven } from './intake-given';
import { actWords, IntakeLedger } from './intake-ledger';
import { IntakeList } from './intake-list';
import { IntakeSelected } from './intake-selected';
import { useIntakeWork } from './intake-work';

export function IntakePage() {
  const { id = '' } = useParams();
  const me = useOutletContext<Me>();
  const [params] = useSearchParams();
  const project = projectsApi.useProjectQuery(id);
  const registers = houseApi.useRegistersQuery();
  const [volume, folder] = [params.get('volume'), params.get('folder') ?? ''];
  if (me.role !== 'coordinator')
    return <Empty title="Files are brought in by coordinators">You may look at the project, and not do that.</Empty>;
  const failed = [project, registers].find((q) => q.isError);
  if (failed) return <Trouble message={troubleOf(failed.error)} again={() => void failed.refetch()} />;
  if (!project.data || !registers.data) return null;
  if (volume === null) return <Empty title="Which files?">Choose where they lie under Files, Bring in.</Empty>;
  return (
    <Bringing
      key={`${id} ${volume}/${folder}`}
      project={project.data}
      registers={registers.data}
      volume={volume}
      folder={folder}
    />
  );
}

interface Props {
  readonly project: ProjectPage;
  readonly registers: Registers;
  readonly volume: string;
  readonly folder: string;
}

function Bringing({ project, registers, volume, folder }: Props) {
  usePageTitle(`Bring files into ${project.number} ${project.title}`);
  const place = useMemo(() => ({ volume, folder }), [volume, folder]);
  const work = useIntakeWork(project, place);
  useCarryOut(actWords(work.plan), work.isReady, work.carryOut);
  return (
    <Columns
      id="intake"
      labels={['What is brought in', 'Where it goes', 'What is selected']}
      given={<IntakeGiven {...{ work, registers, place }} target={project.volume} />}
      plan={<IntakeList work={work} />}
      consequence={<IntakeSelected work={work} registers={registers} />}
      ledger={<IntakeLedger work={work} />}
    />
  );
}
