/** What is in a file of rules, line by line, with what is done about each. */
import type { RuleAct, RuleKind, RuleSetRow } from '@nesting/contract';
import { elementAt } from '@nesting/core';
import { Choose } from '../../ui';

export const KIND_WORDS: Readonly<Record<RuleKind, string>> = {
  template: 'template',
  block: 'shared part',
  convention: 'convention',
  list: 'list',
};
export const STATE_WORDS: Readonly<Record<RuleSetRow['state'], string>> = {
  new: 'new here',
  same: 'the same here',
  differs: 'different here',
};

/** What an act means for one row: new things come in force, others as drafts. */
function actWords(row: RuleSetRow, act: RuleAct): string {
  if (act === 'leave') return row.state === 'same' ? 'nothing to do' : 'leave it out';
  if (act === 'beside') return 'beside ours, as a draft';
  if (row.kind === 'list') return row.state === 'new' ? 'add what is new' : 'add, and take theirs';
  return row.state === 'new' ? 'take it in force' : 'as a draft of ours';
}

/** Shape before colour: new is a solid square, otherwise a bar, the same a ring. */
function StateSign({ state }: { state: RuleSetRow['state'] }) {
  return (
    <svg width="12" height="12" viewBox="0 0 12 12" role="img" aria-label={STATE_WORDS[state]} className="shrink-0">
      {state === 'new' && <path d="M6 1v10M1 6h10" stroke="var(--bottle)" strokeWidth="2.400" />}
      {state === 'differs' && <path d="M1 4h10M1 8h6" stroke="var(--plum)" strokeWidth="2.400" />}
      {state === 'same' && <circle cx="6" cy="6" r="4.500" fill="none" stroke="var(--slate)" strokeWidth="1.600" />}
    </svg>
  );
}

interface Props {
  readonly row: RuleSetRow;
  /** What is done with it. */
  readonly act: RuleAct;
  readonly isSelected: boolean;
  readonly onSelect: () => void;
  readonly onAct: (act: RuleAct) => void;
}

export function RuleRow({ row, act, isSelected, onSelect, onAct }: Props) {
  return (
    <li
      className={`grid grid-cols-[minmax(0,1fr)_13rem] items-center gap-3 border-b border-line py-1 pl-2 ${isSelected ? 'rounded-tray bg-chosen ring-1 ring-plum ring-inset' : ''}`}
    >
      <button
        type="button"
        aria-pressed={isSelected}
        onClick={onSelect}
        className="flex min-w-0 items-center gap-2 text-left"
      >
        <StateSign state={row.state} />
        <span className="truncate font-semibold">{row.name}</span>
        <span className="shrink-0 text-xs text-note">
          {KIND_WORDS[row.kind]}, {STATE_WORDS[row.state]}
        </span>
      </button>
      {row.acts.length === 1 ? (
        <span className="px-2 text-sm text-ink2">{actWords(row, elementAt(row.acts, 0))}</span>
      ) : (
        <Choose
          label={`What is done with ${row.name}`}
          value={act}
          options={row.acts.map((value) => ({ value, label: actWords(row, value) }))}
          onChange={onAct}
        />
      )}
    </li>
  );
}
