/**
 * The anatomy of a name: under each part a bracket with the part's label; under one that fails a wavy line and what was
 * expected.
 */
import { elementAt } from '@nesting/core';
import type { Problem, Stretch } from '@nesting/core/name';
import { expectationWords } from '@nesting/core/words';
import { compareNames } from './compare';

export interface AnatomyPart {
  readonly text: string;
  readonly label: string | null;
  readonly ok: boolean;
  readonly expected?: string | undefined;
}

/** Parts take the dyes in turn, so that neighbours differ; the label under each says the rest. */
const DYES = ['text-plum', 'text-slate', 'text-ochre', 'text-bottle'];

export function Anatomy({ parts, large = false }: { parts: readonly AnatomyPart[]; large?: boolean }) {
  let named = -1;
  return (
    <span
      className={`inline-flex flex-wrap items-start font-mono ${large ? 'text-lg' : 'text-base'} leading-6`}
      aria-label={parts.map((p) => p.text).join('')}
      role="img"
    >
      {parts.map((part, i) => {
        if (part.label !== null) named++;
        const dye = part.ok ? (part.label === null ? 'text-ink2' : elementAt(DYES, named % DYES.length)) : 'text-brick';
        return (
          <span key={i} className="inline-flex flex-col items-center">
            <span className={`whitespace-pre ${dye} ${part.ok ? '' : 'wavy'}`}>{part.text}</span>
            {part.label !== null && (
              <span className="flex w-full flex-col items-center px-px">
                <span className={`h-1.5 w-full border-x border-b ${part.ok ? 'border-rule' : 'border-brick'}`} />
                <span
                  className={`px-0.5 font-sans text-xs leading-4 ${part.ok ? 'text-ink2' : 'font-semibold text-brick'}`}
                >
                  {part.label}
                  {part.ok ? '' : '?'}
                </span>
              </span>
            )}
          </span>
        );
      })}
    </span>
  );
}

/** A broken name's parts: stretches of it by the part they were taken for, the rest as it stands. */
export function partsOfBroken(
  name: string,
  stretches: readonly Stretch[],
  problems: readonly Problem[],
): AnatomyPart[] {
  const parts: AnatomyPart[] = [];
  let at = 0;
  for (const stretch of stretches) {
    if (stretch.at > at) parts.push({ text: name.slice(at, stretch.at), label: null, ok: true });
    const problem = problems.find((p) => p.at === stretch.at && p.length === stretch.end - stretch.at);
    parts.push({
      text: name.slice(stretch.at, stretch.end),
      label: stretch.part,
      ok: stretch.ok,
      expected: problem && expectationWords(problem.expected),
    });
    at = stretch.end;
  }
  if (at < name.length) parts.push({ text: name.slice(at), label: null, ok: true });
  return mergePlain(parts);
}

/** Neighbouring literals are one piece to look at. */
function mergePlain(parts: readonly AnatomyPart[]): AnatomyPart[] {
  const out: AnatomyPart[] = [];
  for (const part of parts) {
    const last = out[out.length - 1];
    if (last && last.label === null && part.label === null && last.ok === part.ok)
      out[out.length - 1] = { ...last, text: last.text + part.text };
    else out.push(part);
  }
  return out;
}

/** The proposed name under the found one; what differs is marked in both. */
export function Proposed({ found, meant }: { found: string; meant: string }) {
  const { before, after } = compareNames(found, meant);
  return (
    <span className="block font-mono text-base break-all">
      <span className="block text-ink2">
        {before.map((p) => (
          <span key={p.at} className={p.same ? '' : 'wavy text-ink'}>
            {p.text}
          </span>
        ))}
      </span>
      <span className="mt-1 block text-bottle">
        {after.map((p) =>
          p.same ? (
            <span key={p.at}>{p.text}</span>
          ) : (
            <mark key={p.at} className="rounded bg-bottle/15 font-bold text-bottle">
              {p.text}
            </mark>
          ),
        )}
      </span>
    </span>
  );
}
