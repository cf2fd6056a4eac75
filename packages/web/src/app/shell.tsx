/** What stands around every page: the line of work, the field that finds anything, the person, the look. */

import type { Me } from '@nesting/contract';
import type { Meanings } from '@nesting/core/template';
import { useEffect, useRef, useState } from 'react';
import { NavLink, Outlet, useLocation, useMatches, useNavigate } from 'react-router';
import { peopleApi } from '../features/access/people-api';
import { FindDialog } from '../features/find/find-dialog';
import { KeysSheet } from '../features/find/keys-sheet';
import { marksApi } from '../features/house/marks-api';
import { Menu } from '../ui';
import { MeaningsContext } from '../ui/meanings';
import { api } from './api';
import { Commands, useCommands, useShortcuts } from './commands';
import { useOwnCommands } from './own-commands';
import { useAppDispatch } from './store';
import { usePageTitle } from './use-page-title';
import { chooseLook, useSingleKeys, useTheme } from './use-theme';

/** The work in its order. A stage without a page yet is not shown. */
const WORK = [
  {
    stage: 'Rules',
    pages: [
      { to: '/templates', words: 'Templates' },
      { to: '/blocks', words: 'Shared parts' },
      { to: '/conventions', words: 'Conventions' },
      { to: '/registers', words: 'Lists' },
    ],
  },
  {
    stage: 'Projects',
    pages: [
      { to: '/start', words: 'Start', only: 'coordinator' },
      { to: '/projects', words: 'All projects' },
    ],
  },
  {
    stage: 'Files',
    pages: [
      { to: '/intake', words: 'Bring in', not: 'lead' },
      { to: '/names', words: 'Name helper' },
      { to: '/checks', words: 'Checks', not: 'artist' },
      { to: '/checks/mine', words: 'Checks', only: 'artist' },
      { to: '/packages', words: 'Packages' },
      { to: '/activity', words: 'Activity', not: 'artist' },
    ],
  },
] as const;

/** The title that the page's route has. A page about one thing says its own. */
function useRouteTitle(): void {
  const handle = useMatches().at(-1)?.handle;
  const title = typeof handle === 'object' && handle !== null && 'title' in handle ? handle.title : undefined;
  usePageTitle(typeof title === 'string' ? title : undefined);
}

const NO_MEANINGS: Meanings = {};

export function Shell({ me }: { me: Me }) {
  useRouteTitle();
  const [finding, setFinding] = useState(false);
  const [keys, setKeys] = useState(false);
  const { data: meanings = NO_MEANINGS } = marksApi.useMeaningsQuery();
  const own = useOwnCommands(
    me.role,
    () => setFinding(true),
    () => setKeys(true),
  );
  return (
    <Commands own={own}>
      <Keys />
      <a href="#main" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-sheet focus:p-2">
        Skip to the page
      </a>
      <div className="flex h-full flex-col">
        <TopBar me={me} onFind={() => setFinding(true)} />
        <main id="main" tabIndex={-1} className="flex min-h-0 flex-1 flex-col outline-none">
          <MeaningsContext value={meanings}>
            <Outlet context={me} />
          </MeaningsContext>
        </main>
      </div>
      <FindDialog open={finding} onOpen={setFinding} />
      <KeysSheet open={keys} onOpen={setKeys} />
    </Commands>
  );
}

function Keys() {
  useShortcuts(useCommands(), useSingleKeys());
  return null;
}

function TopBar({ me, onFind }: { me: Me; onFind: () => void }) {
  const here = useLocation().pathname;
  const nav = useRef<HTMLElement>(null);
  // On a phone the line of work is wider than the screen: where one is stays in sight.
  useEffect(() => {
    if (here !== '')
      nav.current?.querySelector('[aria-current=page]')?.scrollIntoView({ block: 'nearest', inline: 'center' });
  }, [here]);
  return (
    <header className="print:hidden flex h-16 shrink-0 items-center gap-6 border-b border-line px-5 max-[699px]:gap-4 max-[699px]:px-4">
      <NavLink to="/projects" className="flex items-center gap-2.5 text-lg font-semibold">
        <img src="/mark.svg" alt="" width={28} height={28} />
        <span className="max-[699px]:sr-only">Nesting</span>
      </NavLink>
      <nav
        ref={nav}
        aria-label="The line of work"
        className="flex h-full min-w-0 items-stretch overflow-x-auto whitespace-nowrap max-[699px]:flex-1"
      >
        {WORK.map(({ stage, pages }) => {
          const shown = pages.filter(
            (p) => (!('only' in p) || p.only === me.role) && (!('not' in p) || p.not !== me.role),
          );
          const active = shown.some((p) => here.startsWith(p.to));
          return (
            <div key={stage} className="flex flex-col pt-2">
              <span className={`flex items-center gap-2 text-xs font-semibold ${active ? 'text-bottle' : 'text-ink2'}`}>
                {stage}
                {active && <span aria-hidden className="size-1.5 rounded-[2px] bg-bottle" />}
                <span aria-hidden className="mr-2 h-px min-w-6 flex-1 bg-line" />
              </span>
              <span className="flex flex-1 items-stretch gap-4 pr-5">
                {shown.map((p) => (
                  <NavLink
                    key={p.to}
                    to={p.to}
                    className={({ isActive }) =>
                      `flex items-center border-b-2 ${isActive ? 'border-bottle font-semibold' : 'border-clear hover:border-rule'}`
                    }
                  >
                    {p.words}
                  </NavLink>
                ))}
              </span>
            </div>
          );
        })}
      </nav>
      <button
        type="button"
        onClick={onFind}
        className="ml-auto flex h-8 w-56 shrink-0 whitespace-nowrap max-[1399px]:w-52 items-center justify-between rounded-tray border max-[1199px]:w-auto max-[699px]:hidden border-rule bg-sheet px-2 text-sm text-ink2 hover:border-ink"
      >
        Project, person or path
        <kbd className="rounded border border-line px-1 font-mono text-xs">Ctrl K</kbd>
      </button>
      <PersonMenu me={me} />
    </header>
  );
}

function PersonMenu({ me }: { me: Me }) {
  const look = useTheme();
  const go = useNavigate();
  const dispatch = useAppDispatch();
  const [signOut] = peopleApi.useSignOutMutation();
  const leave = async () => {
    await signOut();
    await go('/');
    dispatch(api.util.resetApiState());
  };
  return (
    <Menu
      trigger={
        <button
          type="button"
          aria-label={`${me.name}, ${me.role}: look and signing out`}
          className="size-8 rounded-tray bg-plum text-sm font-semibold text-paper"
        >
          {me.initials}
        </button>
      }
      head={
        <>
          <span className="block font-semibold text-ink">{me.name}</span>
          {me.role}
        </>
      }
      lines={[
        { words: 'Light look', run: () => chooseLook('light'), chosen: look === 'light' },
        { words: 'Night bench', run: () => chooseLook('night'), chosen: look === 'night' },
        { words: "The system's look", run: () => chooseLook('system'), chosen: look === 'system' },
        { words: 'Password, keys and sessions…', run: () => void go('/me') },
        { words: 'Sign out', run: () => void leave() },
      ]}
    />
  );
}
