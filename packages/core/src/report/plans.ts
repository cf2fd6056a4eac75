/**
 * A project's plan as a path list, an outline, and scripts that make it. Quoting leaves no name able to run anything.
 */
import type { Expansion } from '../template/expansion';

export function planPaths(expansion: Expansion): string {
  return expansion.lines
    .filter((l) => l.made)
    .map((l) => `${[expansion.rootName, l.path].filter((p) => p !== '').join('/')}${l.kind === 'folder' ? '/' : ''}\n`)
    .join('');
}

export function planOutline(expansion: Expansion): string {
  return expansion.lines
    .filter((l) => l.made)
    .map((l) => `${'  '.repeat(l.depth)}${l.name}${l.kind === 'folder' ? '/' : ''}\n`)
    .join('');
}

/** What is made, with its bytes at hand. */
export type FilledStep =
  | { readonly do: 'make'; readonly path: string }
  | { readonly do: 'write'; readonly path: string; readonly base64: string };

/** POSIX sh: makes the tree in the folder it is run in, and refuses where the project's folder stands already. */
export function planSh(rootName: string, steps: readonly FilledStep[]): string {
  const q = (text: string) => `'${text.replaceAll("'", "'\\''")}'`;
  const root = q(`./${rootName}`);
  const body = steps.map((s) => {
    const path = q(`./${rootName}/${s.path}`);
    return s.do === 'make' ? `mkdir ${path}` : `base64 -d > ${path} <<'END_OF_FILE'\n${wrap(s.base64)}END_OF_FILE`;
  });
  return [
    '#!/bin/sh',
    'set -eu',
    `if [ -e ${root} ]; then echo "$0: this folder exists already; nothing was made" >&2; exit 1; fi`,
    `mkdir ${root}`,
    ...body,
    '',
  ].join('\n');
}

/** Windows PowerShell 5.1 and later. Curly quotes are quotes to it, so they are doubled too. */
export function planPowerShell(rootName: string, steps: readonly FilledStep[]): string {
  const q = (text: string) => `'${text.replace(/['\u2018\u2019\u201a\u201b]/g, '$&$&')}'`;
  const join = (path: string) => `(Join-Path $root ${q(path.replaceAll('/', '\\'))})`;
  const body = steps.map((s) =>
    s.do === 'make'
      ? `[void][IO.Directory]::CreateDirectory(${join(s.path)})`
      : `[IO.File]::WriteAllBytes(${join(s.path)}, [Convert]::FromBase64String(${q(s.base64)}))`,
  );
  return [
    "$ErrorActionPreference = 'Stop'",
    `$root = Join-Path (Get-Location).ProviderPath ${q(rootName)}`,
    "if (Test-Path -LiteralPath $root) { throw 'This folder exists already; nothing was made.' }",
    '[void][IO.Directory]::CreateDirectory($root)',
    ...body,
    '',
  ].join('\r\n');
}

const wrap = (base64: string): string => (base64 === '' ? '' : base64.replace(/.{1,76}/g, '$&\n'));
