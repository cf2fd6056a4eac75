/** What was set aside in this folder before: put back, or deleted for good by whoever writes the folder’s name. */
import { type FormEvent, useState } from 'react';
import { ago, many, size } from '../../../app/words';
import type { KeptHere } from '../../../browser-disk/batches';
import { Button, Heading, Labelled, TextInput } from '../../../ui';
import type { LeftWork } from './use-left';

export function KeptHereList({ work, folder }: { work: LeftWork; folder: string }) {
  const [freed, setFreed] = useState<string | null>(null);
  return (
    <section aria-label="Set aside in this folder" className="flex flex-col gap-2 text-sm">
      <Heading>Set aside in this folder</Heading>
      <ul className="flex flex-col gap-2">
        {work.kept.map((one) => (
          <li key={one.id} className="flex flex-col gap-2 rounded-tray border border-line bg-sheet px-3 py-2">
            <p>
              {many(one.files, 'file')} of {size(one.bytes)}, {ago(one.at)}
            </p>
            {freed === one.id ? (
              <Free work={work} kept={one} folder={folder} onLeave={() => setFreed(null)} />
            ) : (
              <div className="flex gap-2">
                <Button disabled={work.running !== null} onClick={() => void work.undo(one.id)}>
                  Put it back
                </Button>
                <Button disabled={work.running !== null} onClick={() => setFreed(one.id)}>
                  Free the space…
                </Button>
              </div>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

interface FreeProps {
  readonly work: LeftWork;
  readonly kept: KeptHere;
  readonly folder: string;
  readonly onLeave: () => void;
}

function Free({ work, kept: { id, files, bytes }, folder, onLeave }: FreeProps) {
  const [written, setWritten] = useState('');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    onLeave();
    void work.free(id);
  };
  const name = folder || 'the folder';
  return (
    <form className="flex flex-col gap-2" onSubmit={submit}>
      <p className="text-ink2">
        Deletes {many(files, 'file')} of {size(bytes)} for good. They cannot be put back any more.
      </p>
      <Labelled id="free-left" label={`Write ${name} to say that you mean it`}>
        <TextInput
          id="free-left"
          value={written}
          autoComplete="off"
          autoFocus
          className="font-mono"
          onChange={(e) => setWritten(e.target.value)}
        />
      </Labelled>
      <div className="flex gap-2">
        <Button type="submit" disabled={written.trim() !== name}>
          Free {size(bytes)}
        </Button>
        <Button variant="quiet" onClick={onLeave}>
          Cancel
        </Button>
      </div>
    </form>
  );
}
