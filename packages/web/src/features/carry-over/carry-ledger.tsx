/** The foot of the page: what the whole plan does, and the one button that does it. */
import { many, size } from '../../app/words';
import { PlanLedger, PlanSummary } from '../../changes/plan-ledger';
import { Button } from '../../ui';
import type { CarryWork } from './carry-work';

export function CarryLedger({ work, act }: { work: CarryWork; act: string }) {
  const { here } = work;
  return here.running !== null || here.ended !== null ? (
    <HereLedger here={here} />
  ) : (
    <PlannedLedger {...{ work, act }} />
  );
}

/** What becomes of a folder on this computer. */
function HereLedger({ here }: { here: CarryWork['here'] }) {
  const { running, ended } = here;
  const mayGoOn = running === null && ended?.state === 'hindered' && ended.isBegun;
  const mayGoBack = running === null && ended !== null && ended.state !== 'taken-back' && ended.isBegun;
  return (
    <>
      <p
        role="status"
        className={`min-w-0 flex-1 ${ended?.state === 'hindered' && running === null ? 'text-brick' : ''}`}
      >
        {running ?? ended?.words}
      </p>
      {running !== null && <Button onClick={here.stop}>Stop it</Button>}
      {mayGoBack && <Button onClick={() => void here.takeBack()}>Take it back</Button>}
      {mayGoOn && (
        <Button variant="main" onClick={() => void here.goOn()}>
          Go on with it
        </Button>
      )}
      {running === null && !mayGoOn && <Button onClick={here.leave}>Back to the plan</Button>}
    </>
  );
}

function PlannedLedger({ work, act }: { work: CarryWork; act: string }) {
  const { plan, trouble, hindrance, isReady, isCarrying, carryOut, save } = work;
  return (
    <PlanLedger
      {...{ trouble, act, isReady, carryOut }}
      doing={isCarrying ? 'Carrying over…' : null}
      waiting={hindrance === null ? 'Looking at the disk…' : 'Nothing can be done yet.'}
      summary={plan && <PlanSummary refused={plan.refused[0]} does={doneWords(plan)} rest={restWords(plan)} />}
      save={plan !== undefined && plan.files > 0 ? save : undefined}
    />
  );
}

function doneWords({ files, bytes, made, into, totals }: NonNullable<CarryWork['plan']>): string {
  if (files === 0) return 'Nothing comes along yet.';
  const begun = made === 0 ? '' : `Makes ${many(made, 'entry', 'folders and files')}, `;
  const rewritten = totals.documents === 0 ? '' : `, rewrites ${many(totals.documents, 'document')}`;
  return `${begun}${begun === '' ? 'Copies' : 'copies'} ${many(files, 'file')} of ${size(bytes)} to ${into.folder}${rewritten}.`;
}

function restWords({ hindered, totals, now }: NonNullable<CarryWork['plan']>): string {
  const rest = [
    ...(hindered > 0 ? [`${hindered} cannot come so`] : []),
    ...(totals.needed > 0 ? [`${many(totals.needed, 'reference')} would lead to what stays behind`] : []),
    ...(totals.byHand > 0 ? [`${many(totals.byHand, 'reference')} to put right by hand`] : []),
  ];
  const words = rest.length === 0 ? '' : `${rest.join('; ').replace(/^./, (c) => c.toUpperCase())}. `;
  return `${words}${now === null ? 'The old project is only read.' : 'What is there stays as it is.'}`;
}
