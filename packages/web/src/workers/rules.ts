/** The rules' worker, started when first asked; what is overtaken by a later question is not shown. */
import type { Learned, Registers } from '@nesting/core/name';
import type { Derived, Known } from '@nesting/core/template';
import { type Remote, wrap } from 'comlink';
import { useEffect, useState } from 'react';
import type { RuleInput } from './compile-rule';
import type { Proof, ReadNames, RulesWork } from './rules-worker';

export type { Proof, ReadNames } from './rules-worker';

let started: Remote<RulesWork> | null = null;

function worker(): Remote<RulesWork> {
  started ??= wrap<RulesWork>(new Worker(new URL('./rules-worker.ts', import.meta.url), { type: 'module' }));
  return started;
}

/** The last answer to a question, kept on screen until the next one is there. */
function useAnswer<T>(ask: (() => Promise<T>) | null, key: readonly unknown[]): { answer: T | null; waiting: boolean } {
  const [state, setState] = useState<{ answer: T | null; waiting: boolean }>({ answer: null, waiting: ask !== null });
  useEffect(() => {
    if (ask === null) return setState({ answer: null, waiting: false });
    let overtaken = false;
    setState((before) => ({ ...before, waiting: true }));
    void ask().then((answer) => {
      if (!overtaken) setState({ answer, waiting: false });
    });
    return () => {
      overtaken = true;
    };
  }, key);
  return state;
}

export const useProof = (
  input: RuleInput | null,
  known: Readonly<Record<string, readonly string[]>>,
): { answer: Proof | null; waiting: boolean } =>
  useAnswer(input === null ? null : () => worker().prove(input, known), [input, known]);

/** What was read, with the very text its places are in. */
export const useRead = (
  input: RuleInput | null,
  text: string,
): { answer: (ReadNames & { readonly text: string }) | null; waiting: boolean } =>
  useAnswer(input === null || text === '' ? null : async () => ({ ...(await worker().read(input, text)), text }), [
    input,
    text,
  ]);

export const useLearned = (
  names: readonly string[],
  registers: Registers,
): { answer: Learned | null; waiting: boolean } =>
  useAnswer(names.length === 0 ? null : () => worker().learn(names, registers), [names, registers]);

/** A template derived from a listing: `unreadable` where it is none. */
export const useDerived = (
  listing: string,
  known: Known,
  registers: Registers,
  name: string,
): { answer: Derived | 'unreadable' | null; waiting: boolean } =>
  useAnswer(
    listing.trim() === ''
      ? null
      : async () => (await worker().derive(listing, known, registers, name)) ?? ('unreadable' as const),
    [listing, known, registers, name],
  );
