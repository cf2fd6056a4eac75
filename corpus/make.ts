/**
 * Broken names with the right answer, one and two damages at once; the same ones every time. Each belongs to the part
 * that is tuned on, or to the part that is only measured on.
 */
import { elementAt } from '@nesting/core';
import { compileName, mustParse, readName, type WrittenPiece, writePieces } from '@nesting/core/name';
import { CASES, type Case, compileCase, contextOf, NUMBER, REGISTERS } from './conventions';
import { DAMAGES, type Parts } from './damages';

export interface Broken {
  readonly convention: string;
  readonly right: string;
  readonly broken: string;
  readonly damages: readonly string[];
  /** The name still says all that is needed: a person could put it right without asking. */
  readonly fixable: boolean;
  readonly values: Readonly<Record<string, string | number>>;
  readonly part: 'tune' | 'measure';
}

/** Mulberry32: small, even, the same everywhere. */
export function generator(seed: number): (n: number) => number {
  let state = seed;
  return (n) => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return Math.floor((((t ^ (t >>> 14)) >>> 0) / 4294967296) * n);
  };
}

function partsOf(c: Case, random: (n: number) => number): Parts {
  const values: Record<string, string | number> = { number: NUMBER };
  for (const [field, all] of Object.entries(c.values)) {
    const optional = c.pattern.includes(`(_{${field}`);
    if (!optional || random(2) === 1) values[field] = elementAt(all, random(all.length));
  }
  const name = compileName(mustParse(c.pattern), { fields: c.fields, registers: REGISTERS, families: c.families });
  const pieces = name.ok ? writePieces(name.value, values) : null;
  if (!pieces?.ok) throw new Error(`${c.id}: ${JSON.stringify(pieces)}`);
  return { name: pieces.value.map((p: WrittenPiece) => p.text).join(''), pieces: pieces.value, values };
}

/** At least `each` names for every damage and convention it applies to, and as many with two damages again. */
export function makeCorpus(each = 9): Broken[] {
  const random = generator(26014);
  const out = new Map<string, Broken>();
  for (const c of CASES) {
    const compiled = compileCase(c);
    for (const damage of DAMAGES) {
      for (let i = 0; i < each; i++) {
        const parts = partsOf(c, random);
        const broken = damage.break(parts, random);
        // What still follows the rule, or was broken into another right name, is no broken name.
        if (broken === null || readName(compiled, broken, contextOf(c, parts.values).bound) !== null) continue;
        const second = i % 3 === 2 ? DAMAGES[random(DAMAGES.length)] : undefined;
        const twice =
          second === undefined || second === damage
            ? null
            : second.break({ ...parts, name: broken, pieces: [] }, random);
        const both = twice !== null && twice !== broken && second !== undefined;
        const name = both ? twice : broken;
        if (readName(compiled, name, contextOf(c, parts.values).bound) !== null) continue;
        const damages = both ? [damage.id, second.id] : [damage.id];
        const fixable = damage.keeps && (!both || second.keeps);
        out.set(`${c.id} ${name}`, {
          convention: c.id,
          right: parts.name,
          broken: name,
          damages,
          fixable,
          values: parts.values,
          part: random(2) === 0 ? 'tune' : 'measure',
        });
      }
    }
  }
  return [...out.values()];
}
