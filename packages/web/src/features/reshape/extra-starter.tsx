import type { Expansion, PlannedLine } from '@nesting/core/template';
import { useId, useState } from 'react';
import { Button, Choose, Heading, Labelled, TextInput } from '../../ui';
import type { Wish } from './reshape-slice';

interface ExtraStarterProps {
  readonly wish: Wish;
  readonly expansion: Expansion;
  readonly onChange: (wish: Wish, what: null) => void;
}

export function ExtraStarter({ wish, expansion, onChange }: ExtraStarterProps) {
  const [open, setOpen] = useState(false);
  const starters = expansion.lines.filter((l) => l.starter !== null);
  const folders = expansion.lines
    .filter((l) => l.kind === 'folder' && l.parent !== null && (l.made || l.rules.conventions !== null))
    .slice(0, 500);
  if (starters.length === 0) return null;
  return (
    <section aria-label="Another starter file" className="flex flex-col gap-2 text-sm">
      <Heading>Another starter file</Heading>
      {wish.extra.map((e) => (
        <p key={`${e.folder}${e.name}`} className="flex items-baseline gap-2">
          <span className="min-w-0 flex-1 font-mono text-xs break-all">{e.name}</span>
          <Button
            variant="quiet"
            className="h-5!"
            onClick={() => onChange({ ...wish, extra: wish.extra.filter((o) => o !== e) }, null)}
          >
            Not now
          </Button>
        </p>
      ))}
      {!open ? (
        <Button variant="quiet" className="h-6! self-start" onClick={() => setOpen(true)}>
          Add one…
        </Button>
      ) : (
        <ExtraForm
          starters={starters}
          folders={folders}
          onAdd={(extra) => {
            onChange({ ...wish, extra: [...wish.extra, extra] }, null);
            setOpen(false);
          }}
          onClose={() => setOpen(false)}
        />
      )}
    </section>
  );
}

interface FormProps {
  readonly starters: readonly PlannedLine[];
  readonly folders: readonly PlannedLine[];
  readonly onAdd: (extra: Wish['extra'][number]) => void;
  readonly onClose: () => void;
}

function ExtraForm({ starters, folders, onAdd, onClose }: FormProps) {
  const id = useId();
  const [given, setGiven] = useState({ starter: starters[0]?.key ?? '', folder: folders[0]?.key ?? '', name: '' });
  const { starter, folder } = given;
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (given.name.trim() === '') return;
        onAdd({ starter, folder, name: given.name.trim() });
      }}
    >
      <Labelled id={`${id}s`} label="As">
        <Choose
          id={`${id}s`}
          label="As"
          value={starter}
          options={starters.map((l) => ({ value: l.key, label: l.name }))}
          onChange={(s) => setGiven({ ...given, starter: s })}
        />
      </Labelled>
      <Labelled id={`${id}f`} label="In">
        <Choose
          id={`${id}f`}
          label="In"
          value={folder}
          options={folders.map((l) => ({ value: l.key, label: l.path }))}
          onChange={(f) => setGiven({ ...given, folder: f })}
        />
      </Labelled>
      <Labelled id={`${id}n`} label="Called">
        <TextInput
          id={`${id}n`}
          value={given.name}
          onChange={(e) => setGiven({ ...given, name: e.target.value })}
          className="font-mono"
          spellCheck={false}
          autoComplete="off"
        />
      </Labelled>
      <span className="flex gap-3">
        <Button type="submit" variant="quiet" className="h-6!" disabled={given.name.trim() === ''}>
          Add it
        </Button>
        <Button variant="quiet" className="h-6!" onClick={onClose}>
          Cancel
        </Button>
      </span>
    </form>
  );
}
