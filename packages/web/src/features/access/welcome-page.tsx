/**
 * Where a link leads: an invitation, a new password, or the first coordinator of all. The secret stands behind the hash
 * sign and goes to no log.
 */

import { useEffect, useId, useState } from 'react';
import { useForm } from 'react-hook-form';
import { useLocation, useNavigate } from 'react-router';
import { troubleOf } from '../../app/api';
import type { BodyFor } from '../../app/endpoints';
import { Button, Labelled, Refused, TextInput } from '../../ui';
import { NewPassword } from './new-password';
import { peopleApi } from './people-api';

const TITLES = { first: 'The first coordinator', invite: 'Welcome', reset: 'A new password' } as const;

export function WelcomePage() {
  const token = useLocation().hash.slice(1);
  const go = useNavigate();
  const { data: link, error: dead } = peopleApi.useLinkQuery(token, { skip: token === '' });
  const [accept, accepting] = peopleApi.useAcceptLinkMutation();
  const [signIn] = peopleApi.useSignInMutation();
  const [password, setPassword] = useState<string | null>(null);
  const [first, setFirst] = useState<First | null>(null);
  const isFirst = link?.purpose === 'first';
  const ready = password !== null && (!isFirst || first !== null);
  const submit = async () => {
    if (password === null) return;
    const done = await accept({ token, password, ...(isFirst && first !== null && { first }) });
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
          {link.purpose === 'reset' && (
            <p className="text-sm text-ink2">You are signed out everywhere else, and your access keys end.</p>
          )}
          {isFirst && <FirstFields onFirst={setFirst} />}
          <NewPassword onPassword={setPassword} />
          <Refused words={accepting.error && troubleOf(accepting.error)} />
          <Button variant="main" type="submit" className="self-start" disabled={!ready || accepting.isLoading}>
            Come in
          </Button>
        </form>
      )}
    </main>
  );
}

type First = NonNullable<BodyFor<'acceptLink'>['first']>;

/** Who coordinates first says who they are. `null` while something is missing. */
function FirstFields({ onFirst }: { onFirst: (first: First | null) => void }) {
  const id = useId();
  const { register, formState, watch } = useForm<First>({
    defaultValues: { name: '', email: '', initials: '' },
    mode: 'onChange',
  });
  const [name, email, initials] = watch(['name', 'email', 'initials']);
  useEffect(() => {
    onFirst(formState.isValid ? { name: name.trim(), email, initials } : null);
  }, [formState.isValid, name, email, initials]);
  return (
    <>
      <p>Nobody coordinates yet. Whoever fills this in sets the rules, and invites the others.</p>
      <Labelled id={`${id}n`} label="Your name">
        <TextInput
          id={`${id}n`}
          maxLength={120}
          autoComplete="name"
          {...register('name', { validate: (text) => text.trim() !== '' })}
        />
      </Labelled>
      <Labelled id={`${id}e`} label="E-mail address">
        <TextInput
          id={`${id}e`}
          type="email"
          maxLength={200}
          autoComplete="username"
          {...register('email', { validate: (text) => text.includes('@') })}
        />
      </Labelled>
      <Labelled id={`${id}i`} label="Initials" help="one to four capitals; they stand in the names of your files">
        <TextInput
          id={`${id}i`}
          maxLength={4}
          className="w-24 font-mono uppercase"
          {...register('initials', { setValueAs: (text: string) => text.toUpperCase(), pattern: /^[A-Za-z]{1,4}$/ })}
        />
      </Labelled>
    </>
  );
}
