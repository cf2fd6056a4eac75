/** What is kept with a template under names, and used again: chosen, forgotten, kept. */
import { type FormEvent, useState } from 'react';
import { Button, Heading, Popover, TextInput } from '../ui';

interface Props<Way> {
  /** What opens it. */
  readonly label: string;
  /** Said where nothing is kept yet: what of it would be. */
  readonly empty: string;
  readonly ways: readonly { readonly name: string; readonly way: Way }[];
  readonly onUse: (way: Way) => void;
  readonly onForget: (name: string) => void;
  /** Whether it was kept. */
  readonly onKeep: (name: string) => Promise<boolean>;
  readonly isKeeping: boolean;
  readonly trouble: string | null;
}

export function KeptWithTemplate<Way>(props: Props<Way>) {
  const { label, empty, ways, onUse, onForget, onKeep, isKeeping, trouble } = props;
  const [isOpen, setIsOpen] = useState(false);
  const [name, setName] = useState('');
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (await onKeep(name.trim())) setName('');
  };
  return (
    <Popover label={label} trigger={<Button>{label}…</Button>} open={isOpen} onOpen={setIsOpen} width="w-80">
      <div className="flex flex-col gap-3 p-3 text-sm">
        <Heading>Kept with this template</Heading>
        {ways.length === 0 && <p className="text-ink2">{empty}</p>}
        <ul className="flex flex-col gap-1">
          {ways.map((kept) => (
            <li key={kept.name} className="flex items-center gap-1">
              <button
                type="button"
                onClick={() => {
                  onUse(kept.way);
                  setIsOpen(false);
                }}
                className="min-w-0 flex-1 truncate rounded-tray px-2 py-1 text-left hover:bg-bench"
              >
                {kept.name}
              </button>
              <Button variant="quiet" aria-label={`Forget ${kept.name}`} onClick={() => onForget(kept.name)}>
                Forget it
              </Button>
            </li>
          ))}
        </ul>
        <form className="flex gap-2" onSubmit={(event) => void submit(event)}>
          <TextInput
            aria-label="What this way is called"
            placeholder="What this way is called"
            value={name}
            maxLength={100}
            className="min-w-0 flex-1"
            onChange={(e) => setName(e.target.value)}
          />
          <Button type="submit" disabled={name.trim() === '' || isKeeping}>
            Keep it
          </Button>
        </form>
        {trouble !== null && <p className="text-brick">{trouble}</p>}
      </div>
    </Popover>
  );
}
