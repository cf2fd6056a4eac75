/** What is done about the findings chosen: each act is a function that a key or a button calls. */

import type { KeptFinding, Me } from '@nesting/contract';
import { findingsApi } from './findings-api';

/** Acts that need an answer first, and open a form for it. */
export type TriageForm = 'accept' | 'give' | 'note';

export interface Triage {
  readonly findings: readonly KeptFinding[];
  readonly form: TriageForm | null;
  readonly open: (form: TriageForm) => void;
  readonly close: () => void;
  readonly accept: (reason: string, until: string | null) => Promise<void>;
  /** `null` gives them to nobody in particular. */
  readonly give: (to: string | null) => Promise<void>;
  readonly note: (text: string) => Promise<void>;
  /** Takes them on oneself, or hands them back where all are one's own. */
  readonly takeOrReturn: () => Promise<void>;
  readonly countAgain: () => Promise<void>;
  readonly may: { readonly accept: boolean; readonly take: boolean; readonly note: boolean };
  readonly areMine: boolean;
  readonly areAccepted: boolean;
  readonly isBusy: boolean;
  readonly error: unknown;
}

interface Given {
  readonly project: string;
  readonly me: Me;
  readonly findings: readonly KeptFinding[];
  readonly form: TriageForm | null;
  readonly onForm: (form: TriageForm | null) => void;
  /** It is done: the next one is looked at. */
  readonly onDone: () => void;
}

export function useTriage({ project, me, findings, form, onForm, onDone }: Given): Triage {
  const [give, giving] = findingsApi.useGiveFindingsMutation();
  const [again, counting] = findingsApi.useCountAgainMutation();
  const [accept, accepting] = findingsApi.useAcceptFindingsMutation();
  const ids = findings.map((f) => f.id);
  const isOpen = ids.length > 0 && findings[0]?.solvedAt == null;
  const areMine = findings.every((f) => f.to === me.initials && f.given);
  const areAccepted = findings.some((f) => f.accepted !== null);
  const may = {
    accept: isOpen && me.role === 'coordinator',
    take: isOpen && me.role !== 'lead',
    note: isOpen && me.role !== 'lead',
  };
  const allowed = { accept: may.accept && !areAccepted, give: may.accept, note: may.note };
  const then = (done: { readonly error?: unknown }) => {
    if (done.error === undefined) onDone();
  };
  return {
    findings,
    form: form !== null && allowed[form] ? form : null,
    open: (next) => {
      if (allowed[next]) onForm(next);
    },
    close: () => onForm(null),
    accept: async (reason, until) => then(await accept({ project, ids, reason, until })),
    give: async (to) => then(await give({ project, ids, to })),
    note: async (text) => then(await give({ project, ids, note: text })),
    takeOrReturn: async () => {
      if (may.take) await give({ project, ids, to: areMine ? null : me.initials });
    },
    countAgain: async () => {
      if (may.accept && areAccepted) await again({ project, ids });
    },
    may,
    areMine,
    areAccepted,
    isBusy: giving.isLoading || counting.isLoading || accepting.isLoading,
    error: giving.error ?? counting.error ?? accepting.error,
  };
}
