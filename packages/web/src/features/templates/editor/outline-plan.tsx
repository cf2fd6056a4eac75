/** The outline of an editor with what stands over and under it: which lines are closed, and what was done last. */
import { type ComponentProps, useState } from 'react';
import { useAddress } from '../../../app/use-address';
import { TextInput } from '../../../ui';
import { Outline } from './outline';

type Props = Omit<ComponentProps<typeof Outline>, 'closed' | 'onClose' | 'onSaid' | 'sought'> & {
  /** The keys, told while nothing else is to say. */
  readonly hint: string;
};

export function OutlinePlan({ hint, ...outline }: Props) {
  const [params] = useAddress();
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set());
  const [said, setSaid] = useState('');
  return (
    <>
      <Outline
        {...outline}
        sought={params.get('find') ?? ''}
        closed={closed}
        onClose={(id, close) => setClosed(new Set(close ? [...closed, id] : [...closed].filter((c) => c !== id)))}
        onSaid={setSaid}
      />
      <p role="status" className="pt-1 text-xs text-ink2">
        {said || hint}
      </p>
    </>
  );
}

export function FindInHierarchy({ className }: { className: string }) {
  const [params, put] = useAddress();
  return (
    <TextInput
      aria-label="Find in the hierarchy"
      placeholder="Find"
      value={params.get('find') ?? ''}
      onChange={(e) => put({ find: e.target.value })}
      className={className}
    />
  );
}
