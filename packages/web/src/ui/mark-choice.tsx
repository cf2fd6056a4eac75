/** One of the house's marks, chosen by its meaning. */
import { MARKS, type Mark } from '@nesting/core/template';
import { useId } from 'react';
import { Choose, Labelled } from './fields';
import { useMarkWords } from './meanings';
import { markColour, TraySign } from './signs';

const NONE = 'none';

interface Props {
  readonly label: string;
  readonly value: Mark | null;
  /** What no mark means here. */
  readonly none: string;
  readonly disabled: boolean;
  readonly onChoose: (mark: Mark | null) => void;
}

export function MarkChoice({ label, value, none, disabled, onChoose }: Props) {
  const id = useId();
  const words = useMarkWords();
  return (
    <Labelled id={id} label={label}>
      <Choose
        id={id}
        label={label}
        disabled={disabled}
        value={value ?? NONE}
        options={[
          { value: NONE, label: none, sign: <Tray mark={null} /> },
          ...MARKS.map((mark) => ({ value: mark, label: words(mark), sign: <Tray mark={mark} /> })),
        ]}
        onChange={(chosen) => onChoose(MARKS.find((mark) => mark === chosen) ?? null)}
      />
    </Labelled>
  );
}

/** The words beside it say what it is. */
function Tray({ mark }: { mark: Mark | null }) {
  return (
    <span aria-hidden style={{ color: markColour(mark) }}>
      <TraySign mark={mark} state={mark === null ? 'planned' : 'there'} />
    </span>
  );
}
