/**
 * Where a link leads: an invitation, a new password, or the first coordinator of all. The secret stands behind the hash
 * sign and goes to no log.
 */

import { useId, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { troubleOf } from '../../app/api';
import { Button, Labelled, TextInput } from '../../ui';
import { NewPassword } from './new-password';
import { peopleApi } from './people-api';

const TITLES = { first: 'The first coordinator', invite: 'Welcome', reset: 'A new password' } as const;

export function WelcomePage() {
  const token = useLocation().hash.slice(1);
  const go = useNavigate();
  const id = useId();
  const { data: link, error: dead } = peopleApi.useLinkQuery(token, { skip: token === '' });
  const [accept, accepting] = peopleApi.useAcceptLinkMutation();
  const [signIn] = peopleApi.useSignInMutation();
  const [password, setPassword] = useState<string | null>(null);
  const [first, setFirst] = useState({ name: '', email: '', initials: '' });
  const isFirst = link?.purpose === 'first';
  const ready =
    password !== null &&
    (!isFirst || (first.name.trim() !== '' && first.email.includes('@') && /^[A-Z]{1,4}$/.test(first.initials)));
  const submit = async () => {
    if (password === null) return;
    const done = await accept({ token, password, ...(isFirst && { first: { ...first, name: first.name.trim() } }) });
    if (done.data === undefined) return;
    await signIn({ email: done.data.email, password });
    await go('/', { replace: true });
  };
  return (
    <main className="mx-auto flex min-h-full max-w-md flex-col justify-center gap-6 px-6 py-10">
      <div className="flex items-center gap-4">
        <img src="/mark.svg" alt="" width={44} height={44} />
        <h1 className="text-2xl font-semibold">{link ? TITLES[link.purpose] : 'Nesting'}</h1>
      </div>
      {(token === '' || dead) && (
        <p role="alert">
          {token === '' ? 'This address is not whole: open the link as it was given.' : troubleOf(dead)}
        </p>
      )}
      {link && (
        <form
          className="flex flex-col gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            void submit();
          }}
        >
          {!isFirst && (
            <p>
              {link.name}, choose a password. You sign in with <strong className="font-semibold">{link.email}</strong>.
            </p>
          )}
          {isFirst && (
            <>
              <p>Nobody coordinates yet. Whoever fills this in sets the rules, and invites the others.</p>
              <Labelled id={`${id}n`} label="Your name">
                <TextInput
                  id={`${id}n`}
                  value={first.name}
                  maxLength={120}
                  autoComplete="name"
                  onChange={(e) => setFirst({ ...first, name: e.target.value })}
                />
              </Labelled>
              <Labelled id={`${id}e`} label="E-mail address">
                <TextInput
                  id={`${id}e`}
                  type="email"
                  value={first.email}
                  maxLength={200}
                  autoComplete="username"
                  onChange={(e) => setFirst({ ...first, email: e.target.value })}
                />
              </Labelled>
              <Labelled
                id={`${id}i`}
                label="Initials"
                help="one to four capitals; they stand in the names of your files"
              >
                <TextInput
                  id={`${id}i`}
                  value={first.initials}
                  maxLength={4}
                  onChange={(e) => setFirst({ ...first, initials: e.target.value.toUpperCase() })}
                  className="w-24 font-mono"
                />
              </Labelled>
            </>
          )}
          <NewPassword onPassword={setPassword} />
          {accepting.isError && (
            <p role="alert" className="text-sm text-brick">
              {troubleOf(accepting.error)}
            </p>
          )}
          <Button look="main" type="submit" className="self-start" disabled={!ready || accepting.isLoading}>
            Come in
          </Button>
        </form>
      )}
    </main>
  );
}
