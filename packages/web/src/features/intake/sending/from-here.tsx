/** Files of this computer are sent to where loose material arrives: chosen, on their way, there. */
import type { VolumeRow } from '@nesting/contract';
import { type DragEvent, type ReactNode, useEffect, useState } from 'react';
import { Link } from 'react-router';
import { count, many, size } from '../../../app/words';
import { Button, Choose, FileButton, Heading, Labelled, TextInput } from '../../../ui';
import { droppedFiles, nameDropped } from './dropped';
import { placedFiles, type SendingFiles } from './use-sending';

interface Props {
  readonly sending: SendingFiles;
  readonly volumes: readonly VolumeRow[];
  /** Initials of whoever sends. */
  readonly by: string;
  readonly onThere: (place: { readonly volume: string; readonly folder: string }) => void;
}

export function FromHere({ sending, volumes, by, onThere }: Props) {
  const { state } = sending;
  const inboxes = volumes.filter((v) => v.isInbox && v.state === 'ready');
  const [volume, setVolume] = useState<string | null>(null);
  const [name, setName] = useState('');
  const into = volume ?? inboxes[0]?.name;
  const folder = state.kind === 'ended' && state.why === null ? state.folder : null;
  useEffect(() => {
    if (state.kind === 'ended' && folder !== null) onThere({ volume: state.volume, folder });
  }, [folder]);
  const begin = (files: readonly File[], own: string | null) => {
    if (into === undefined) return;
    const called = name.trim() || own || `from ${by} ${nowWords()}`;
    setName('');
    void sending.send({ volume: into, name: called, files: placedFiles(files) });
  };
  return (
    <section aria-label="From this computer" className="flex flex-col gap-2">
      <Heading>From this computer</Heading>
      {into === undefined ? (
        <p className="text-sm text-ink2">
          No volume takes loose material yet: a coordinator says in the list of{' '}
          <Link to="/registers/volumes" className="text-plum underline">
            volumes
          </Link>{' '}
          on which it arrives.
        </p>
      ) : state.kind === 'idle' ? (
        <>
          {inboxes.length > 1 && (
            <Choose
              label="Volume it is sent to"
              value={into}
              options={inboxes.map((v) => ({ value: v.name, label: v.name }))}
              onChange={setVolume}
            />
          )}
          <Labelled id="sent-name" label="What it is" help="The folder that is made for it gets this name.">
            <TextInput
              id="sent-name"
              value={name}
              maxLength={100}
              placeholder={`from ${by} ${nowWords()}`}
              autoComplete="off"
              onChange={(e) => setName(e.target.value)}
            />
          </Labelled>
          <div className="flex flex-wrap gap-2">
            <FileButton label="Files of this computer" isMany onFiles={(files) => begin(files, null)}>
              Files…
            </FileButton>
            <FileButton
              label="A folder of this computer"
              folder
              onFiles={(files) => begin(files, files[0].webkitRelativePath.split('/')[0] ?? null)}
            >
              A folder…
            </FileButton>
          </div>
          <p className="text-xs text-ink2">Or drop them on this page.</p>
        </>
      ) : (
        <OnTheWay sending={sending} />
      )}
    </section>
  );
}

/** As it can stand in a folder's name. */
const nowWords = (): string => {
  const at = new Date();
  const two = (n: number) => String(n).padStart(2, '0');
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())} ${two(at.getHours())}.${two(at.getMinutes())}`;
};

/** What is dropped anywhere on it is sent. */
export function DropPlace({ sending, volumes, by, children }: Omit<Props, 'onThere'> & { children: ReactNode }) {
  const [isOver, setOver] = useState(false);
  const into = volumes.find((v) => v.isInbox && v.state === 'ready')?.name;
  const takes = into !== undefined && sending.state.kind === 'idle';
  const drop = async (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    if (!takes) return;
    const name = nameDropped(event.dataTransfer);
    const files = await droppedFiles(event.dataTransfer);
    if (files.length > 0) await sending.send({ volume: into, name: name ?? `from ${by} ${nowWords()}`, files });
  };
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: what is dropped can be chosen by the buttons too
    <div
      className={`flex min-h-0 flex-1 flex-col rounded-tray ${isOver && takes ? 'outline-2 outline-bottle outline-dashed' : ''}`}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => void drop(event)}
    >
      {children}
    </div>
  );
}

function OnTheWay({ sending }: { sending: SendingFiles }) {
  const { state, stop, again, leave, putAway } = sending;
  if (state.kind === 'idle') return null;
  const { volume, folder, name, files, bytes, allFiles, allBytes } = state;
  const place = (
    <p className="font-mono text-xs break-all">
      {volume}/{folder || name}
    </p>
  );
  const part = `${Math.round((100 * bytes) / (allBytes || 1))}%`;
  if (state.kind === 'sending')
    return (
      <div className="flex flex-col gap-2 rounded-tray border border-line bg-sheet p-3 text-sm">
        {place}
        <span aria-hidden className="block h-1.5 rounded-tray bg-line">
          <span className="block h-full rounded-tray bg-bottle" style={{ width: part }} />
        </span>
        <p role="status">
          {state.isWaiting
            ? 'The server cannot be reached. It goes on by itself when it can.'
            : `${count(files)} of ${many(allFiles, 'file')}, ${size(bytes)} of ${size(allBytes)}${rateWords(state)}`}
        </p>
        <p className="text-ink2">It goes on while you look at other pages here. Leave this window open.</p>
        <Button className="self-start" onClick={stop}>
          Stop
        </Button>
      </div>
    );
  const isWhole = state.why === null && state.failed.length === 0;
  return (
    <div className="flex flex-col gap-2 rounded-tray border border-line bg-sheet p-3 text-sm">
      {place}
      <p role="status" className={isWhole ? '' : 'text-brick'}>
        {isWhole
          ? `${many(files, 'file')}, ${size(allBytes)}: all of it is there, read back and proved.`
          : (state.why ?? `${count(files)} of ${many(allFiles, 'file')} are there.`)}
      </p>
      {state.failed.length > 0 && (
        <ul aria-label="Not sent" className="max-h-40 overflow-auto">
          {state.failed.map(({ path, why }) => (
            <li key={path} className="border-b border-line py-1">
              <span className="font-mono text-xs break-all">{path}</span>: {why}
            </li>
          ))}
        </ul>
      )}
      <div className="flex flex-wrap gap-2">
        {isWhole ? (
          <Button onClick={putAway}>Send more</Button>
        ) : (
          <>
            <Button onClick={() => void again()}>Go on</Button>
            <Button variant="quiet" onClick={() => void leave()}>
              Leave the rest
            </Button>
          </>
        )}
      </div>
    </div>
  );
}

/** A few seconds tell too little. */
const TOLD_AFTER = 3000;

function rateWords({ since, bytes, allBytes }: { since: number; bytes: number; allBytes: number }): string {
  const ms = Date.now() - since;
  if (ms < TOLD_AFTER || bytes === 0) return '';
  const left = Math.ceil(((allBytes - bytes) * ms) / bytes / 1000);
  const words = left < 90 ? many(left, 'second') : many(Math.ceil(left / 60), 'minute');
  return `, ${size((bytes * 1000) / ms)} a second, ${words} left`;
}
