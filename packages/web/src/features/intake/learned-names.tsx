/** From a heap whose names follow a convention of their own to that convention and back; its parts then fill fields. */

import { nameOf } from '@nesting/core/listing';
import type { Registers } from '@nesting/core/name';
import { useMemo, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { addressToLearn, forgetLearned, type LearnedFor, learnedFor } from '../../app/learning';
import { many } from '../../app/words';
import { Button, Choose, Heading } from '../../ui';
import type { SayField } from './intake-fields';
import type { Item } from './intake-rows';
import type { IntakeWork } from './intake-work';
import { compiledOf, type Meanings, partsOf, saidBy } from './names-learned';

interface Props {
  readonly work: IntakeWork;
  readonly registers: Registers;
  readonly fields: readonly SayField[];
  readonly shown: readonly Item[];
}

export function LearnedNames(props: Props) {
  const { place, project } = props.work;
  const go = useNavigate();
  const { pathname } = useLocation();
  // The heap is in the address; which of it is shown may be another by then.
  const back = `${pathname}?${new URLSearchParams(place === null ? {} : { ...place })}`;
  const [learned, setLearned] = useState<LearnedFor | null>(() => learnedFor(back));
  // What is of this computer would have to be chosen anew.
  if (place === null) return null;
  const forget = () => {
    forgetLearned();
    setLearned(null);
  };
  if (learned !== null) return <WhatNamesSay key={project.id} {...props} learned={learned} onForget={forget} />;
  const names = props.shown.filter(({ state }) => state !== 'system').map(({ from }) => nameOf(from));
  return (
    <Button
      variant="quiet"
      className="self-start"
      disabled={names.length === 0}
      onClick={() => void go(addressToLearn(names, back))}
    >
      Learn from these names…
    </Button>
  );
}

interface SaidProps extends Props {
  readonly learned: LearnedFor;
  readonly onForget: () => void;
}

const NOTHING = ':nothing';

function WhatNamesSay({ work: { sayEach }, registers, fields, shown, learned, onForget }: SaidProps) {
  const convention = useMemo(() => compiledOf(learned, registers), [learned, registers]);
  const paths = useMemo(() => shown.map(({ from }) => from), [shown]);
  const parts = useMemo(
    () => (convention === null ? [] : partsOf(convention, paths, fields)),
    [convention, paths, fields],
  );
  const [chosen, setChosen] = useState<Meanings>({});
  const meanings: Meanings = { ...Object.fromEntries(parts.map(({ key, meant }) => [key, meant])), ...chosen };
  const said = convention === null ? {} : saidBy(convention, paths, meanings, fields);
  const files = Object.keys(said).length;
  return (
    <section aria-label="What their names say" className="flex min-w-0 flex-col gap-2 text-sm">
      <Heading>What their names say</Heading>
      <p className="truncate font-mono text-xs">{learned.pattern}</p>
      {parts.map(({ key, label, examples }) => (
        <div key={key} className="grid grid-cols-2 items-center gap-2">
          <span className="min-w-0">
            <span className="block truncate">{label}</span>
            <span className="block truncate font-mono text-xs text-ink2">{examples.join(', ')}</span>
          </span>
          <Choose
            label={`What ${label} stands for`}
            value={meanings[key] ?? NOTHING}
            options={[
              { value: NOTHING, label: 'nothing here' },
              ...fields.map((f) => ({ value: f.key, label: f.label })),
            ]}
            onChange={(next) => setChosen({ ...chosen, [key]: next === NOTHING ? null : next })}
          />
        </div>
      ))}
      <div className="flex flex-wrap gap-2">
        <Button
          disabled={files === 0}
          onClick={() => {
            sayEach(said);
            onForget();
          }}
        >
          Fill it in for {many(files, 'file')}
        </Button>
        <Button variant="quiet" onClick={onForget}>
          Forget it
        </Button>
      </div>
    </section>
  );
}
