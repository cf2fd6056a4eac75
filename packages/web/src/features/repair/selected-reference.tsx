/** A reference that somebody must put right in the program of its document: where it stands, and what it is to lead to. */
import type { RepairPlan } from '@nesting/contract';
import { byHandWords } from '@nesting/core/words';
import type { ReactNode } from 'react';
import { CopyButton, Heading } from '../../ui';

export type Reference = RepairPlan['byHand'][number];

interface Props {
  readonly reference: Reference;
  readonly wholePath: (path: string) => string;
}

export function SelectedReference({ reference, wholePath }: Props) {
  const { document, target, to } = reference;
  return (
    <div className="flex flex-col gap-4 text-sm">
      <Named label="In this document">
        <span className="min-w-0 flex-1 font-mono break-all">{document}</span>
        <CopyButton text={wholePath(document)} what="the path of the document" />
      </Named>
      <Named label="This stands there">
        <span className="min-w-0 flex-1 font-mono break-all">{target}</span>
      </Named>
      {to === null ? (
        <p>What it names is gone afterwards, or lies in several places.</p>
      ) : (
        <Named label="Afterwards it is here">
          <span className="min-w-0 flex-1 font-mono break-all">{to}</span>
          <CopyButton text={wholePath(to)} what="the new path" />
        </Named>
      )}
      <p className="text-ink2">
        It stays as it is: {byHandWords(reference)}. Open the document in its program when this is done, and point it to
        the new place.
      </p>
    </div>
  );
}

function Named({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div className="flex flex-col gap-1">
      <Heading>{label}</Heading>
      <p className="flex items-start gap-1">{children}</p>
    </div>
  );
}
