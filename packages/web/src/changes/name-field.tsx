/** A name that a file is to have, to be written by hand. */
import { useEffect, useState } from 'react';
import { Labelled, TextInput } from '../ui';

interface Props {
  readonly id: string;
  readonly label: string;
  readonly given: string;
  readonly onName: (name: string) => void;
}

export function NameField({ id, label, given, onName }: Props) {
  const [name, setName] = useState(given);
  useEffect(() => setName(given), [given]);
  return (
    <Labelled id={id} label={label}>
      <TextInput
        id={id}
        value={name}
        maxLength={255}
        className="font-mono"
        spellCheck={false}
        autoComplete="off"
        onChange={(e) => setName(e.target.value)}
        onBlur={() => name.trim() !== '' && name !== given && onName(name.trim())}
        onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
      />
    </Labelled>
  );
}
