/** What keys do on a project's page. In the list of findings they are the same as beside it. */
import type { Me } from '@nesting/contract';
import { useMemo, useRef } from 'react';
import { type Command, usePageCommands } from '../../../app/commands';
import type { Triage } from '../../findings/use-triage';
import type { Press } from '../../repair/use-press';
import type { PutAddress } from './use-project-view';
import type { SelectedFindings } from './use-selected-findings';

interface Given {
  readonly me: Me;
  readonly put: PutAddress;
  readonly triage: Triage;
  readonly press: Press;
  readonly selected: SelectedFindings;
  readonly isShown: boolean;
  readonly mayCheck: boolean;
  readonly check: () => void;
  readonly carryOver: () => void;
}

/** What decides which of them can be used. */
interface Circumstances {
  readonly role: Me['role'];
  readonly mayCheck: boolean;
  /** A finding is selected, in sight. */
  readonly isDealing: boolean;
  readonly mayPress: boolean;
  readonly areAccepted: boolean;
}

interface Row {
  readonly id: string;
  readonly words: string;
  readonly keys?: string;
  readonly run: (now: Given) => unknown;
  /** Always where it says nothing. */
  readonly when?: (c: Circumstances) => boolean;
}

const ROWS: readonly Row[] = [
  { id: 'check', words: 'Check this project now', keys: 'c', run: (now) => now.check(), when: (c) => c.mayCheck },
  {
    ...{ id: 'carry-over', words: 'Carry this project over', run: (now) => now.carryOver() },
    when: (c) => c.role === 'coordinator',
  },
  { id: 'view-findings', words: 'Show the findings', keys: 'f', run: (now) => now.put({ view: 'findings' }) },
  { id: 'view-folders', words: 'Show the folders', keys: 'o', run: (now) => now.put({ view: 'folders' }) },
  { id: 'view-map', words: 'Show the map', run: (now) => now.put({ view: 'map' }) },
  {
    ...{ id: 'mine', words: 'Show what is mine to put right', keys: 'm' },
    run: (now) => now.put({ view: 'findings', person: now.me.initials, finding: null }),
  },
  {
    ...{ id: 'next', words: 'Next finding', keys: 'j', run: (now) => now.selected.move(1) },
    when: (c) => c.isDealing,
  },
  {
    ...{ id: 'previous', words: 'Previous finding', keys: 'k', run: (now) => now.selected.move(-1) },
    when: (c) => c.isDealing,
  },
  {
    ...{ id: 'put-right', words: 'Put the finding right', keys: 'p', run: (now) => now.press.press() },
    when: (c) => c.isDealing && c.mayPress,
  },
  {
    ...{ id: 'accept', words: 'Accept the finding, with a reason', keys: 'a', run: (now) => now.triage.open('accept') },
    when: (c) => c.isDealing && c.role === 'coordinator' && !c.areAccepted,
  },
  {
    ...{ id: 'give', words: 'Give the finding to somebody', keys: 'g', run: (now) => now.triage.open('give') },
    when: (c) => c.isDealing && c.role === 'coordinator',
  },
  {
    ...{ id: 'note', words: 'Write a note on the finding', keys: 'w', run: (now) => now.triage.open('note') },
    when: (c) => c.isDealing && c.role !== 'lead',
  },
  {
    ...{ id: 'take', words: 'Take the finding on, or hand it back', keys: 't' },
    run: (now) => now.triage.takeOrReturn(),
    when: (c) => c.isDealing && c.role !== 'lead',
  },
  {
    ...{ id: 'count-again', words: 'Let an accepted finding count again', keys: 'u' },
    run: (now) => now.triage.countAgain(),
    when: (c) => c.isDealing && c.role === 'coordinator' && c.areAccepted,
  },
];

export function useProjectCommands(given: Given): void {
  // The commands are named once; what they do is always by the newest state.
  const now = useRef(given);
  now.current = given;
  const { mayCheck } = given;
  const { role } = given.me;
  const { areAccepted } = given.triage;
  const isDealing = given.isShown && given.selected.finding !== null;
  const mayPress = given.press.may && given.press.words !== null;
  usePageCommands(
    useMemo((): readonly Command[] => {
      const circumstances = { role, mayCheck, isDealing, mayPress, areAccepted };
      return ROWS.map(({ run, when, ...row }) => ({
        ...row,
        run: () => void run(now.current),
        ...(when !== undefined && { enabled: when(circumstances) }),
      }));
    }, [role, mayCheck, isDealing, mayPress, areAccepted]),
  );
}
