/** Sign-in; in demo mode the demo studio's people are a click away. */

import { type FormEvent, useId, useState } from 'react';
import { statusOf, troubleOf } from '../../app/api';
import { usePageTitle } from '../../app/use-page-title';
import { Button, TextInput, Trouble } from '../../ui';
import { peopleApi } from '../access/people-api';

const ROLE_WORDS = {
  coordinator: 'sets the rules and starts projects',
  artist: 'works in the projects',
  lead: 'looks, and changes nothing',
} as const;

export function SignInPage() {
  const { data: entrance } = peopleApi.useEntranceQuery();
  const [demoSignIn, demo] = peopleApi.useDemoSignInMutation();
  usePageTitle('Sign in');
  return (
    <main className="mx-auto flex min-h-full max-w-3xl flex-col justify-center gap-8 px-6 py-10">
      <div className="flex items-center gap-4">
        <img src="/mark.svg" alt="" width={44} height={44} />
        <div>
          <h1 className="text-2xl font-semibold">Nesting</h1>
          <p className="text-ink2">What every project's folders and files are called, and where they go.</p>
        </div>
      </div>
      <div className={`grid gap-10 ${entrance?.demo ? 'sm:grid-cols-2' : ''}`}>
        {entrance?.demo && (
          <section aria-labelledby="demo-people">
            <h2 id="demo-people" className="pb-2 text-sm font-semibold">
              Look round as one of the demo studio
            </h2>
            <ul className="divide-y divide-line border-y border-line">
              {entrance.people.map((p) => (
                <li key={p.initials}>
                  <button
                    type="button"
                    onClick={() => void demoSignIn(p.initials)}
                    className="flex w-full items-center gap-3 px-1 py-2 text-left hover:bg-bench"
                  >
                    <span className="flex size-8 shrink-0 items-center justify-center rounded-tray bg-plum text-sm font-semibold text-paper">
                      {p.initials}
                    </span>
                    <span>
                      <span className="block font-semibold">{p.name}</span>
                      <span className="block text-xs text-ink2">
                        {p.role === 'artist' ? `artist, ${p.does}` : `${p.role}: ${ROLE_WORDS[p.role]}`}
                      </span>
                    </span>
                  </button>
                </li>
              ))}
            </ul>
            {demo.isError && <Trouble message={troubleOf(demo.error)} />}
          </section>
        )}
        <PasswordForm mails={entrance?.mails ?? false} />
      </div>
    </main>
  );
}

function PasswordForm({ mails }: { mails: boolean }) {
  const [forgot, asked] = peopleApi.useForgotMutation();
  const [signIn, { isError, error, isLoading }] = peopleApi.useSignInMutation();
  const emailId = useId();
  const passwordId = useId();
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void signIn({ email, password });
  };
  return (
    <form onSubmit={submit} className="flex max-w-80 flex-col gap-3">
      <h2 className="text-sm font-semibold">Sign in</h2>
      <div className="flex flex-col gap-1 text-sm text-ink2">
        <label htmlFor={emailId}>E-mail address</label>
        <TextInput
          id={emailId}
          type="email"
          autoComplete="username"
          required
          value={email}
          onChange={(e) => setEmail(e.target.value)}
        />
      </div>
      <div className="flex flex-col gap-1 text-sm text-ink2">
        <label htmlFor={passwordId}>Password</label>
        <TextInput
          id={passwordId}
          type="password"
          autoComplete="current-password"
          required
          value={password}
          onChange={(e) => setPassword(e.target.value)}
        />
      </div>
      {isError && (
        <p role="alert" className="text-sm text-brick">
          {statusOf(error) === 429 ? troubleOf(error) : 'Nobody is known by this address and password.'}
        </p>
      )}
      <Button variant="main" type="submit" disabled={isLoading} className="self-start">
        Sign in
      </Button>
      {mails ? (
        <Button variant="quiet" className="self-start" disabled={email === ''} onClick={() => void forgot(email)}>
          I forgot my password
        </Button>
      ) : (
        <p className="text-xs text-ink2">Forgotten? A coordinator gives you a link for a new password.</p>
      )}
      {asked.isSuccess && (
        <p role="status" className="text-sm">
          If somebody is known by this address, a mail is on its way to it.
        </p>
      )}
    </form>
  );
}
