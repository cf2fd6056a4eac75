/** One tried name: its anatomy where it follows the rule; else what is wrong and the name it was meant to be. */
import type { ReactNode } from 'react';
import { Anatomy, Proposed } from '../../anatomy/anatomy';
import { CopyButton } from '../../ui';
import { PassSign, WeightSign } from '../../ui/signs';
import { TRUST, type Tried } from './tried';

export function TriedRow({ tried: t, children }: { tried: Tried; children?: ReactNode }) {
  return (
    <div className="flex items-start gap-3 py-2">
      <span className="pt-1.5">{t.ok ? <PassSign /> : <WeightSign weight="must" />}</span>
      <span className="min-w-0 flex-1">
        <span className="block break-all">
          {t.ok || t.meant === null ? <Anatomy parts={t.parts} /> : <Proposed found={t.name} meant={t.meant} />}
        </span>
        {!t.ok && <span className="block text-xs text-ink2">{t.why}</span>}
      </span>
      <span className="shrink-0 pt-0.5 text-xs text-ink2">
        {t.ok ? '' : t.confidence === null ? 'for a person' : TRUST[t.confidence]}
      </span>
      {t.meant && <CopyButton text={t.meant} what="the proposed name" />}
      {children}
    </div>
  );
}
