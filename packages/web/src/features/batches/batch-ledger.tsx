/** The foot of a batch: how far it is, and the ways to undo it, to finish it or to take it back. */
import type { BatchPage, BatchRow, SettleWay } from '@nesting/contract';
import { useEffect, useRef } from 'react';
import { useNavigate } from 'react-router';
import { troubleOf } from '../../app/api';
import { useRequestKey } from '../../app/request-key';
import { count, many } from '../../app/words';
import { Button, Confirm } from '../../ui';
import { changesApi } from './changes-api';

interface Props {
  readonly project: string;
  readonly batch: BatchRow;
  /** `null` while they are being read. */
  readonly lines: BatchPage['lines'] | null;
  /** Ids of the lines that were chosen. */
  readonly chosen: ReadonlySet<string>;
  readonly mayAct: boolean;
  readonly onBatch: (id: string) => void;
}

export function BatchLedger({ project, batch, lines, chosen, mayAct, onBatch }: Props) {
  const [undo, undoing] = changesApi.useUndoBatchMutation();
  const [settle, settling] = changesApi.useSettleBatchMutation();
  const [stop] = changesApi.useStopBatchMutation();
  const keyFor = useRequestKey();
  const go = useNavigate();
  const isShown = useIsShown();
  const of = { project, batch: batch.id };
  const run = async (ids: readonly string[] | null) => {
    const done = await undo({ ...of, ids, key: keyFor({ ...of, ids }) })
      .unwrap()
      .catch(() => null);
    // Whoever looks at another change by now stays there.
    if (done !== null && isShown.current) onBatch(done.batch);
  };
  const undoable = undoableOf(lines ?? [], chosen);
  const fault = undoing.error ?? settling.error;
  return (
    <>
      <div className="min-w-0 flex-1" aria-live="polite">
        {fault ? (
          <p className="text-brick">{troubleOf(fault)}</p>
        ) : lines === null && batch.state === 'done' ? null : (
          <Words batch={batch} {...undoable} chosen={undoable.chosen.length} can={undoable.can.length} />
        )}
      </div>
      {batch.source !== null && batch.state === 'done' && (
        <Button onClick={() => void go(`/compare?left=${batch.source}&right=${project}`)}>Side by side</Button>
      )}
      {batch.source === null && batch.state === 'done' && batch.sweptAt === null && (
        <Button onClick={() => void go(`/compare?left=${project}&leftBatch=${batch.id}&right=${project}`)}>
          Side by side with another…
        </Button>
      )}
      {mayAct && batch.state === 'running' && <Button onClick={() => void stop(of)}>Stop it</Button>}
      {mayAct && batch.state === 'paused' && (
        <SettleWays isBusy={settling.isLoading} onWay={(way) => void settle({ ...of, way })} />
      )}
      {mayAct && batch.state === 'done' && batch.sweptAt === null && lines !== null && (
        <UndoWays undoable={undoable} isEmpty={lines.length === 0} isBusy={undoing.isLoading} onUndo={run} />
      )}
    </>
  );
}

function useIsShown() {
  const isShown = useRef(true);
  useEffect(() => {
    isShown.current = true;
    return () => {
      isShown.current = false;
    };
  }, []);
  return isShown;
}

interface Undoable {
  /** Lines that were not undone yet. */
  readonly left: number;
  /** Ids of those that can be undone now. */
  readonly can: readonly string[];
  /** Of these, the ones that were chosen. */
  readonly chosen: readonly string[];
}

function undoableOf(lines: BatchPage['lines'], chosen: ReadonlySet<string>): Undoable {
  const left = lines.filter((l) => !l.undone);
  const can = left.filter((l) => l.hindrance === null).map((l) => l.change.id);
  return { left: left.length, can, chosen: can.filter((id) => chosen.has(id)) };
}

function SettleWays({ isBusy, onWay }: { isBusy: boolean; onWay: (way: SettleWay) => void }) {
  return (
    <>
      <Close isBusy={isBusy} run={() => onWay('close')} />
      <Button disabled={isBusy} onClick={() => onWay('take-back')}>
        Take it back
      </Button>
      <Button variant="main" disabled={isBusy} onClick={() => onWay('finish')}>
        Finish it
      </Button>
    </>
  );
}

