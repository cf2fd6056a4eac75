/** The foot of an intake on this computer: what is brought, what became of it, and the one button that does it. */
import { many } from '../../../app/words';
import { PlanLedger, PlanSummary } from '../../../changes/plan-ledger';
import { Button, Menu } from '../../../ui';
import { actWords, doneWords, restWords } from '../intake-ledger';
import type { IntakeHere } from './use-intake-here';

export function HereLedger({ here }: { here: IntakeHere }) {
  const { work, source, running, ended, starters } = here;
  if (running !== null) return <p className="flex-1 text-ink2">It is being written.</p>;
  if (ended !== null) return <Outcome here={here} ended={ended} />;
  const plan = work?.plan;
  const left =
    starters === 0 ? '' : ` ${many(starters, 'starter file')} of new folders only the house has: not made here.`;
  return (
    <PlanLedger
      trouble={plan === undefined ? null : (work?.trouble ?? null)}
      doing={null}
      waiting={source.reading ?? 'Nothing is written yet.'}
      summary={
        work &&
        plan && (
          <PlanSummary
            refused={plan.refused[0]}
            does={doneWords(work, plan)}
            rest={`${restWords(work, plan)}${left}`}
          />
        )
      }
      save={work !== null && plan !== undefined && plan.files > 0 ? work.save : undefined}
      act={actWords(plan)}
      isReady={work?.isReady === true}
      carryOut={async () => work?.carryOut()}
    />
  );
}

function Outcome({ here, ended }: { here: IntakeHere; ended: NonNullable<IntakeHere['ended']> }) {
  const { goOn, takeBack, saveRecord, work } = here;
  const { state, words, isBegun } = ended;
  return (
    <>
      <p role="status" className={`min-w-0 flex-1 ${state === 'hindered' ? 'text-brick' : ''}`}>
        {words}
      </p>
      {state === 'hindered' && isBegun && <Button onClick={() => void goOn()}>Go on</Button>}
      {state === 'done' && (
        <Menu
          trigger={<Button>Save what came…</Button>}
          lines={[
            { words: 'Checksums, as sha256sum checks them', run: () => void saveRecord('checksums') },
            { words: 'The names it came with (CSV)', run: () => void saveRecord('names') },
          ]}
        />
      )}
      {isBegun && <Button onClick={() => void takeBack()}>{state === 'done' ? 'Undo it' : 'Take it back'}</Button>}
      <Button
        variant="main"
        disabled={work?.isReady !== true || (state === 'hindered' && isBegun)}
        onClick={() => void work?.carryOut()}
      >
        {actWords(work?.plan)}
      </Button>
    </>
  );
}
