/** A new password, twice; told while it is written. Answers `null` until it will do. */
import { useId, useState } from 'react';
import { Labelled, TextInput } from '../../ui';

const SHORTEST = 12;

export function NewPassword({ onPassword }: { onPassword: (password: string | null) => void }) {
  const id = useId();
  const [first, setFirst] = useState('');
  const [again, setAgain] = useState('');
  const tell = (a: string, b: string) => onPassword(a.length >= SHORTEST && a === b ? a : null);
  return (
    <>
      <Labelled
        id={`${id}a`}
        label="The new one"
        help={
          first.length > 0 && first.length < SHORTEST
            ? `${SHORTEST - first.length} more characters`
            : `at least ${SHORTEST} characters; a few words do well`
        }
      >
        <TextInput
          id={`${id}a`}
          type="password"
          autoComplete="new-password"
          maxLength={128}
          value={first}
          onChange={(e) => {
            setFirst(e.target.value);
            tell(e.target.value, again);
          }}
        />
      </Labelled>
      <Labelled id={`${id}b`} label="Once more" help={again !== '' && again !== first ? 'not the same yet' : undefined}>
        <TextInput
          id={`${id}b`}
          type="password"
          autoComplete="new-password"
          maxLength={128}
          value={again}
          onChange={(e) => {
            setAgain(e.target.value);
            tell(first, e.target.value);
          }}
        />
      </Labelled>
    </>
  );
}
