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

export function useProjectCommands(given: Given): void {
  // The commands are named once; what they do is always by the newest state.
  const now = useRef(given);
  now.current = given;
  const { mayCheck, isShown } = given;
  const { role } = given.me;
  const any = given.selected.finding !== null;
  const { areAccepted } = given.triage;
  const mayPress = given.press.may && given.press.words !== null;
  usePageCommands(
    useMemo((): readonly Command[] => {
      const dealing = isShown && any;
      return [
        { id: 'check', words: 'Check this project now', keys: 'c', run: () => now.current.check(), enabled: mayCheck },
        {
          id: 'carry-over',
          words: 'Carry this project over',
          run: () => now.current.carryOver(),
          enabled: role === 'coordinator',
        },
        {
          id: 'view-findings',
          words: 'Show the findings',
          keys: 'f',
          run: () => now.current.put({ view: 'findings' }),
        },
        { id: 'view-folders', words: 'Show the folders', keys: 'o', run: () => now.current.put({ view: 'folders' }) },
        { id: 'view-map', words: 'Show the map', run: () => now.current.put({ view: 'map' }) },
        {
          id: 'mine',
          words: 'Show what is mine to put right',
          keys: 'm',
          run: () => now.current.put({ view: 'findings', person: now.current.me.initials, finding: null }),
        },
        { id: 'next', words: 'Next finding', keys: 'j', run: () => now.current.selected.move(1), enabled: dealing },
        {
          id: 'previous',
          words: 'Previous finding',
          keys: 'k',
          run: () => now.current.selected.move(-1),
          enabled: dealing,
        },
        {
          id: 'put-right',
          words: 'Put the finding right',
          keys: 'p',
          run: () => void now.current.press.press(),
          enabled: dealing && mayPress,
        },
        {
          id: 'accept',
          words: 'Accept the finding, with a reason',
          keys: 'a',
          run: () => now.current.triage.open('accept'),
          enabled: dealing && role === 'coordinator' && !areAccepted,
        },
        {
          id: 'give',
          words: 'Give the finding to somebody',
          keys: 'g',
          run: () => now.current.triage.open('give'),
          enabled: dealing && role === 'coordinator',
        },
        {
          id: 'note',
          words: 'Write a note on the finding',
          keys: 'w',
          run: () => now.current.triage.open('note'),
          enabled: dealing && role !== 'lead',
        },
        {
          id: 'take',
          words: 'Take the finding on, or hand it back',
          keys: 't',
          run: () => void now.current.triage.takeOrReturn(),
          enabled: dealing && role !== 'lead',
        },
        {
          id: 'count-again',
          words: 'Let an accepted finding count again',
          keys: 'u',
          run: () => void now.current.triage.countAgain(),
          enabled: dealing && role === 'coordinator' && areAccepted,
        },
      ];
    }, [mayCheck, isShown, any, role, areAccepted, mayPress]),
  );
}
