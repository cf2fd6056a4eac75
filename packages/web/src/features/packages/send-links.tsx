/** Links that open one package: made with a day and perhaps a word, told once, counted, ended. */
import type { PackageRow } from '@nesting/contract';
import { type FormEvent, useState } from 'react';
import { troubleOf } from '../../app/api';
import { day, many, moment } from '../../app/words';
import { Button, CopyButton, Heading, Labelled, TextInput } from '../../ui';
import { DateField } from '../../ui/date-field';
import { packagesApi } from './packages-api';

/** A link ends with its day. */
export const lastDay = (until: string): string => day(new Date(Date.parse(until) - 1000).toISOString());

const A_WEEK = 7 * 86_400_000;
const isoDay = (at: number): string => new Date(at).toISOString().slice(0, 10);

export function SendLinks({ row }: { row: PackageRow }) {
  const [revoke] = packagesApi.useRevokeLinkMutation();
  return (
    <section className="flex flex-col gap-2" aria-label="Links that open it">
      <Heading>Send it by a link</Heading>
      {row.links.length > 0 && (
        <ul className="flex flex-col gap-1">
          {row.links.map(({ id, until, hasWord, opened, lastAt }) => (
            <li key={id} className="flex items-center gap-2 rounded-tray border border-line bg-sheet px-2 py-1">
              <span className="min-w-0 flex-1">
                Until {lastDay(until)}
                {hasWord && ', with a word'}
                <span className="block text-xs text-ink2">
                  {opened === 0 ? 'Not fetched yet' : `Fetched ${many(opened, 'time')}`}
                  {lastAt !== null && `, last ${moment(lastAt)}`}
                </span>
              </span>
              <Button variant="quiet" onClick={() => void revoke({ id: row.id, link: id })}>
                End it
              </Button>
            </li>
          ))}
        </ul>
      )}
      <NewLink id={row.id} />
    </section>
  );
}

function NewLink({ id }: { id: string }) {
  const [until, setUntil] = useState(() => isoDay(Date.now() + A_WEEK));
  const [word, setWord] = useState('');
  const [send, { data, error, isLoading }] = packagesApi.useSendPackageMutation();
  const make = (event: FormEvent) => {
    event.preventDefault();
    void send({ id, until, word: word.trim() === '' ? null : word.trim() });
  };
  return (
    <form onSubmit={make} className="flex flex-col gap-2">
      <div className="flex gap-2">
        <Labelled id="send-until" label="Opens until">
          <DateField id="send-until" value={until} onGive={setUntil} fault={false} />
        </Labelled>
        <Labelled id="send-word" label="A word to open it">
          <TextInput
            id="send-word"
            value={word}
            placeholder="none"
            maxLength={100}
            onChange={(e) => setWord(e.target.value)}
          />
        </Labelled>
      </div>
      <Button type="submit" className="self-start" disabled={isLoading || until === ''}>
        Make a link
      </Button>
      {error !== undefined && <p className="text-brick">{troubleOf(error)}</p>}
      {data !== undefined && (
        <p className="flex items-start gap-1 rounded-tray border border-plum bg-chosen p-2">
          <span className="min-w-0 flex-1 font-mono break-all">{data.link}</span>
          <CopyButton text={data.link} what="the link" />
        </p>
      )}
      {data !== undefined && <p className="text-ink2">It is shown only now: nobody can look it up again.</p>}
    </form>
  );
}
