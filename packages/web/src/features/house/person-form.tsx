/** One person: who they are, what they may do, and the ways in and out. */
import type { PersonRow } from '@nesting/contract';
import { ROLES } from '@nesting/contract';
import { useId } from 'react';
import { Controller, type Resolver, type UseFormReturn, useForm } from 'react-hook-form';
import { troubleOf } from '../../app/api';
import { Button, Choose, Confirm, CopyButton, Heading, Labelled, Refused, TextInput } from '../../ui';
import { peopleApi } from '../access/people-api';
import { History } from './history';
import { houseApi } from './house-api';
import { faultsOfPerson } from './person-faults';

export const STATE_WORDS = { invited: 'invited', active: 'may sign in', left: 'has left' } as const;

const ROLE_WORDS = {
  coordinator: 'coordinator: sets the rules, starts projects',
  artist: 'artist: works in projects',
  lead: 'lead: looks, changes nothing',
} as const;

interface FormProps {
  readonly person: PersonRow | null;
  readonly own: boolean;
  /** A link that no mail carries, to be handed over. */
  readonly link: string | null;
  readonly onDone: (id: string | null, link: string | null) => void;
}

type Given = Pick<PersonRow, 'name' | 'email' | 'initials' | 'role' | 'does'>;

const NOBODY: Given = { name: '', email: '', initials: '', role: 'artist', does: '' };

const givenOf = ({ name, email, initials, role, does }: Given): Given => ({ name, email, initials, role, does });

/** The rules of the house for people, as the form asks for them. */
const judge: Resolver<Given> = (given) => {
  const faults = Object.entries(faultsOfPerson(given));
  return faults.length === 0
    ? { values: given, errors: {} }
    : { values: {}, errors: Object.fromEntries(faults.map(([key, message]) => [key, { type: 'rule', message }])) };
};

export function PersonForm({ person, own, link, onDone }: FormProps) {
  const id = useId();
  const form = useForm<Given>({ values: givenOf(person ?? NOBODY), resolver: judge, mode: 'onChange' });
  const { isDirty, isValid } = form.formState;
  const [invite, inviting] = peopleApi.useInviteMutation();
  const [change, changing] = peopleApi.useSavePersonMutation();
  const keep = async (given: Given) => {
    if (person !== null) return void (await change({ ...given, id: person.id, version: person.version }));
    const made = await invite(given);
    if (made.data) onDone(made.data.id, made.data.link);
  };
  const isFixed = person !== null && (person.state !== 'invited' || person.projects > 0);
  const trouble = inviting.error ?? changing.error;
  return (
    <form className="flex flex-col gap-4" onSubmit={(e) => void form.handleSubmit(keep)(e)}>
      <Heading>{person === null ? 'To be invited' : `${person.name}, ${STATE_WORDS[person.state]}`}</Heading>
      <PersonField form={form} of="name" label="Name" />
      <div className="grid grid-cols-[6rem_1fr] gap-3">
        <PersonField form={form} of="initials" label="Initials" readOnly={isFixed} />
        <PersonField form={form} of="email" label="E-mail" />
      </div>
      {isFixed && <p className="-mt-3 text-xs text-ink2">Initials stand in names on disks, and stay.</p>}
      <Labelled id={`${id}r`} label="Role">
        <Controller
          control={form.control}
          name="role"
          render={({ field }) => (
            <Choose
              id={`${id}r`}
              label="Role"
              value={field.value}
              options={ROLES.map((value) => ({ value, label: ROLE_WORDS[value] }))}
              onChange={field.onChange}
            />
          )}
        />
      </Labelled>
      <PersonField form={form} of="does" label="Does" />
      <Refused words={trouble && troubleOf(trouble)} />
      {link && <HandOver link={link} />}
      <div className="flex flex-wrap gap-3">
        {(person === null || isDirty) && (
          <Button variant="main" type="submit" disabled={!isValid || inviting.isLoading}>
            {person === null ? 'Invite them' : 'Keep it'}
          </Button>
        )}
        {person !== null && <Access person={person} own={own} onDone={onDone} />}
      </div>
      {person !== null && <PersonHistory initials={person.initials} />}
    </form>
  );
}

interface FieldProps {
  readonly form: UseFormReturn<Given>;
  readonly of: Exclude<keyof Given, 'role'>;
  readonly label: string;
  readonly readOnly?: boolean;
}

function PersonField({ form, of, label, readOnly }: FieldProps) {
  const id = useId();
  const fault = form.formState.errors[of]?.message;
  return (
    <Labelled id={id} label={label}>
      <TextInput
        id={id}
        readOnly={readOnly}
        fault={fault !== undefined}
        autoComplete="off"
        {...form.register(of, { setValueAs: (text: string) => (of === 'initials' ? text.toUpperCase() : text) })}
        className={of === 'initials' ? 'uppercase' : ''}
      />
      {fault && <span className="text-xs text-brick">{fault}</span>}
    </Labelled>
  );
}

function HandOver({ link }: { link: string }) {
  return (
    <div className="rounded-tray border border-ochre bg-sheet p-2 text-sm">
      <p>No mail goes out from here: hand this link over. It works once, and is shown only now.</p>
      <p className="flex items-start gap-1 font-mono text-xs break-all">
        <span className="flex-1">{link}</span>
        <CopyButton text={link} what="the link" />
      </p>
    </div>
  );
}

/** The ways in and out of somebody who is there. */
function Access({ person, own, onDone }: Pick<FormProps, 'own' | 'onDone'> & { readonly person: PersonRow }) {
  const [again, asking] = peopleApi.useLinkPersonMutation();
  const [leave, leaving] = peopleApi.useLeavePersonMutation();
  const [comeBack] = peopleApi.useReturnPersonMutation();
  const trouble = asking.error ?? leaving.error;
  if (person.state === 'left')
    return (
      <Button onClick={() => void comeBack(person.id).then((r) => r.data && onDone(person.id, r.data.link))}>
        Let them return
      </Button>
    );
  return (
    <>
      <Button onClick={() => void again(person.id).then((r) => r.data && onDone(person.id, r.data.link))}>
        {person.state === 'invited' ? 'Invite again' : 'Send a link for a new password'}
      </Button>
      {!own && (
        <Confirm
          trigger={<Button>End access…</Button>}
          title={`End the access of ${person.name}?`}
          act="End access"
          run={() => void leave(person.id)}
        >
          Their sessions, keys and links end at once; numbers and names they hold are free again. Projects and
          everything they did stay theirs.
        </Confirm>
      )}
      <Refused words={trouble && troubleOf(trouble)} />
    </>
  );
}

function PersonHistory({ initials }: { initials: string }) {
  const { data: history = [] } = houseApi.useEntryHistoryQuery({ list: 'people', key: initials });
  return <History rows={history} />;
}
