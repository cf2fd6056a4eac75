/** A client who is not in the register yet is added on the spot, with a code of its own. */

import { useState } from 'react';
import { troubleOf } from '../../app/api';
import { Button, TextInput } from '../../ui';
import { faultsByColumn } from '../house/faults';
import { houseApi } from '../house/house-api';

/** `Fennel & Rook Theatre` → `FRT`. */
export function codeFor(name: string, taken: readonly string[]): string {
  const all =
    name
      .normalize('NFD')
      .replace(/\p{M}/gu, '')
      .toUpperCase()
      .match(/[A-Z0-9]+/g) ?? [];
  // Little words such as of and the say nothing.
  const weighty = all.filter((w) => w.length > 3);
  const words = weighty.length >= 2 ? weighty : all;
  const letters =
    words.length >= 3
      ? words
          .slice(0, 3)
          .map((w) => w[0])
          .join('')
      : words.join('').slice(0, 3) || 'NEW';
  let code = letters;
  for (let n = 2; taken.some((t) => t.toLowerCase() === code.toLowerCase()); n++) code = `${letters}${n}`;
  return code;
}

interface NewClientProps {
  readonly name: string;
  readonly taken: readonly string[];
  readonly onAdded: (code: string) => void;
}

export function NewClient({ name, taken, onAdded }: NewClientProps) {
  const [code, setCode] = useState(() => codeFor(name, taken));
  const [add, { error, isLoading }] = houseApi.useAddEntryMutation();
  const faults = faultsByColumn('clients', { code, name });
  const go = async () => {
    const made = await add({ list: 'clients', cells: { code, name } });
    if (made.data) onAdded(made.data.key);
  };
  return (
    <form
      className="flex flex-col gap-2 border-t border-line p-2 text-sm"
      onSubmit={(e) => {
        e.preventDefault();
        e.stopPropagation();
        void go();
      }}
    >
      <span className="text-ink2">
        Add <strong className="font-semibold text-ink">{name}</strong> to the clients, with the code
      </span>
      <span className="flex items-center gap-2">
        <TextInput
          aria-label="Code of the new client"
          value={code}
          maxLength={12}
          onChange={(e) => setCode(e.target.value)}
          onKeyDown={(e) => e.stopPropagation()}
          className="w-32 font-mono"
        />
        <Button type="submit" disabled={isLoading || Object.keys(faults).length > 0}>
          Add
        </Button>
      </span>
      {(error !== undefined || faults.code) && (
        <span role="alert" className="text-brick">
          {error ? troubleOf(error) : faults.code}
        </span>
      )}
    </form>
  );
}
