/** A sample project laid over a template while it is written: real names, counts, and what cannot be written. */

import { valuesSchema } from '@nesting/contract';
import type { Field, Registers, Value, Values } from '@nesting/core/name';
import { compileTemplate, type Expansion, type Template } from '@nesting/core/template';
import { wordsFor } from '@nesting/core/words';
import { useCallback, useState } from 'react';
import { readKept } from '../../../app/kept';
import type { RowSample } from './outline-row';

/** Plain values for every field, so that a sample is there before anybody has given one. */
export function sampleValues(fields: readonly Field[], registers: Registers, given: Values): Values {
  const out: Record<string, Value> = { number: '26001' };
  for (const f of fields) {
    const rule = f.type === 'list' ? f.of : f;
    const one = (n: number): Value => {
      switch (rule.type) {
        case 'choice':
          return rule.options?.[n % (rule.options.length || 1)]?.code ?? null;
        case 'client':
          return registers.clients[0]?.code ?? null;
        case 'person':
          return registers.people[0]?.initials ?? null;
        case 'date':
          return `2026-03-0${n + 2}`;
        case 'count':
          return n + 1;
        case 'letters':
          return 'AB'[n] ?? 'A';
        default:
          return rule.like !== undefined
            ? rule.like.replace(/0+/, (run) => String(n + 1).padStart(run.length, '0'))
            : plainText(f, n, rule.max ?? 24);
      }
    };
    out[f.key] = f.type === 'list' ? [String(one(0)), String(one(1))] : one(0);
  }
  return { ...out, ...given };
}

/** `surface 1`, no longer than it may be; entries differ in their last letter. */
function plainText(f: Field, n: number, max: number): string {
  const word = f.key.replace(/s$/, '');
  return f.type === 'list' ? `${word.slice(0, Math.max(0, max - 2))}${max > 2 ? ' ' : ''}${n + 1}` : word.slice(0, max);
}

export interface Sample {
  readonly expansion: Expansion;
  readonly rows: ReadonlyMap<string, RowSample>;
  readonly faults: ReadonlyMap<string, string>;
}

export function sampleOf(template: Template, registers: Registers, values: Values): Sample {
  const expansion = compileTemplate(template, registers).expand(values, { remember: true });
  const rows = new Map<string, { name: string; count: number }>();
  for (const line of expansion.lines) {
    if (line.kind !== 'folder') continue;
    const known = rows.get(line.node);
    if (known === undefined) rows.set(line.node, { name: line.name, count: 1 });
    else known.count++;
  }
  const faults = new Map<string, string>();
  for (const d of expansion.diagnostics)
    if (d.node !== null && d.weight === 'refused' && !faults.has(d.node))
      faults.set(d.node, wordsFor(d.code, d.params));
  return { expansion, rows, faults };
}

const KEPT = 'nesting-sample-';

/** Values of the sample, kept for each template in this browser. */
export function useSampleValues(id: string): [Values, (key: string, value: Value) => void] {
  const [values, setValues] = useState<Values>(() => readKept(KEPT + id, valuesSchema, {}));
  const give = useCallback(
    (key: string, value: Value) =>
      setValues((before) => {
        const next = { ...before, [key]: value };
        localStorage.setItem(KEPT + id, JSON.stringify(next));
        return next;
      }),
    [id],
  );
  return [values, give];
}
