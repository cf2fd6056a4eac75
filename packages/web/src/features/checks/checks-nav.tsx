/** The pages about checks of all projects, one under another. */
import type { Me } from '@nesting/contract';
import { NavLink, useOutletContext } from 'react-router';

const PAGES: readonly { readonly to: string; readonly words: string; readonly for: readonly Me['role'][] }[] = [
  { to: '/checks', words: 'All projects', for: ['coordinator', 'lead'] },
  { to: '/checks/people', words: 'Who has what to put right', for: ['coordinator', 'lead'] },
  { to: '/checks/repair', words: 'Put right everywhere', for: ['coordinator'] },
  { to: '/checks/mine', words: 'Mine', for: ['coordinator', 'artist', 'lead'] },
  { to: '/checks/proposals', words: 'Proposals', for: ['coordinator', 'artist', 'lead'] },
  { to: '/checks/set-aside', words: 'Set aside', for: ['coordinator', 'artist', 'lead'] },
  { to: '/checks/left', words: 'Left by programs here', for: ['coordinator', 'artist', 'lead'] },
  { to: '/checks/exceptions', words: 'Accepted findings', for: ['coordinator', 'artist', 'lead'] },
];

export function ChecksNav() {
  const me = useOutletContext<Me>();
  return (
    <nav aria-label="Checks">
      <ul className="flex flex-col">
        {PAGES.filter((p) => p.for.includes(me.role)).map((p) => (
          <li key={p.to}>
            <NavLink
              end
              to={p.to}
              className={({ isActive }) =>
                `block rounded-tray px-2 py-1 ${isActive ? 'bg-chosen font-semibold ring-1 ring-plum ring-inset' : 'hover:bg-bench'}`
              }
            >
              {p.words}
            </NavLink>
          </li>
        ))}
      </ul>
    </nav>
  );
}
