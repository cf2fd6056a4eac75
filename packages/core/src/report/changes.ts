/**
 * A plan of changes as text, CSV, JSON, and scripts that do the same by hand. Quoting leaves no name able to run
 * anything; nothing is overwritten.
 */
import type { Change, Step } from '../change/change';
import { csv } from '../text/csv';
import { changeLine } from '../words/batches';

/** A step with its bytes at hand. */
export type WithBytes = (step: Extract<Step, { do: 'write' }>) => string;

export const changesText = (changes: readonly Change[]): string => changes.map((c) => `${changeLine(c)}\n`).join('');

export const changesCsv = (changes: readonly Change[]): string =>
  csv([
    ['what', 'before', 'after', 'content'],
    ...changes.map((c) => [c.what, c.before ?? '', c.after ?? '', c.content === null ? '' : 'written']),
  ]);

export const changesJson = (changes: readonly Change[]): string =>
  `${JSON.stringify(
    changes.map(({ key, what, before, after, content }) => ({
      key,
      what,
      before,
      after,
      ...(content !== null && { written: true }),
    })),
    null,
    2,
  )}\n`;

/** POSIX sh, to be run in the project's root. It stops at the first thing that is not as it was. */
export function changesSh(steps: readonly Step[], base64Of: WithBytes): string {
  const q = (path: string) => `'${`./${path}`.replaceAll("'", "'\\''")}'`;
  const lineOf = (step: Step): string => {
    switch (step.do) {
      case 'make':
        return `mkdir ${q(step.path)}`;
      case 'unmake':
        return `rmdir ${q(step.path)}`;
      case 'move':
        return `move ${q(step.from)} ${q(step.path)}`;
      case 'unwrite':
        return `move ${q(step.path)} ${q(`${step.path}.before`)}`;
      case 'write':
        return `free ${q(step.path)}\nbase64 -d > ${q(step.path)} <<'END_OF_FILE'\n${base64Of(step).replace(/.{1,76}/g, '$&\n')}END_OF_FILE`;
    }
  };
  const head = [
    '#!/bin/sh',
    "# In the project's root. Nothing is overwritten; what is written anew is kept beside, with .before behind its name.",
    'set -eu',
    'free() { if [ -e "$1" ] || [ -L "$1" ]; then echo "$1 is there already" >&2; exit 1; fi; }',
    'move() { free "$2"; mv "$1" "$2"; }',
  ];
  return [...head, ...steps.map(lineOf), ''].join('\n');
}

/** Windows PowerShell 5.1 and later, to be run in the project's root. */
export function changesPowerShell(steps: readonly Step[], base64Of: WithBytes): string {
  const q = (text: string) => `'${text.replace(/['\u2018\u2019\u201a\u201b]/g, '$&$&')}'`;
  const at = (path: string) => `(Join-Path $root ${q(path.replaceAll('/', '\\'))})`;
  const lineOf = (step: Step): string => {
    switch (step.do) {
      case 'make':
        return `[void](New-Item -ItemType Directory -Path ${at(step.path)})`;
      case 'unmake':
        return `[IO.Directory]::Delete(${at(step.path)})`;
      case 'move':
        return `Move-New ${at(step.from)} ${at(step.path)}`;
      case 'unwrite':
        return `Move-New ${at(step.path)} ${at(`${step.path}.before`)}`;
      case 'write':
        return `if (Test-Path -LiteralPath ${at(step.path)}) { throw ${q(`${step.path} is there already.`)} }\r\n[IO.File]::WriteAllBytes(${at(step.path)}, [Convert]::FromBase64String(${q(base64Of(step))}))`;
    }
  };
  const head = [
    "$ErrorActionPreference = 'Stop'",
    '$root = (Get-Location).ProviderPath',
    'function Move-New($from, $to) { if (Test-Path -LiteralPath $to) { throw "$to is there already." }; if ([IO.Directory]::Exists($from)) { [IO.Directory]::Move($from, $to) } else { [IO.File]::Move($from, $to) } }',
  ];
  return [...head, ...steps.map(lineOf), ''].join('\r\n');
}
