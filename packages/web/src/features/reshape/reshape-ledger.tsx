/** The foot of the page: what the whole change does, and the buttons that do it. */

import type { PlanForm, ReshapePlan } from '@nesting/contract';
import { type BodyFor, fetchFor } from '../../app/endpoints';
import { many } from '../../app/words';
import { RunningChange } from '../../changes/running-change';
import { PLAN_FORM_WORDS, saveReply } from '../../changes/save-plan';
import { Button, Menu, Tick } from '../../ui';
import type { Reshape } from './use-reshape';

export function ReshapeLedger({ state, mayKeepName }: { state: Reshape; mayKeepName: boolean }) {
  const { id, plan, wish, nothing, isApplying } = state;
  return (
    <>
      <div className="min-w-0 flex-1" aria-live="polite">
        <WhatHappens state={state} />
      </div>
      {plan?.folder && mayKeepName && (
        <Tick
          label="The folder keeps its name"
          checked={wish.keepFolder}
          onChange={(keepFolder) => state.change({ ...wish, keepFolder }, null)}
        />
      )}
      {!nothing && (
        <Button variant="quiet" onClick={() => void state.throwAway()}>
          Throw it away
        </Button>
      )}
      {plan !== undefined && plan.lines.length > 0 && (
        <Menu
          trigger={<Button>Save the plan…</Button>}
          lines={PLAN_FORM_WORDS.map(([as, words]) => ({ words, run: () => void saveAs(id, state.asked, as) }))}
        />
      )}
      <Button variant="main" disabled={!state.mayApply} onClick={() => void state.carryOut()}>
        {isApplying ? 'Changing…' : 'Carry it out'}
      </Button>
    </>
  );
}

function WhatHappens({ state }: { state: Reshape }) {
  if (state.isApplying) return <RunningChange project={state.id} />;
  if (state.trouble !== null) return <p className="text-brick">{state.trouble}</p>;
  if (state.plan === undefined) return <p className="text-ink2">Looking at the disk…</p>;
  return <Summary plan={state.plan} nothing={state.nothing} />;
}

const capital = (words: string): string => words.replace(/^./, (c) => c.toUpperCase());

/** What is done to the disk, in the order in which it matters. */
function doneWords({ counts, lines, all, folder }: ReshapePlan): string {
  const made = lines.filter((l) => l.sign === 'made');
  const kinds = [
    many(made.filter((l) => l.what === 'folder').length, 'folder'),
    many(made.filter((l) => l.what === 'file').length, 'file'),
  ].filter((w) => !w.startsWith('0 '));
  const words = [
    ...(counts.made ? [`makes ${kinds.join(' and ')}${all > lines.length ? ' and more' : ''}`] : []),
    ...(counts.renamed ? [`renames ${counts.renamed}`] : []),
    ...(folder ? [`calls its folder ${folder.to}`] : []),
  ];
  return words.length === 0 ? 'Changes nothing on the disk.' : `${capital(words.join(', '))}.`;
}

/** What is left as it is. */
function restWords({ counts }: ReshapePlan): string {
  const rest = [
    ...(counts['left-over'] ? [`${many(counts['left-over'], 'folder')} left over, and left alone`] : []),
    ...(counts.taken ? [`${counts.taken} stay as they are: their name is taken`] : []),
    ...(counts.elsewhere ? [`${counts.elsewhere} on another volume are not made from here`] : []),
    ...(counts.there ? [`${counts.there} there already`] : []),
  ];
  return rest.length > 0 ? `${capital(rest.join('; '))}. ` : '';
}

function Summary({ plan, nothing }: { plan: ReshapePlan; nothing: boolean }) {
  if (plan.refused.length > 0)
    return (
      <p>
        <strong className="font-semibold">Nothing can be done yet.</strong>{' '}
        <span className="text-ink2">{plan.refused[0]}</span>
      </p>
    );
  if (nothing) return <p className="text-ink2">Nothing is to change yet.</p>;
  return (
    <p>
      <strong className="font-semibold">{doneWords(plan)}</strong>{' '}
      <span className="text-ink2">
        {restWords(plan)}It can be undone. Longest path {plan.longest} of {plan.budget}.
      </span>
    </p>
  );
}

async function saveAs(id: string, asked: BodyFor<'writePlan'>, as: PlanForm): Promise<void> {
  await saveReply(await fetchFor('writePlan', { id, query: { as }, body: asked }));
}
