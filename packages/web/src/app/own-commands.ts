import type { Role } from '@nesting/contract';
import { useMemo } from 'react';
import { useNavigate } from 'react-router';
import type { Command } from './commands';

interface Page {
  readonly id: string;
  readonly words: string;
  readonly keys?: string;
  readonly to: string;
  /** For this role alone, or for all but this one. */
  readonly only?: Role;
  readonly not?: Role;
}

const PAGES: readonly Page[] = [
  { id: 'go-start', words: 'Start a project', keys: 'n', to: '/start', only: 'coordinator' },
  { id: 'adopt', words: 'Take in a folder as a project', to: '/start/adopt', only: 'coordinator' },
  { id: 'go-projects', words: 'All projects', keys: 'p', to: '/projects' },
  { id: 'go-compare', words: 'Two projects side by side', to: '/compare' },
  { id: 'go-conventions', words: 'Conventions', keys: 'v', to: '/conventions' },
  { id: 'go-intake', words: 'Bring files in', keys: 'i', to: '/intake', not: 'lead' },
  { id: 'go-names', words: 'What to call a file', keys: 'f', to: '/names' },
  { id: 'learn', words: 'Learn a convention from names', to: '/conventions/learn', only: 'coordinator' },
  { id: 'go-blocks', words: 'Shared parts', keys: 'b', to: '/blocks' },
  { id: 'go-registers', words: 'Lists', keys: 'r', to: '/registers' },
  { id: 'go-marks', words: 'What each mark means', to: '/registers/marks' },
  { id: 'go-numbers', words: 'Project numbers', to: '/registers/numbers', not: 'artist' },
  { id: 'go-people', words: 'People and access', to: '/registers/people', only: 'coordinator' },
  { id: 'go-volumes', words: 'Volumes', to: '/registers/volumes' },
  { id: 'go-activity', words: 'Activity', keys: 'a', to: '/activity', not: 'artist' },
  { id: 'go-checks', words: 'Checks of all projects', keys: 'k', to: '/checks', not: 'artist' },
  { id: 'go-who', words: 'Who has what to put right', to: '/checks/people', not: 'artist' },
  { id: 'go-mine', words: 'Mine to put right', to: '/checks/mine' },
  { id: 'go-exceptions', words: 'Accepted findings', to: '/checks/exceptions' },
  { id: 'go-me', words: 'My password, keys and sessions', to: '/me' },
  { id: 'take-in', words: 'Take in rules from a file', to: '/templates/take-in', only: 'coordinator' },
  { id: 'go-templates', words: 'Templates', keys: 't', to: '/templates' },
];

export function useOwnCommands(role: Role, find: () => void, showKeys: () => void): readonly Command[] {
  const go = useNavigate();
  return useMemo(
    () => [
      { id: 'find', words: 'Find anything', keys: 'Ctrl+K', run: find },
      { id: 'keys', words: 'Show the keys', keys: '?', run: showKeys },
      ...PAGES.map(({ to, only, not, ...page }) => ({
        ...page,
        run: () => void go(to),
        enabled: (only === undefined || only === role) && not !== role,
      })),
    ],
    [go, role],
  );
}
