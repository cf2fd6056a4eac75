/** Loose files of this computer are brought into a project's folder of it, without being sent anywhere. */
import { NO_REGISTERS } from '@nesting/core/name';
import { usePageTitle } from '../../../app/use-page-title';
import { many } from '../../../app/words';
import { useCarryOut } from '../../../changes/use-carry-out';
import { Columns } from '../../../columns/columns';
import { Button, Empty, FileButton, Heading, Refused, ZIPS } from '../../../ui';
import { intakeWorker } from '../../../workers/intake';
import { WhatIsShown } from '../intake-given';
import { actWords } from '../intake-ledger';
import { IntakeList } from '../intake-list';
import { IntakeSelected } from '../intake-selected';
import { HereLedger } from './here-ledger';
import { type IntakeHere, useIntakeHere } from './use-intake-here';

export function IntakeHerePage() {
  usePageTitle('Bring files in on this computer');
  const here = useIntakeHere();
  const { work, source, running } = here;
  useCarryOut(actWords(work?.plan), work?.isReady === true, async () => work?.carryOut());
  if (globalThis.showDirectoryPicker === undefined)
    return (
      <Empty title="This browser cannot write into folders">
        Send the files to a volume instead, under Files, Bring in; or open this page in a browser that lets pages write
        into folders, over HTTPS or on this computer.
      </Empty>
    );
  const registers = source.project?.registers ?? NO_REGISTERS;
  const isPlanned = work?.plan !== undefined && running === null;
  return (
    <Columns
      id="intake"
      labels={['What is chosen', 'Where it goes', 'What is selected']}
      given={
        <div className="flex flex-col gap-4">
          <Chosen here={here} />
          {work !== null && isPlanned && <WhatIsShown work={work} registers={registers} />}
        </div>
      }
      plan={<Plan here={here} />}
      consequence={work !== null && isPlanned ? <IntakeSelected work={work} registers={registers} /> : null}
      ledger={<HereLedger here={here} />}
    />
  );
}

function Chosen({ here }: { here: IntakeHere }) {
  const { source, running } = here;
  const { project, reading, chooseProject } = source;
  const isBusy = reading !== null || running !== null;
  return (
    <>
      <div>
        <h1 className="text-xl font-semibold">
          {project === null ? 'Bring files in on this computer' : `Bring files into ${project.title || project.folder}`}
        </h1>
        <p className="text-sm text-ink2">
          Into a project’s folder on this computer. Nothing is sent anywhere; the originals are only read.
        </p>
      </div>
      <section aria-label="The project’s folder" className="flex flex-col gap-1 text-sm">
        <Heading>The project’s folder</Heading>
        {project !== null && (
          <p className="font-mono break-all">
            {project.number} · {project.folder}
          </p>
        )}
        <Button className="self-start" disabled={isBusy} onClick={() => void chooseProject()}>
          {project === null ? 'Choose it…' : 'Another one…'}
        </Button>
      </section>
      <CutShort here={here} isBusy={isBusy} />
      <Source here={here} isBusy={isBusy} />
    </>
  );
}

interface PartProps {
  readonly here: IntakeHere;
  readonly isBusy: boolean;
}

/** A change of the folder that a closed page, or a withdrawn permission, left half way. */
function CutShort({ here: { source, settle }, isBusy }: PartProps) {
  const { project, sourceName } = source;
  if (project?.unended == null) return null;
  const { done, all, isBack, isFromElsewhere } = project.unended;
  const lacksSource = isFromElsewhere && sourceName === null;
  return (
    <section
      aria-label="Cut short"
      className="flex flex-col gap-2 rounded-tray border border-brick bg-sheet p-3 text-sm"
    >
      <p>
        A change of this folder was cut short after {done} of {many(all, 'step')}. Nothing is lost.
      </p>
      <span className="flex flex-wrap gap-2">
        <Button disabled={isBusy || lacksSource} onClick={() => void settle('finish')}>
          Go on with it
        </Button>
        {!isBack && (
          <Button disabled={isBusy} onClick={() => void settle('take-back')}>
            Take it back
          </Button>
        )}
      </span>
      {lacksSource && <p className="text-ink2">To go on with it, choose below what was brought in.</p>}
    </section>
  );
}

function Source({ here: { source }, isBusy }: PartProps) {
  const { project, sourceName, chooseFolder, chooseFiles, chooseZip, again } = source;
  return (
    <section aria-label="What is brought in" className="flex flex-col gap-1 text-sm">
      <Heading>What is brought in</Heading>
      {sourceName !== null && <p className="font-mono break-all">{sourceName}</p>}
      <span className="flex flex-wrap gap-2">
        <Button disabled={isBusy} onClick={() => void chooseFolder()}>
          A folder…
        </Button>
        <FileButton label="Files to bring in" isMany disabled={isBusy} onFiles={(files) => void chooseFiles(files)}>
          Files…
        </FileButton>
        <FileButton label="A zip to bring in" accept={ZIPS} disabled={isBusy} onFiles={([zip]) => void chooseZip(zip)}>
          A zip…
        </FileButton>
        {sourceName !== null && project !== null && (
          <Button variant="quiet" disabled={isBusy} onClick={() => void again()}>
            Look again
          </Button>
        )}
      </span>
    </section>
  );
}

function Plan({ here: { work, source, running } }: { here: IntakeHere }) {
  if (running !== null) return <Waiting words={running} />;
  if (source.reading !== null) return <Waiting words={source.reading} />;
  const trouble = source.trouble ?? work?.trouble ?? null;
  if (trouble !== null && work?.plan === undefined) return <Refused words={trouble} />;
  if (work === null || source.read === 0)
    return (
      <Empty title="Choose both folders">
        The project’s folder, and a card, a download folder, a zip or single files. Each file is shown with its place
        and its name before anything is copied.
      </Empty>
    );
  return <IntakeList work={work} />;
}

function Waiting({ words }: { words: string }) {
  return (
    <div className="flex flex-1 flex-col items-center justify-center gap-3">
      <p role="status">{words}</p>
      <Button onClick={() => void intakeWorker().stop()}>Stop</Button>
    </div>
  );
}
