/** Numbers kept for jobs that are only talked about. */
import type { NumberPage } from '@nesting/contract';
import { useId } from 'react';
import { useForm } from 'react-hook-form';
import { troubleOf } from '../../app/api';
import { Button, Heading, Labelled, Refused, TextInput } from '../../ui';
import { numbersApi } from './numbers-api';

export function ReservedNumbers({ page, mayWrite }: { page: NumberPage; mayWrite: boolean }) {
  const [release] = numbersApi.useReleaseNumberMutation();
  return (
    <section aria-label="Reserved numbers" className="flex flex-col gap-2 text-sm">
      <Heading>Reserved</Heading>
      {page.reserved.length === 0 && (
        <p className="text-ink2">None. A number can be kept for a job that is only talked about.</p>
      )}
      <ul>
        {page.reserved.map((r) => (
          <li key={r.number} className="flex items-baseline gap-2 border-b border-line py-1">
            <span className="font-mono text-plum">{r.number}</span>
            <span className="min-w-0 flex-1 break-words">
              {r.why} <span className="text-xs text-ink2">{r.by}</span>
            </span>
            {mayWrite && (
              <Button
                variant="quiet"
                className="h-5!"
                aria-label={`Release ${r.number}`}
                onClick={() => void release(r.number)}
              >
                Release
              </Button>
            )}
          </li>
        ))}
      </ul>
      {mayWrite && <ReserveForm />}
    </section>
  );
}

interface Wanted {
  readonly number: string;
  readonly why: string;
}

const isWritten = (text: string): boolean => text.trim() !== '';

function ReserveForm() {
  const id = useId();
  const [reserve, { error }] = numbersApi.useReserveNumberMutation();
  const { register, handleSubmit, reset, formState } = useForm<Wanted>({
    defaultValues: { number: '', why: '' },
    mode: 'onChange',
  });
  const keep = async ({ number, why }: Wanted) => {
    const done = await reserve({ number: number.trim(), why: why.trim() });
    if (!('error' in done)) reset();
  };
  return (
    <form className="flex flex-col gap-2" onSubmit={(e) => void handleSubmit(keep)(e)}>
      <div className="grid grid-cols-[7rem_1fr] gap-2">
        <Labelled id={`${id}n`} label="Number">
          <TextInput
            id={`${id}n`}
            maxLength={60}
            className="font-mono"
            {...register('number', { validate: isWritten })}
          />
        </Labelled>
        <Labelled id={`${id}w`} label="For what">
          <TextInput id={`${id}w`} maxLength={200} {...register('why', { validate: isWritten })} />
        </Labelled>
      </div>
      <Refused words={error && troubleOf(error)} />
      <Button type="submit" className="self-start" disabled={!formState.isValid}>
        Reserve it
      </Button>
    </form>
  );
}