interface UndoWaysProps {
  readonly undoable: Undoable;
  /** A batch that changed the rules alone. */
  readonly isEmpty: boolean;
  readonly isBusy: boolean;
  /** Those lines, or all of it. */
  readonly onUndo: (ids: readonly string[] | null) => Promise<void>;
}

function UndoWays({ undoable: { left, can, chosen }, isEmpty, isBusy, onUndo }: UndoWaysProps) {
  return (
    <>
      {chosen.length > 0 && (
        <Button disabled={isBusy} onClick={() => void onUndo(chosen)}>
          Undo the {chosen.length} chosen
        </Button>
      )}
      {(left > 0 || isEmpty) && (
        <UndoAll
          left={left}
          can={can.length}
          isEmpty={isEmpty}
          isBusy={isBusy}
          run={() => void onUndo(can.length < left ? can : null)}
        />
      )}
    </>
  );
}

function Close({ isBusy, run }: { isBusy: boolean; run: () => void }) {
  return (
    <Confirm title="Close this change" act="Close it" run={run} trigger={<Button disabled={isBusy}>Close it…</Button>}>
      What can still be taken back is taken back. What cannot stays where it is now, and is listed here. The project is
      free for other changes then; this one cannot be finished any more.
    </Confirm>
  );
}

interface UndoProps {
  /** Lines that were not undone yet. */
  readonly left: number;
  /** How many of them can be undone now. */
  readonly can: number;
  /** A batch that changed the rules alone. */
  readonly isEmpty: boolean;
  readonly isBusy: boolean;
  readonly run: () => void;
}

function UndoAll({ left, can, isEmpty, isBusy, run }: UndoProps) {
  return (
    <Confirm
      title="Undo this change"
      act="Undo it"
      run={run}
      trigger={
        <Button variant="main" disabled={isBusy || (!isEmpty && can === 0)}>
          {isBusy ? 'Undoing…' : can < left ? `Undo the ${can} that can be` : 'Undo it'}
        </Button>
      }
    >
      {many(can, 'line')} {can === 1 ? 'goes' : 'go'} back to what {can === 1 ? 'it was' : 'they were'}
      {can < left ? `; ${left - can} cannot be undone now and stay` : ''}. This is a batch of its own, and can be undone
      in its turn.
    </Confirm>
  );
}

function Words({ batch, left, can, chosen }: { batch: BatchRow; left: number; can: number; chosen: number }) {
  if (batch.state === 'running')
    return (
      <p role="status">
        <strong className="font-semibold">Under way.</strong>{' '}
        <span className="text-ink2">
          {batch.all > 0 ? `${count(batch.done)} of ${many(batch.all, 'step')}. ` : ''}You may leave this page; it goes
          on.
        </span>
      </p>
    );
  if (batch.state === 'paused')
    return (
      <p>
        <strong className="font-semibold text-brick">Stopped half way.</strong>{' '}
        <span className="text-ink2">
          {batch.why} Finish it once the way is free, or take it back whole. Where neither can be, close it.
        </span>
      </p>
    );
  if (batch.state === 'refused')
    return (
      <p>
        <strong className="font-semibold text-brick">Not done.</strong> <span className="text-ink2">{batch.why}</span>
      </p>
    );
  if (batch.state === 'taken-back')
    return (
      <p>
        <strong className="font-semibold">Taken back.</strong>{' '}
        <span className="text-ink2">Everything is as it was before it.</span>
      </p>
    );
  if (batch.state === 'closed')
    return (
      <p>
        <strong className="font-semibold">Closed.</strong>{' '}
        <span className="text-ink2">
          {left === 0 ? 'Everything is as it was before it.' : `${many(left, 'line')} stayed: select one to see why.`}
        </span>
      </p>
    );
  if (batch.sweptAt !== null)
    return (
      <p>
        <strong className="font-semibold">Done.</strong>{' '}
        <span className="text-ink2">It is too long ago to be undone.</span>
      </p>
    );
  if (left === 0)
    return (
      <p>
        <strong className="font-semibold">Done{batch.changes > 0 ? ', and undone since' : ''}.</strong>
      </p>
    );
  return (
    <p>
      <strong className="font-semibold">
        {many(left, 'line')} can {can < left ? 'in part ' : ''}be undone.
      </strong>{' '}
      <span className="text-ink2">
        {can < left ? `${left - can} not now: select one to see why. ` : ''}
        {chosen > 0 ? `${chosen} chosen.` : 'Space chooses single ones.'}
      </span>
    </p>
  );
}
