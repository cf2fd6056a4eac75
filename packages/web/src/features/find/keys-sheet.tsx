/** The sheet behind ?: every key of the page shown, and the switch for single keys. */
import { useCommands } from '../../app/commands';
import { setSingleKeys, useSingleKeys } from '../../app/use-theme';
import { Panel } from '../../ui';

const TREE_KEYS: readonly (readonly [string, string])[] = [
  ['↑ ↓', 'one line up or down'],
  ['→ ←', 'open, into; close, out of'],
  ['Home End', 'first and last line'],
  ['*', 'open all beside this one'],
  ['letters', 'the next name that begins with them'],
];

export function KeysSheet({ open, onOpen }: { open: boolean; onOpen: (open: boolean) => void }) {
  const commands = useCommands().filter((c) => c.keys !== undefined);
  const single = useSingleKeys();
  return (
    <Panel open={open} onOpen={onOpen} title="Keys" isTitleShown className="max-h-[80vh] w-120 overflow-auto p-5">
      <dl className="grid grid-cols-[8rem_1fr] gap-y-1.5">
        {commands.map((c) => (
          <Pair key={c.id} keys={c.keys?.replaceAll('+', ' ') ?? ''} words={c.words} />
        ))}
      </dl>
      <p className="pt-4 pb-1 text-xs font-semibold text-ink2">In a hierarchy</p>
      <dl className="grid grid-cols-[8rem_1fr] gap-y-1.5">
        {TREE_KEYS.map(([keys, words]) => (
          <Pair key={keys} keys={keys} words={words} />
        ))}
      </dl>
      <label className="mt-4 flex items-center gap-2 border-t border-line pt-3 text-sm">
        <input
          type="checkbox"
          checked={single}
          onChange={(e) => setSingleKeys(e.target.checked)}
          className="accent-bottle"
        />
        Single keys work outside fields
      </label>
    </Panel>
  );
}

function Pair({ keys, words }: { keys: string; words: string }) {
  return (
    <>
      <dt className="font-mono text-sm text-plum">{keys}</dt>
      <dd className="text-sm">{words}</dd>
    </>
  );
}
