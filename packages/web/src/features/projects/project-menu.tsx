/**
 * What is seldom done with a project: batches, reports, checks elsewhere and by the clock, its baseline, another like
 * it.
 */

import type { ChecksOfProject, Me, ProjectPage, ReportForm } from '@nesting/contract';
import { type ReactNode, useId, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { troubleOf } from '../../app/api';
import { addressFor } from '../../app/endpoints';
import { many } from '../../app/words';
import { Asking, Button, Labelled, Menu, Radios, Refused, TextInput } from '../../ui';
import { checksApi } from '../checks/checks-api';
import { findingsApi } from '../findings/findings-api';

interface Props {
  readonly project: ProjectPage;
  readonly me: Me;
  readonly checks: ChecksOfProject;
  readonly another: () => void;
}

const EVERY = [
  { value: '', label: 'only when somebody asks' },
  { value: '60', label: 'every hour' },
  { value: '1440', label: 'every day' },
  { value: '10080', label: 'every week' },
] as const;

export function ProjectMenu({ project, me, checks, another }: Props) {
  const go = useNavigate();
  const [open, setOpen] = useState<'baseline' | 'schedule' | null>(null);
  const more = useRef<HTMLButtonElement>(null);
  const leads = me.role === 'coordinator';
  const report = (as: ReportForm) =>
    window.open(addressFor('reportFindings', { id: project.id, query: { as } }), '_self');
  const checked = checks.done !== null;
  const lines = [
    { words: 'History of changes', run: () => void go(`/projects/${project.id}/batches`) },
    { words: 'Side by side with another…', run: () => void go(`/compare?left=${project.id}`) },
    ...(me.role === 'lead'
      ? []
      : [{ words: 'Check a folder on this computer…', run: () => void go(`/projects/${project.id}/here`) }]),
    ...(leads
      ? [
          { words: 'Another like this…', run: another },
          { words: 'Bring files in…', run: () => void go(`/intake?project=${project.id}`) },
          { words: 'Carry it over…', run: () => void go(`/projects/${project.id}/carry`) },
          { words: 'Pack it…', run: () => void go(`/projects/${project.id}/pack`) },
          { words: 'Check automatically…', run: () => setOpen('schedule') },
        ]
      : []),
    ...(leads && checked ? [{ words: 'Accept everything found so far…', run: () => setOpen('baseline') }] : []),
    ...(checked
      ? [
          { words: 'Accepted findings', run: () => void go(`/checks/exceptions?project=${project.id}`) },
          { words: 'Print the findings', run: () => void go(`/projects/${project.id}/findings`) },
          { words: 'Findings as CSV', run: () => report('csv') },
          { words: 'Findings as JSON', run: () => report('json') },
          { words: 'Findings as SARIF', run: () => report('sarif') },
        ]
      : []),
  ];
  return (
    <>
      <Menu trigger={<Button ref={more}>More…</Button>} lines={lines} />
      <Asking
        open={open === 'schedule'}
        onOpen={(is) => setOpen(is ? 'schedule' : null)}
        title="Check automatically"
        home={more}
      >
        <Schedule project={project.id} every={checks.every} onDone={() => setOpen(null)} />
      </Asking>
      <Asking
        open={open === 'baseline'}
        onOpen={(is) => setOpen(is ? 'baseline' : null)}
        title="Accept everything found so far"
        home={more}
      >
        <Baseline
          project={project.id}
          standing={
            checks.done === null ? 0 : checks.done.counts.must + checks.done.counts.should + checks.done.counts.note
          }
          onDone={() => setOpen(null)}
        />
      </Asking>
    </>
  );
}

function Acts({ trouble, children }: { trouble: unknown; children: ReactNode }) {
  return (
    <>
      <Refused words={trouble ? troubleOf(trouble) : null} />
      <div className="flex justify-end gap-3">{children}</div>
    </>
  );
}

function Schedule({ project, every, onDone }: { project: string; every: number | null; onDone: () => void }) {
  const [chosen, setChosen] = useState(every === null ? '' : String(every));
  const [set, { error }] = checksApi.useSetScheduleMutation();
  const keep = async () => {
    if (!('error' in (await set({ project, every: chosen === '' ? null : Number(chosen) })))) onDone();
  };
  return (
    <div className="flex flex-col gap-4">
      <Radios
        label="How often"
        value={chosen}
        options={
          EVERY.some((e) => e.value === chosen)
            ? [...EVERY]
            : [...EVERY, { value: chosen, label: `every ${many(Number(chosen), 'minute')}` }]
        }
        onChange={setChosen}
      />
      <p className="text-sm text-ink2">
        Only while the project is running or waiting. While its page is open, its folder is looked at every few seconds
        anyway.
      </p>
      <Acts trouble={error}>
        <Button onClick={onDone}>Cancel</Button>
        <Button variant="main" onClick={() => void keep()}>
          Save
        </Button>
      </Acts>
    </div>
  );
}

function Baseline({ project, standing, onDone }: { project: string; standing: number; onDone: () => void }) {
  const id = useId();
  const [reason, setReason] = useState('');
  const [make, { error, isLoading }] = findingsApi.useMakeBaselineMutation();
  const accept = async () => {
    if ('data' in (await make({ project, reason }))) onDone();
  };
  return (
    <div className="flex flex-col gap-4">
      <p>
        All {many(standing, 'finding')} of the last check are accepted as they are. From then on only what is new
        counts, and what somebody touches. Nothing on the disk is changed, and each can be let count again.
      </p>
      <Labelled id={id} label="Why">
        <TextInput
          id={id}
          value={reason}
          placeholder="As it was when we began to check it"
          onChange={(e) => setReason(e.target.value)}
        />
      </Labelled>
      <Acts trouble={error}>
        <Button data-safe onClick={onDone}>
          Cancel
        </Button>
        <Button
          variant="main"
          disabled={reason.trim() === '' || standing === 0 || isLoading}
          onClick={() => void accept()}
        >
          Accept {many(standing, 'finding')}
        </Button>
      </Acts>
    </div>
  );
}
