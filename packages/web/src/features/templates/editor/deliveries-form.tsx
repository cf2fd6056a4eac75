/** What must be delivered into the selected folder, each in a line of its own. */
import type { Delivery } from '@nesting/core/template';
import { useId, useState } from 'react';
import { Button, Choose, Heading, Labelled, TextInput } from '../../../ui';
import { entryName } from './conditions';
import type { SectionProps } from './section-props';

const NONE = 'none';

export function DeliveriesForm(props: SectionProps & { readonly families: readonly string[] }) {
  const { node, readOnly, set } = props;
  const deliveries = node.deliveries ?? [];
  const put = (next: readonly Delivery[], what: string | null = null) =>
    set({ deliveries: next.length === 0 ? undefined : next }, what);
  return (
    <section aria-label="To be delivered" className="flex flex-col gap-2">
      <Heading>To be delivered</Heading>
      {deliveries.map((delivery, place) => (
        <DeliveryForm
          key={place}
          {...props}
          delivery={delivery}
          onChange={(next, what) =>
            put(
              deliveries.map((d, at) => (at === place ? next : d)),
              what === null ? null : `${place} ${what}`,
            )
          }
          onRemove={() => put(deliveries.filter((_, at) => at !== place))}
        />
      ))}
      {!readOnly && (
        <Button className="self-start" onClick={() => put([...deliveries, { name: 'Delivery' }])}>
          Add what must be delivered
        </Button>
      )}
    </section>
  );
}

interface Props extends SectionProps {
  readonly families: readonly string[];
  readonly delivery: Delivery;
  /** `what` names what is being typed. */
  readonly onChange: (delivery: Delivery, what: string | null) => void;
  readonly onRemove: () => void;
}

function DeliveryForm({ template, readOnly, families, delivery, onChange, onRemove }: Props) {
  const id = useId();
  const { name, onePer, convention, family, due } = delivery;
  const lists = template.fields.filter((f) => f.type === 'list');
  const dates = template.fields.filter((f) => f.type === 'date');
  const change = (some: Partial<Delivery>, what: string | null = null) => onChange({ ...delivery, ...some }, what);
  const choice = (label: string, value: string | undefined, known: readonly Known[], put: (v?: string) => void) => (
    <Labelled id={`${id}${label}`} label={label}>
      <Choose
        id={`${id}${label}`}
        label={`${label}, of ${name}`}
        disabled={readOnly}
        value={value ?? NONE}
        options={[{ value: NONE, label: NONE_WORDS[label] ?? 'any' }, ...known]}
        onChange={(v) => put(v === NONE ? undefined : v)}
      />
    </Labelled>
  );
  return (
    <div className="grid grid-cols-2 gap-2 rounded-tray border border-line bg-sheet p-2">
      <Labelled id={`${id}n`} label="What">
        <TextInput id={`${id}n`} value={name} onChange={(e) => change({ name: e.target.value }, 'name')} />
      </Labelled>
      {choice(FOR_EACH, onePer?.list, lists.map(known), (list) =>
        change({ onePer: list ? onePerOf(list) : undefined }),
      )}
      {choice(
        CALLED_BY,
        convention,
        template.conventions.map((c) => ({ value: c.id, label: c.name })),
        (v) => change({ convention: v }),
      )}
      {choice(
        FAMILY,
        family,
        families.map((f) => ({ value: f, label: f })),
        (v) => change({ family: v }),
      )}
      {choice(BY, due?.field, dates.map(known), (field) =>
        change({ due: field ? { field, days: due?.days ?? 0 } : undefined }),
      )}
      {due !== undefined && (
        <DueDays due={due} readOnly={readOnly} onChange={(next) => change({ due: next }, 'days')} />
      )}
      {!readOnly && (
        <Button variant="quiet" className="col-span-2 justify-self-start" onClick={onRemove}>
          Take {name || 'it'} off the list
        </Button>
      )}
    </div>
  );
}

type Due = NonNullable<Delivery['due']>;

/** So many days before that date, or after it. */
function DueDays({ due, readOnly, onChange }: { due: Due; readOnly: boolean; onChange: (due: Due) => void }) {
  const id = useId();
  const [isBefore, setBefore] = useState(due.days < 0);
  const put = (days: number, before: boolean) => {
    setBefore(before);
    onChange({ ...due, days: before && days !== 0 ? -days : days });
  };
  const days = Math.abs(due.days);
  return (
    <Labelled id={id} label="Days">
      <span className="flex gap-1">
        <TextInput
          id={id}
          inputMode="numeric"
          value={days}
          className="w-12!"
          onChange={(e) => put(Number(e.target.value.replace(/\D/g, '').slice(0, 4)), isBefore)}
        />
        <Choose
          label="Before or after that date"
          disabled={readOnly}
          value={isBefore ? 'before' : 'after'}
          options={[
            { value: 'before', label: 'before' },
            { value: 'after', label: 'after' },
          ]}
          onChange={(way) => put(days, way === 'before')}
        />
      </span>
    </Labelled>
  );
}

const [FOR_EACH, CALLED_BY, FAMILY, BY] = ['For each of', 'Called by', 'Family', 'Due by'];
const NONE_WORDS: Readonly<Record<string, string>> = {
  'For each of': 'only once',
  'Called by': 'any name',
  Family: 'any family',
  'Due by': 'no day',
};

interface Known {
  readonly value: string;
  readonly label: string;
}

const known = ({ key, label }: { readonly key: string; readonly label?: string | undefined }): Known => ({
  value: key,
  label: label ?? key,
});

/** As for folders: an entry of `stands` is a `stand`. */
const onePerOf = (list: string): Delivery['onePer'] => ({ list, as: entryName(list) });
