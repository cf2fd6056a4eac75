/** What is one's own: the password, keys for scripts, where one is signed in. */

import type { KeyRow, Me } from '@nesting/contract';
import { type FormEvent, useId, useState } from 'react';
import { useOutletContext } from 'react-router';
import { troubleOf } from '../../app/api';
import { ago, day } from '../../app/words';
import { Button, Choose, Confirm, CopyButton, Labelled, Refused, TextInput, Tick } from '../../ui';
import { NewPassword } from './new-password';
import { peopleApi } from './people-api';

export function MePage() {
  const me = useOutletContext<Me>();
  return (
    <div className="min-h-0 flex-1 overflow-auto px-8 py-6">
      <h1 className="text-xl font-semibold">{me.name}</h1>
      <p className="pb-6 text-ink2">
        {me.role}, {me.initials}
      </p>
      <div className="grid max-w-5xl gap-x-12 gap-y-8 lg:grid-cols-2">
        <div className="flex flex-col gap-8">
          <PasswordSection demo={me.demo} />
          <KeysSection />
        </div>
        <SessionsSection />
      </div>
    </div>
  );
}

function PasswordSection({ demo }: { demo: boolean }) {
  const id = useId();
  const [old, setOld] = useState('');
  const [password, setPassword] = useState<string | null>(null);
  const [keepKeys, setKeepKeys] = useState(false);
  const { data: keys = [] } = peopleApi.useKeysQuery();
  const [change, { error, isSuccess, originalArgs }] = peopleApi.useChangePasswordMutation();
  return (
    <section aria-labelledby={`${id}h`} className="flex flex-col gap-3">
      <h2 id={`${id}h`} className="text-lg font-semibold">
        Password
      </h2>
      {demo && (
        <p className="text-sm text-ink2">The people of the demo share one password, and come in by one click.</p>
      )}
      <form
        className="flex max-w-80 flex-col gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          if (password !== null) void change({ old, password, keepKeys: keys.length > 0 && keepKeys });
        }}
      >
        <Labelled id={`${id}o`} label="The old one">
          <TextInput
            id={`${id}o`}
            type="password"
            autoComplete="current-password"
            value={old}
            onChange={(e) => setOld(e.target.value)}
          />
        </Labelled>
        <NewPassword onPassword={setPassword} />
        {keys.length > 0 && (
          <Tick
            label={
              keys.length === 1
                ? 'Keep my access key: otherwise it ends too'
                : `Keep my ${keys.length} access keys: otherwise they end too`
            }
            checked={keepKeys}
            onChange={setKeepKeys}
          />
        )}
        <Refused words={error && troubleOf(error)} />
        {isSuccess && (
          <p role="status" className="text-sm">
            Changed. Every other session has ended{originalArgs?.keepKeys ? '; your keys go on' : ', and every key'}.
          </p>
        )}
        <Button type="submit" className="self-start" disabled={old === '' || password === null}>
          Change it
        </Button>
      </form>
    </section>
  );
}

function SessionsSection() {
  const { data = [] } = peopleApi.useSessionsQuery();
  const [end] = peopleApi.useEndSessionMutation();
  return (
    <section aria-label="Where you are signed in" className="flex flex-col gap-2">
      <h2 className="text-lg font-semibold">Where you are signed in</h2>
      <ul className="text-sm">
        {data.map((s) => (
          <li key={s.id} className="flex items-baseline gap-3 border-b border-line py-1.5">
            <span className="min-w-0 flex-1">
              <span className="font-semibold">{s.here ? 'Here' : s.from || 'Somewhere'}</span>{' '}
              <span className="text-ink2">
                since {day(s.since)}, last seen {ago(s.lastSeen)}
              </span>
              <span className="block truncate text-xs text-note" title={s.browser}>
                {s.browser}
              </span>
            </span>
            {!s.here && (
              <Button variant="quiet" className="h-6!" onClick={() => void end(s.id)}>
                End it
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

const DAYS = [
  { value: '30', label: 'a month' },
  { value: '365', label: 'a year' },
  { value: 'never', label: 'until it is ended' },
];

function KeysSection() {
  const { data = [] } = peopleApi.useKeysQuery();
  return (
    <section aria-label="Access keys" className="flex flex-col gap-3">
      <h2 className="text-lg font-semibold">Access keys</h2>
      <p className="text-sm text-ink2">
        A script or program asks with a key in place of a person:{' '}
        <span className="font-mono">Authorization: Bearer nest_…</span>. It may do what you may, but make no keys and
        change no password.
      </p>
      <ul className="text-sm">
        {data.map((key) => (
          <KeyLine key={key.id} of={key} />
        ))}
      </ul>
      <NewKey />
    </section>
  );
}

function KeyLine({ of }: { of: KeyRow }) {
  const [drop] = peopleApi.useDropKeyMutation();
  return (
    <li className="flex items-baseline gap-3 border-b border-line py-1.5">
      <span className="min-w-0 flex-1">
        <span className="font-semibold">{of.name}</span> <span className="font-mono text-xs text-note">{of.head}…</span>
        <span className="block text-xs text-ink2">
          {of.lastUsedAt ? `last used ${ago(of.lastUsedAt)}` : 'never used'},{' '}
          {of.expiresAt ? `until ${day(of.expiresAt)}` : 'without an end'}
        </span>
      </span>
      <Confirm
        trigger={
          <Button variant="quiet" className="h-6!">
            End it…
          </Button>
        }
        title={`End the key ${of.name}?`}
        act="End it"
        run={() => void drop(of.id)}
      >
        Whatever asks with it is refused from now on.
      </Confirm>
    </li>
  );
}

function NewKey() {
  const id = useId();
  const [make, made] = peopleApi.useMakeKeyMutation();
  const [name, setName] = useState('');
  const [days, setDays] = useState('365');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void make({ name: name.trim(), days: days === 'never' ? null : Number(days) }).then(() => setName(''));
  };
  return (
    <>
      {made.data && (
        <div className="rounded-tray border border-ochre bg-sheet p-2 text-sm" role="status">
          <p>This is the key. It is shown only now.</p>
          <p className="flex items-start gap-1 font-mono text-xs break-all">
            <span className="flex-1">{made.data.key}</span>
            <CopyButton text={made.data.key} what="the key" />
          </p>
        </div>
      )}
      <Refused words={made.error && troubleOf(made.error)} />
      <form className="flex flex-wrap items-end gap-3" onSubmit={submit}>
        <Labelled id={`${id}n`} label="What is it for">
          <TextInput
            id={`${id}n`}
            value={name}
            maxLength={80}
            placeholder="render machine"
            onChange={(e) => setName(e.target.value)}
          />
        </Labelled>
        <span className="w-40">
          <Labelled id={`${id}d`} label="For">
            <Choose id={`${id}d`} label="For" value={days} options={DAYS} onChange={setDays} />
          </Labelled>
        </span>
        <Button type="submit" disabled={name.trim() === ''}>
          Make a key
        </Button>
      </form>
    </>
  );
}
