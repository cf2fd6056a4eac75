/** What a link opens, for whoever has it: this one package, and nothing else of the house. */
import type { Sent } from '@nesting/contract';
import { type FormEvent, useState } from 'react';
import { refusalCodeOf, troubleOf } from '../../app/api';
import { usePageTitle } from '../../app/use-page-title';
import { many, moment, size } from '../../app/words';
import { Button, CopyButton, Empty, Heading, Labelled, TextInput, Trouble } from '../../ui';
import { packagesApi } from './packages-api';
import { lastDay } from './send-links';

export function SentPage() {
  usePageTitle('A package for you');
  const secret = location.hash.slice(1);
  const [word, setWord] = useState('');
  const { data, error, isError, isFetching, refetch } = packagesApi.useSentQuery(
    { secret, word },
    { skip: secret.length < 20 },
  );
  if (secret.length < 20) return <Empty title="This link is not whole">Copy all of it, up to its end.</Empty>;
  if (isError && refusalCodeOf(error) === 'word-wrong')
    return <AskWord isFirst={word === ''} isBusy={isFetching} message={troubleOf(error)} onWord={setWord} />;
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  return data === undefined ? null : <Opened sent={data} />;
}

interface AskProps {
  readonly isFirst: boolean;
  readonly isBusy: boolean;
  readonly message: string;
  readonly onWord: (word: string) => void;
}

function AskWord({ isFirst, isBusy, message, onWord }: AskProps) {
  const [word, setWord] = useState('');
  const open = (event: FormEvent) => {
    event.preventDefault();
    onWord(word);
  };
  return (
    <main className="mx-auto flex max-w-md flex-col gap-4 px-6 py-16">
      <img src="/mark.svg" alt="" width={44} height={44} />
      <h1 className="text-xl font-semibold">A package for you</h1>
      <form onSubmit={open} className="flex flex-col gap-3">
        <Labelled id="sent-word" label="The word that goes with the link">
          <TextInput id="sent-word" value={word} autoFocus onChange={(e) => setWord(e.target.value)} />
        </Labelled>
        {!isFirst && <p className="text-sm text-brick">{message}</p>}
        <Button type="submit" variant="main" className="self-start" disabled={isBusy || word === ''}>
          Open
        </Button>
      </form>
    </main>
  );
}

function Opened({ sent }: { sent: Sent }) {
  const { name, size: bytes, sha256, files, from, recipient, note, at, until, download } = sent;
  return (
    <main className="mx-auto flex max-w-xl flex-col gap-5 px-6 py-12">
      <img src="/mark.svg" alt="" width={44} height={44} />
      <div>
        <p className="text-sm text-ink2">
          {recipient === '' ? 'A package for you' : `For ${recipient}`}
          {from !== '' && `, from ${from}`}
        </p>
        <h1 className="font-mono text-xl break-all">{name}</h1>
        <p className="text-sm text-ink2">
          {many(files, 'file')}, {size(bytes)}, packed {moment(at)}
        </p>
      </div>
      {note !== '' && <p className="whitespace-pre-wrap">{note}</p>}
      <div className="flex items-center gap-4 print:hidden">
        <a
          href={download}
          className="rounded-tray bg-bottle px-4 py-2 font-semibold text-paper hover:opacity-90"
          download={name}
        >
          Download
        </a>
        <Button onClick={() => print()}>Print a delivery note</Button>
      </div>
      <div className="flex flex-col gap-1 text-sm">
        <Heading>To see whether it arrived whole</Heading>
        <p className="flex items-start gap-1">
          <span className="min-w-0 flex-1 font-mono break-all">{sha256}</span>
          <CopyButton text={sha256} what="the checksum" />
        </p>
        <p className="text-ink2">
          This is its sha256 checksum. Inside lies a list with one for every file. A download that is cut short can go
          on where it was.
        </p>
      </div>
      <p className="text-sm text-ink2 print:hidden">The link opens it until {lastDay(until)}.</p>
      <dl className="hidden print:block">
        <dt>Received on</dt>
        <dd className="mt-10 border-t border-ink">Date, name</dd>
      </dl>
    </main>
  );
}
