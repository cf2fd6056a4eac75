/**
 * A plan of changes as text, CSV, JSON, and scripts that do the same by hand. Quoting leaves no name able to run
 * anything; nothing is overwritten.
 */
import type { Change, Content, Patch, Step } from '../change/change';
import { HOME, type Place } from '../change/place';
import { csv } from '../text/csv';
import { shown } from '../text/shown';
import { changeLine, placeWords } from '../words/batches';

/** Base64 of what a file is made with. */
export type WithBytes = (content: Content) => string;

export const changesText = (changes: readonly Change[]): string =>
  changes.map((c) => `${shown(changeLine(c))}\n`).join('');

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

/** What is rewritten lies ready under a number of its own until it takes its place. */
function readyNumbers(steps: readonly Step[]): ReadonlyMap<string, number> {
  return new Map(steps.filter((s) => s.do === 'rewrite').map((s, i) => [s.id, i + 1]));
}

/** A file's bytes but for its patches: what stays, from a byte on and so long (to the end where null), and what comes. */
function piecesOf(
  patches: readonly Patch[],
): readonly (readonly [from: number, length: number | null, bytes: string])[] {
  let from = 0;
  const pieces = patches.map(({ at, length, bytes }) => {
    const piece = [from, at - from, bytes] as const;
    from = at + length;
    return piece;
  });
  return [...pieces, [from, null, '']];
}

const wrapped = (text: string): string => text.replace(/.{1,76}/g, '$&\n');
const noCopies = (): never => {
  throw new Error('a script of this has no use for copies');
};

/** POSIX sh, to be run in the project's root. It stops at the first thing that is not as it was. */
export function changesSh(steps: readonly Step[], base64Of: WithBytes): string {
  const q = (path: string) => `'${`./${path}`.replaceAll("'", "'\\''")}'`;
  const ready = readyNumbers(steps);
  const placed = (id: string, content: Content, path: string) =>
    content.kind === 'rewritten'
      ? `move "$kept/new-${ready.get(id)}" ${q(path)}`
      : `free ${q(path)}\nbase64 -d > ${q(path)} <<'END_OF_FILE'\n${wrapped(base64Of(content))}END_OF_FILE`;
  const rewritten = (id: string, from: string, patches: readonly Patch[]) => {
    const pieces = piecesOf(patches).map(([at, length, bytes]) =>
      length === null
        ? `tail -c +${at + 1} ${q(from)}`
        : `tail -c +${at + 1} ${q(from)} | head -c ${length}\nbase64 -d <<'END_OF_BYTES'\n${wrapped(bytes)}END_OF_BYTES`,
    );
    return `{\n${pieces.join('\n')}\n} > "$kept/new-${ready.get(id)}"`;
  };
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
        return `keep ${q(path)}`;
      case 'write':
      case 'place':
        return placed(step.id, step.content, path);
      case 'rewrite':
        return rewritten(step.id, pathOf(step.from), step.content.patches);
      case 'copy':
      case 'remove':
        return noCopies();
    }
  };
  const head = [
    '#!/bin/sh',
    "# In the project's root. Nothing is overwritten or deleted: what gives way is kept in .nesting/set-aside.",
    'set -eu',
    'free() { if [ -e "$1" ] || [ -L "$1" ]; then echo "$1 is there already" >&2; exit 1; fi; }',
    'move() { free "$2"; mv "$1" "$2"; }',
    ...(steps.some((s) => s.do === 'set-aside' || s.do === 'rewrite')
      ? [
          'kept=.nesting/set-aside/$(date -u +%Y%m%dT%H%M%SZ)-$$',
          'mkdir -p "$kept"',
          'n=0',
          'keep() { n=$((n + 1)); mkdir "$kept/$n"; mv "$1" "$kept/$n/"; }',
        ]
      : []),
  ];
  return [...head, ...steps.map(lineOf), ''].join('\n');
}

/** Windows PowerShell 5.1 and later, to be run in the project's root. */
export function changesPowerShell(steps: readonly Step[], base64Of: WithBytes): string {
  const q = (text: string) => `'${text.replace(/['\u2018\u2019\u201a\u201b]/g, '$&$&')}'`;
  const at = (path: string) => `(Join-Path $root ${q(path.replaceAll('/', '\\'))})`;
  const ready = readyNumbers(steps);
  const placed = (id: string, content: Content, path: string) =>
    content.kind === 'rewritten'
      ? `Move-New (Join-Path $kept 'new-${ready.get(id)}') ${at(path)}`
      : `if (Test-Path -LiteralPath ${at(path)}) { throw ${q(`${path} is there already.`)} }\r\n[IO.File]::WriteAllBytes(${at(path)}, [Convert]::FromBase64String(${q(base64Of(content))}))`;
  const rewritten = (id: string, from: string, patches: readonly Patch[]) => {
    const pieces = piecesOf(patches).map(
      ([start, length, bytes]) =>
        `$to.Write($all, ${start}, ${length === null ? `$all.Length - ${start}` : length})${bytes === '' ? '' : `; $new = [Convert]::FromBase64String(${q(bytes)}); $to.Write($new, 0, $new.Length)`}`,
    );
    return [
      `$all = [IO.File]::ReadAllBytes(${at(from)}); $to = New-Object IO.MemoryStream`,
      ...pieces,
      `[IO.File]::WriteAllBytes((Join-Path $kept 'new-${ready.get(id)}'), $to.ToArray())`,
    ].join('\r\n');
  };
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
        return `Set-Aside ${at(path)}`;
      case 'write':
      case 'place':
        return placed(step.id, step.content, path);
      case 'rewrite':
        return rewritten(step.id, pathOf(step.from), step.content.patches);
      case 'copy':
      case 'remove':
        return noCopies();
    }
  };
  const head = [
    "# In the project's root. Nothing is overwritten or deleted: what gives way is kept in .nesting\\set-aside.",
    "$ErrorActionPreference = 'Stop'",
    '$root = (Get-Location).ProviderPath',
    'function Move-New($from, $to) { if (Test-Path -LiteralPath $to) { throw "$to is there already." }; if ([IO.Directory]::Exists($from)) { [IO.Directory]::Move($from, $to) } else { [IO.File]::Move($from, $to) } }',
    ...(steps.some((s) => s.do === 'set-aside' || s.do === 'rewrite')
      ? [
          "$kept = Join-Path $root ('.nesting\\set-aside\\' + [DateTime]::UtcNow.ToString('yyyyMMddTHHmmssZ') + '-' + $PID)",
          '[void](New-Item -ItemType Directory -Force -Path $kept)',
          '$n = 0',
          'function Set-Aside($path) { $script:n++; $into = Join-Path $kept $script:n; [void](New-Item -ItemType Directory -Path $into); Move-New $path (Join-Path $into (Split-Path -Leaf $path)) }',
        ]
      : []),
  ];
  return [...head, ...steps.map(lineOf), ''].join('\r\n');
}
