/**
 * What one does about findings without touching a disk: accept them for a reason, give them to somebody, say something
 * of them.
 */
import type { KeptFinding, Me } from '@nesting/contract';
import type { Person } from '@nesting/core/name';
import { useEffect, useId, useRef, useState } from 'react';
import { api, troubleOf } from '../../app/api';
import { ago, day, many } from '../../app/words';
import { DateField } from '../../ui/date-field';
import { Button, Choose, Labelled, Lines, TextInput } from '../../ui/ui';
import type { TriageAct } from './findings-list';

interface Props {
  readonly project: string;
  readonly me: Me;
  readonly people: readonly Person[];
  /** Those that were picked, or the selected one. */
  readonly findings: readonly KeptFinding[];
  readonly act: TriageAct | null;
  readonly onAct: (act: TriageAct | null) => void;
  /** It is done: the next one is looked at. */
  readonly onDone: () => void;
}

export function Triage({ project, me, people, findings, act, onAct, onDone }: Props) {
  const [give, giving] = api.useGiveFindingsMutation();
  const [again, counting] = api.useCountAgainMutation();
  const ids = findings.map((f) => f.id);
  const mayAccept = me.role === 'coordinator';
  const accepted = findings.some((f) => f.accepted !== null);
  const trouble = giving.error ?? counting.error;
  // Keys of the list that need no form do what they say at once.
  useEffect(() => {
    if (act === 'mine')
      void give({ project, ids, to: findings.every((f) => f.to === me.initials && f.given) ? null : me.initials }).then(
        () => onAct(null),
      );
    if (act === 'count' && mayAccept && accepted) void again({ project, ids }).then(() => onAct(null));
  }, [act]);
  if (me.role === 'lead' || findings.length === 0 || findings[0]?.solvedAt != null) return null;
  return (
    <div className="flex flex-col gap-3 border-b border-line pb-4">
      {findings.length > 1 && (
        <p className="text-sm font-semibold text-plum">{many(findings.length, 'finding')} picked</p>
      )}
      <div className="flex flex-wrap gap-2">
        {mayAccept && !accepted && (
          <Button aria-expanded={act === 'accept'} onClick={() => onAct(act === 'accept' ? null : 'accept')}>
            Accept…
          </Button>
        )}
        {mayAccept && accepted && <Button onClick={() => onAct('count')}>Let it count again</Button>}
        {mayAccept ? (
          <Button aria-expanded={act === 'give'} onClick={() => onAct(act === 'give' ? null : 'give')}>
            Give to…
          </Button>
        ) : (
          <Button onClick={() => onAct('mine')}>
            {findings.every((f) => f.to === me.initials && f.given) ? 'Give back' : 'I’ll do it'}
          </Button>
        )}
        <Button aria-expanded={act === 'note'} onClick={() => onAct(act === 'note' ? null : 'note')}>
          Note…
        </Button>
      </div>
      {trouble && (
        <p role="alert" className="text-sm text-brick">
          {troubleOf(trouble)}
        </p>
      )}
      {act === 'accept' && mayAccept && (
        <Accept project={project} ids={ids} onDone={onDone} onCancel={() => onAct(null)} />
      )}
      {act === 'give' && mayAccept && (
        <Give
          project={project}
          ids={ids}
          now={findings[0]?.given ? (findings[0].to ?? '') : ''}
          people={people}
          onDone={onDone}
        />
      )}
      {act === 'note' && (
        <Note key={ids.join()} project={project} ids={ids} now={findings[0]?.note ?? ''} onDone={onDone} />
      )}
      {act === null && findings.length === 1 && findings[0] && <Said finding={findings[0]} />}
    </div>
  );
}

function Said({ finding }: { finding: KeptFinding }) {
  const { accepted, note, to, given } = finding;
  if (accepted === null && note === '' && to === null) return null;
  return (
    <div className="flex flex-col gap-1 text-sm">
      {accepted && (
        <p>
          Accepted by <span className="font-mono">{accepted.by}</span> {ago(accepted.at)}
          {accepted.baseline
            ? ', as it was found; it counts once it is touched'
            : accepted.until === null
              ? ', without an end'
              : `, until ${day(accepted.until)}`}
          : “{accepted.reason}”
        </p>
      )}
      {to !== null && (
        <p>
          {given ? 'Given to ' : 'By its name: '}
          <span className="font-mono text-plum">{to}</span>
        </p>
      )}
      {note !== '' && <p className="whitespace-pre-wrap">{note}</p>}
    </div>
  );
}

