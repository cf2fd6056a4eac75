/** The selected line of a change: why it stands there, and what can be done about it. */
import type { ReshapeLine } from '@nesting/core/planners';
import { useState } from 'react';
import { Button, CopyButton, Heading, Labelled, TextInput } from '../../ui';
import { SIGN_WORDS } from './line-signs';

const WHY: Readonly<Record<ReshapeLine['sign'], string>> = {
  made: 'The rules have it from now on, and it is not on the disk.',
  renamed: 'It is the same folder or file; the rules call it otherwise from now on. What is in it goes along.',
  there: 'It is on the disk already under this name, and stays as it is.',
  'left-over':
    'The rules do not know it any more. It stays where it is, with all that is in it; the next check says so.',
  taken:
    'Something of that name is there already, here or above: nothing is overwritten, so it stays as it is. Put the other one away, or give this one another name.',
  elsewhere: 'It belongs on another volume; from here nothing is made there.',
};

interface Props {
  readonly line: ReshapeLine;
  readonly wholePath: (path: string) => string;
  readonly isArtist: boolean;
  readonly onLeave: () => void;
  readonly onCall: (name: string) => void;
}

export function SelectedChange({ line, wholePath, isArtist, onLeave, onCall }: Props) {
  const path = line.after ?? line.before ?? '';
  const isFile = line.key.startsWith('file:') || line.key.startsWith('extra:');
  const acts = !isArtist && (line.sign === 'made' || line.sign === 'renamed' || line.sign === 'taken');
  return (
    <div className="flex flex-col gap-3 text-sm">
      <Heading>Selected: {SIGN_WORDS[line.sign]}</Heading>
      {line.before !== null && line.before !== line.after && (
        <p className="font-mono break-all text-ink2">{line.before}</p>
      )}
      <div className="flex items-start gap-1 rounded-tray border border-line bg-sheet p-2">
        <span className="min-w-0 flex-1 font-mono break-all">{path}</span>
        <CopyButton text={wholePath(path)} what="the path" />
      </div>
      <p className="text-ink2">
        {line.convention === null
          ? WHY[line.sign]
          : `Its name carries a value that is another now; it is written anew by the convention ${line.convention}.${line.count > 1 ? ` ${line.count} frames are one line.` : ''}`}
      </p>
      {acts && (
        <div className="flex flex-wrap gap-2">
          <Button onClick={onLeave}>{line.before === null ? 'Leave it out' : 'Keep its name'}</Button>
        </div>
      )}
      {acts && !isFile && <CalledField now={path.slice(path.lastIndexOf('/') + 1)} onCall={onCall} />}
    </div>
  );
}

/** Another name for the line; taken on Enter, or when the field is left. */
function CalledField({ now, onCall }: { now: string; onCall: (name: string) => void }) {
  const [name, setName] = useState<string | null>(null);
  return (
    <Labelled id="reshape-name" label="Called">
      <TextInput
        id="reshape-name"
        value={name ?? now}
        maxLength={255}
        className="font-mono"
        spellCheck={false}
        autoComplete="off"
        onChange={(e) => setName(e.target.value)}
        onBlur={() => {
          if (name !== null && name.trim() !== '' && name !== now) onCall(name.trim());
          setName(null);
        }}
        onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
      />
    </Labelled>
  );
}
