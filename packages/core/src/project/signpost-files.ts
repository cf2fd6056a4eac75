/**
 * Signposts as files in the project's own folder. They hold wherever the project is mounted: what is written is the
 * path from its root, and the
 * script forms find the root by themselves. Redirected folders are not among them: only the server knows where each
 * system has the other volume.
 */
import { type Signpost, variablesOf } from './signposts';

export interface SignpostFile {
  readonly name: string;
  readonly text: string;
}

export function signpostFiles(marker: string, signposts: readonly Signpost[]): readonly SignpostFile[] {
  const here = signposts.filter((s) => s.volume === undefined);
  const named = variablesOf(here).filter((v) => v.signpost.path !== '');
  const root = variablesOf(here).find((v) => v.signpost.path === '')?.name ?? 'NESTING_PROJECT';
  return [
    {
      name: 'signposts.json',
      text: `${JSON.stringify(Object.fromEntries(here.map((s) => [s.name, s.path === '' ? '.' : s.path])), null, 2)}\n`,
    },
    {
      name: 'signposts.env',
      text: [
        `# Paths from the project's root.\n${root}="."\n`,
        ...named.map((v) => `${v.name}="${v.signpost.path.replace(/["\\$`]/g, '\\$&')}"\n`),
      ].join(''),
    },
    { name: 'signposts.sh', text: sh(marker, root, named) },
    { name: 'signposts.ps1', text: powerShell(root, named) },
  ];
}

type Named = ReturnType<typeof variablesOf>;

/** POSIX sh does not tell a sourced file where it lies: the root is looked for upwards from the folder one is in. */
function sh(marker: string, root: string, named: Named): string {
  const q = (text: string) => `'${text.replaceAll("'", "'\\''")}'`;
  return [
    "# . .nesting/signposts.sh, from the project's root or anywhere below it",
    `${root}=$PWD`,
    `while [ "$${root}" != "" ] && [ ! -f "$${root}"/${q(marker)} ]; do ${root}=\${${root}%/*}; done`,
    `if [ "$${root}" = "" ]; then echo "signposts: not in a project" >&2; else`,
    `export ${root}`,
    ...named.map((v) => `export ${v.name}="$${root}"/${q(v.signpost.path)}`),
    'fi',
    '',
  ].join('\n');
}

function powerShell(root: string, named: Named): string {
  const q = (text: string) => `'${text.replace(/['\u2018\u2019\u201a\u201b]/g, '$&$&')}'`;
  return [
    `$env:${root} = Split-Path -Parent $PSScriptRoot`,
    // .NET's own join: the cmdlet would look for the drive, and read brackets as patterns.
    ...named.map(
      (v) => `$env:${v.name} = [IO.Path]::Combine($env:${root}, ${q(v.signpost.path.replaceAll('/', '\\'))})`,
    ),
    '',
  ].join('\r\n');
}
