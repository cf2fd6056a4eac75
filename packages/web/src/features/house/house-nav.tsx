/** The house's lists, one under another. */
import type { Me } from '@nesting/contract';
import { NavLink, useOutletContext } from 'react-router';

interface Page {
  readonly to: string;
  readonly words: string;
  readonly for?: readonly Me['role'][];
  readonly demo?: true;
}

const PAGES: readonly Page[] = [
  { to: 'clients', words: 'Clients' },
  { to: 'people', words: 'People and access', for: ['coordinator'] },
  { to: 'families', words: 'Families of files' },
  { to: 'abbreviations', words: 'Abbreviations' },
  { to: 'banned', words: 'Banned words' },
  { to: 'libraries', words: 'Libraries' },
  { to: 'marks', words: 'Marks' },
  { to: 'numbers', words: 'Project numbers', for: ['coordinator', 'lead'] },
  { to: 'volumes', words: 'Volumes' },
  { to: 'outbox', words: 'Outbox', for: ['coordinator'], demo: true },
];

export const listWords = (list: string): string => PAGES.find((p) => p.to === list)?.words ?? 'Lists';

export function HouseNav() {
  const me = useOutletContext<Me>();
  return (
    <nav aria-label="The house's lists">
      <ul className="flex flex-col">
        {PAGES.filter((p) => (p.for === undefined || p.for.includes(me.role)) && (p.demo !== true || me.demo)).map(
          (p) => (
            <li key={p.to}>
              <NavLink
                to={`/registers/${p.to}`}
                className={({ isActive }) =>
                  `block rounded-tray px-2 py-1 ${isActive ? 'bg-chosen font-semibold ring-1 ring-plum ring-inset' : 'hover:bg-bench'}`
                }
              >
                {p.words}
              </NavLink>
            </li>
          ),
        )}
      </ul>
    </nav>
  );
}