/** The first field of a form that was opened by a key is where one writes on. */
function useFirst<T extends HTMLElement>() {
  const first = useRef<T>(null);
  useEffect(() => first.current?.focus(), []);
  return first;
}

function Accept({
  project,
  ids,
  onDone,
  onCancel,
}: {
  project: string;
  ids: readonly string[];
  onDone: () => void;
  onCancel: () => void;
}) {
  const id = useId();
  const first = useFirst<HTMLSpanElement>();
  const [reason, setReason] = useState('');
  const [until, setUntil] = useState('');
  const [accept, { error, isLoading }] = api.useAcceptFindingsMutation();
  const fault = until !== '' && !/^\d{4}-\d{2}-\d{2}$/.test(until);
  useEffect(() => first.current?.querySelector('input')?.focus(), [first]);
  const send = async () => {
    if (reason.trim() === '' || fault) return;
    if ('data' in (await accept({ project, ids, reason, until: until === '' ? null : until }))) onDone();
  };
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        void send();
      }}
      onKeyDown={(e) => {
        if (e.key === 'Escape') onCancel();
      }}
    >
      <Labelled id={`${id}r`} label="Why it may stay">
        <span ref={first}>
          <TextInput
            id={`${id}r`}
            value={reason}
            onChange={(e) => setReason(e.target.value)}
            autoComplete="off"
            className="w-full"
          />
        </span>
      </Labelled>
      <Labelled id={`${id}u`} label="Until" help="Without a day it stays accepted. After the day it counts again.">
        <DateField id={`${id}u`} value={until} onGive={setUntil} fault={fault} />
      </Labelled>
      {error && (
        <p role="alert" className="text-sm text-brick">
          {troubleOf(error)}
        </p>
      )}
      <div className="flex gap-2">
        <Button type="submit" look="main" disabled={reason.trim() === '' || fault || isLoading}>
          {ids.length === 1 ? 'Accept it' : `Accept ${ids.length}`}
        </Button>
        <Button onClick={onCancel}>Leave it</Button>
      </div>
    </form>
  );
}

function Give({
  project,
  ids,
  now,
  people,
  onDone,
}: {
  project: string;
  ids: readonly string[];
  now: string;
  people: readonly Person[];
  onDone: () => void;
}) {
  const [give, { error }] = api.useGiveFindingsMutation();
  const id = useId();
  const first = useFirst<HTMLSpanElement>();
  useEffect(() => first.current?.querySelector('button')?.focus(), [first]);
  const to = async (initials: string) => {
    if ('data' in (await give({ project, ids, to: initials === '-' ? null : initials }))) onDone();
  };
  return (
    <div className="flex flex-col gap-2">
      <Labelled id={id} label="Who puts it right">
        <span ref={first}>
          <Choose
            id={id}
            label="Who puts it right"
            value={now}
            options={[
              ...people
                .filter((p) => !p.retired)
                .map((p) => ({ value: p.initials, label: `${p.initials}  ${p.name}` })),
              { value: '-', label: 'Nobody in particular' },
            ]}
            onChange={(value) => void to(value)}
          />
        </span>
      </Labelled>
      {error && (
        <p role="alert" className="text-sm text-brick">
          {troubleOf(error)}
        </p>
      )}
    </div>
  );
}

function Note({
  project,
  ids,
  now,
  onDone,
}: {
  project: string;
  ids: readonly string[];
  now: string;
  onDone: () => void;
}) {
  const id = useId();
  const first = useFirst<HTMLSpanElement>();
  const [note, setNote] = useState(now);
  const [give, { error }] = api.useGiveFindingsMutation();
  useEffect(() => first.current?.querySelector('textarea')?.focus(), [first]);
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        void give({ project, ids, note }).then((r) => 'data' in r && onDone());
      }}
    >
      <Labelled id={id} label="Note, for whoever looks at it">
        <span ref={first}>
          <Lines
            id={id}
            rows={3}
            value={note}
            maxLength={2000}
            onChange={(e) => setNote(e.target.value)}
            className="w-full"
          />
        </span>
      </Labelled>
      {error && (
        <p role="alert" className="text-sm text-brick">
          {troubleOf(error)}
        </p>
      )}
      <Button type="submit" className="self-start">
        Keep the note
      </Button>
    </form>
  );
}
