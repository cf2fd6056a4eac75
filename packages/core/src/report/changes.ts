/**
 * A plan of changes as text, CSV, JSON, and scripts that do the same by hand. Quoting leaves no name able to run
 * anything; nothing is overwritten.
 */
import type { Change, Content, Step } from '../change/change';
import { HOME, type Place } from '../change/place';
import { csv } from '../text/csv';
import { changeLine, placeWords } from '../words/batches';

/** Base64 of what a file is made with. */
export type WithBytes = (content: Content) => string;

export const changesText = (changes: readonly Change[]): string => changes.map((c) => `${changeLine(c)}\n`).join('');

const wordsAt = (place: Place | null): string => (place === null ? '' : placeWords(place));

/** Scripts are run in the project's folder: what lies elsewhere they cannot name. */
const pathOf = ({ root, path }: Place): string => {
  if (root !== HOME) throw new Error('a script works in one folder');
  return path;
};

export const changesCsv = (changes: readonly Change[]): string =>
  csv([
    ['what', 'before', 'after', 'content'],
    ...changes.map((c) => [c.entry, wordsAt(c.before), wordsAt(c.after), c.content === null ? '' : 'written']),
  ]);

export const changesJson = (changes: readonly Change[]): string =>
  `${JSON.stringify(
    changes.map(({ id, entry, before, after, content }) => ({
      id,
      what: entry,
      before: before && placeWords(before),
      after: after && placeWords(after),
      ...(content !== null && { written: true }),
    })),
    null,
    2,
  )}\n`;

/** POSIX sh, to be run in the project's root. It stops at the first thing that is not as it was. */
export function changesSh(steps: readonly Step[], base64Of: WithBytes): string {
  const q = (path: string) => `'${`./${path}`.replaceAll("'", "'\\''")}'`;
  const lineOf = (step: Step): string => {
    const path = pathOf(step.at);
    switch (step.do) {
      case 'make':
        return `mkdir ${q(path)}`;
      case 'unmake':
        return `rmdir ${q(path)}`;
      case 'move':
        return `move ${q(pathOf(step.from))} ${q(path)}`;
      case 'set-aside':
        return `move ${q(path)} ${q(`${path}.before`)}`;
      case 'write':
      case 'place':
        return `free ${q(path)}\nbase64 -d > ${q(path)} <<'END_OF_FILE'\n${base64Of(step.content).replace(/.{1,76}/g, '$&\n')}END_OF_FILE`;
      case 'copy':
      case 'rewrite':
      case 'remove':
        throw new Error('a script of this has no use for copies');
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
    const path = pathOf(step.at);
    switch (step.do) {
      case 'make':
        return `[void](New-Item -ItemType Directory -Path ${at(path)})`;
      case 'unmake':
        return `[IO.Directory]::Delete(${at(path)})`;
      case 'move':
        return `Move-New ${at(pathOf(step.from))} ${at(path)}`;
      case 'set-aside':
        return `Move-New ${at(path)} ${at(`${path}.before`)}`;
      case 'write':
      case 'place':
        return `if (Test-Path -LiteralPath ${at(path)}) { throw ${q(`${path} is there already.`)} }\r\n[IO.File]::WriteAllBytes(${at(path)}, [Convert]::FromBase64String(${q(base64Of(step.content))}))`;
      case 'copy':
      case 'rewrite':
      case 'remove':
        throw new Error('a script of this has no use for copies');
    }
  };
  const head = [
    "$ErrorActionPreference = 'Stop'",
    '$root = (Get-Location).ProviderPath',
    'function Move-New($from, $to) { if (Test-Path -LiteralPath $to) { throw "$to is there already." }; if ([IO.Directory]::Exists($from)) { [IO.Directory]::Move($from, $to) } else { [IO.File]::Move($from, $to) } }',
  ];
  return [...head, ...steps.map(lineOf), ''].join('\r\n');
}
