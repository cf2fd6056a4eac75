/**
 * One project otherwise than its template: lines left out, made, renamed; rules of its own; and signposts that programs
 * read.
 */
import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { parseTemplate } from '../../contract/src/index';
import { stateOf } from '../src/check';
import { NO_REGISTERS } from '../src/name';
import {
  ProjectRules,
  pathOn,
  printSignposts,
  type Signpost,
  signpostFiles,
  signpostsOf,
  variablesOf,
} from '../src/project';
import { expandTemplate, type Template, tidyOwn, withOwnRules } from '../src/template';

const parsed = parseTemplate(readFileSync('demo/templates/facade-show.nest.json', 'utf8'));
if (!parsed.ok) throw new Error(parsed.faults[0]);
const facade = parsed.value;
const values = {
  number: '26014',
  title: 'Harbour Lights',
  client: 'QHT',
  person: 'IT',
  date: '2026-11-27',
  surfaces: ['west-front', 'clock-tower'],
  scenes: 's01..s03',
  stands: ['pier', 'mill-roof'],
  nights: ['2026-03-02'],
  speech: 'spoken',
  languages: ['nl'],
};
const registers = { ...NO_REGISTERS, clients: [{ code: 'QHT', name: 'Q' }], people: [{ initials: 'IT', name: 'I' }] };
const plain = expandTemplate(facade, values, registers);

describe('lines otherwise for one project', () => {
  test('any lines left out are gone with what is in them, and everything else is as it was', () => {
    const keys = plain.lines.filter((l) => l.depth > 0).map((l) => l.key);
    fc.assert(
      fc.property(fc.subarray(keys, { maxLength: 6 }), (out) => {
        const adjusted = Object.fromEntries(out.map((k) => [k, { leaveOut: true }]));
        const lines = expandTemplate({ ...facade, adjusted }, values, registers).lines.map((l) => l.path);
        const gone = plain.lines.filter((l) => out.includes(l.key)).map((l) => l.path);
        expect(lines).toEqual(
          plain.lines.map((l) => l.path).filter((p) => !gone.some((g) => p === g || p.startsWith(`${g}/`))),
        );
      }),
    );
  });

  test('one entry of a list is renamed alone, in its paths and in what a check plans', () => {
    const renders = plain.lines.filter((l) => l.name === 'renders');
    const one = renders[2];
    if (one === undefined) throw new Error('no renders');
    const template = { ...facade, adjusted: { [one.key]: { name: 'frames for the festival' } } };
    const paths = expandTemplate(template, values, registers).lines.map((l) => l.path);
    expect(paths.filter((p) => p.endsWith('/renders'))).toHaveLength(renders.length - 1);
    const rules = new ProjectRules({ template, values, registers });
    expect(stateOf(rules, one.path.replace(/renders$/, 'frames for the festival')).kind).toBe('planned');
    expect(stateOf(rules, one.path).kind).toBe('unplanned');
    // A name written by hand is judged like every other.
    const odd = expandTemplate({ ...facade, adjusted: { [one.key]: { name: 'a/b' } } }, values, registers);
    expect(odd.diagnostics.some((d) => d.line === one.key && d.weight === 'refused')).toBe(true);
  });

  test('an optional folder is made where it is asked for', () => {
    const optional = {
      ...facade,
      root: {
        ...facade.root,
        folders: [
          ...(facade.root.folders ?? []),
          { id: 'extra', name: 'extra', presence: 'optional' as const, folders: [{ id: 'inner', name: 'inner' }] },
        ],
      },
    };
    const made = (t: Template) =>
      expandTemplate(t, values, registers)
        .lines.filter((l) => l.path.includes('extra'))
        .map((l) => l.made);
    expect(made(optional)).toEqual([false, false]);
    expect(made({ ...optional, adjusted: { extra: { make: true } } })).toEqual([true, true]);
  });
});

describe('rules of its own', () => {
  test('a convention and a folder’s rule stand in place of the template’s; what is the template’s again is no longer its own', () => {
    const master = facade.conventions[0];
    if (master === undefined) throw new Error('no convention');
    const own = {
      conventions: { [master.id]: { ...master, pattern: '{number}.{ext}' } },
      folders: { masters: { accepts: ['sound'] } },
    };
    const with_ = withOwnRules(facade, own);
    expect(with_.conventions[0]?.pattern).toBe('{number}.{ext}');
    expect(with_.root.folders?.find((f) => f.id === 'masters')?.accepts).toEqual(['sound']);
    expect(with_.root.folders?.find((f) => f.id === 'survey')).toBe(
      facade.root.folders?.find((f) => f.id === 'survey'),
    );
    expect(withOwnRules(facade, {})).toBe(facade);
    expect(tidyOwn(facade, { conventions: { [master.id]: master }, folders: { masters: {} } })).toEqual({});
    expect(tidyOwn(facade, own)).toEqual(own);
  });
});

describe('signposts', () => {
  test('each has its whole path as each system writes it', () => {
    const all = signpostsOf(plain);
    expect(all[0]).toEqual({ name: 'project', path: '' });
    expect(all.map((s) => s.name)).toContain('renders.west-front.s02');
    expect(new Set(all.map((s) => s.name)).size).toBe(all.length);
    expect(pathOn('windows', 'S:\\', '26014_QHT_harbour-lights', '90_cache')).toBe(
      'S:\\26014_QHT_harbour-lights\\90_cache',
    );
    expect(pathOn('macos', '/Volumes/studio/', 'old/26014', '')).toBe('/Volumes/studio/old/26014');
  });

  test('law: whatever a path holds, a shell that reads the file has it exactly, and runs nothing', () => {
    const name = fc.string({ unit: fc.constantFrom(...'ab \'"$`\\;&|(){}<>*?#!~é–'), minLength: 1, maxLength: 20 });
    fc.assert(
      fc.property(fc.array(name, { minLength: 1, maxLength: 4 }), (paths) => {
        const signposts: Signpost[] = paths.map((path, i) => ({ name: `s${i}`, path }));
        const script = `${printSignposts('sh', signposts, (s) => `/v/${s.path}`)}${variablesOf(signposts)
          .map((v) => `printf '%s\\n' "$${v.name}"`)
          .join('\n')}\n`;
        const run = spawnSync('/bin/sh', ['-s'], { input: script, encoding: 'utf8', env: {} });
        expect(run.stdout).toBe(paths.map((p) => `/v/${p}\n`).join(''));
        // The quoted form of a dotenv file is read by a shell alike.
        const dotenv = spawnSync('/bin/sh', ['-s'], {
          input: `${printSignposts('dotenv', signposts, (s) => `/v/${s.path}`)}${variablesOf(signposts)
            .map((v) => `printf '%s\\n' "$${v.name}"`)
            .join('\n')}\n`,
          encoding: 'utf8',
          env: {},
        });
        expect(dotenv.stdout).toBe(paths.map((p) => `/v/${p}\n`).join(''));
        expect(JSON.parse(printSignposts('json', signposts, (s) => s.path))).toEqual(
          Object.fromEntries(signposts.map((s) => [s.name, s.path])),
        );
        // PowerShell by its text: an odd number of quotes would end the string.
        for (const line of printSignposts('powershell', signposts, (s) => s.path)
          .split('\r\n')
          .filter((l) => l !== ''))
          expect(/^\$env:\w+ = '(?:[^'\u2018\u2019\u201a\u201b]|(['\u2018\u2019\u201a\u201b])\1)*'$/.test(line)).toBe(
            true,
          );
      }),
      { numRuns: 60 },
    );
  });

  test('names that would be one variable are told apart', () => {
    expect(
      variablesOf([
        { name: 'a-b', path: '' },
        { name: 'a.b', path: '' },
      ]).map((v) => v.name),
    ).toEqual(['NESTING_A_B', 'NESTING_A_B_2']);
  });
});

describe('signposts in the project itself', () => {
  test('sourced anywhere in it, sh finds the root wherever it lies and whatever the folders are called', () => {
    const root = path.join(mkdtempSync(path.join(tmpdir(), 'signposts ')), `it's $HOME "26014"`);
    const posts: Signpost[] = [
      { name: 'project', path: '' },
      { name: 'cache', path: `90_cache/it's "$x"` },
      { name: 'away', path: 'a', volume: 'archive' },
    ];
    try {
      mkdirSync(path.join(root, '.nesting'), { recursive: true });
      mkdirSync(path.join(root, 'a/b'), { recursive: true });
      writeFileSync(path.join(root, '.nesting/project.json'), '{}');
      for (const file of signpostFiles('.nesting/project.json', posts))
        writeFileSync(path.join(root, '.nesting', file.name), file.text);
      const said = (cwd: string) =>
        spawnSync(
          'sh',
          [
            '-euc',
            // biome-ignore lint/suspicious/noTemplateCurlyInString: it is the shell's
            '. "$1"; printf "%s\\n%s\\n%s" "${NESTING_PROJECT-}" "${NESTING_CACHE-}" "${NESTING_AWAY-none}"',
            'sh',
            path.join(root, '.nesting/signposts.sh'),
          ],
          { cwd, encoding: 'utf8', env: { PATH: process.env.PATH ?? '' } },
        );
      expect(said(path.join(root, 'a/b')).stdout).toBe(`${root}\n${root}/90_cache/it's "$x"\nnone`);
      expect(said(root).stdout).toContain(`${root}/90_cache`);
      const outside = said(tmpdir());
      expect([outside.stdout, outside.stderr]).toEqual(['\n\nnone', 'signposts: not in a project\n']);
    } finally {
      rmSync(path.dirname(root), { recursive: true });
    }
  });

  test('JSON and dotenv have paths from the root, PowerShell none that could run', () => {
    const files = new Map(signpostFiles('.nesting/project.json', signpostsOf(plain)).map((f) => [f.name, f.text]));
    const cache = plain.lines.find((l) => l.folder?.signpost === 'cache');
    expect(JSON.parse(files.get('signposts.json') ?? '')).toMatchObject({ project: '.', cache: cache?.path });
    expect(files.get('signposts.env')).toContain(`NESTING_CACHE="${cache?.path}"\n`);
    const [quoted] = signpostFiles('m', [
      { name: 'project', path: '' },
      { name: 'x', path: "a'; Remove-Item b; '" },
    ]).filter((f) => f.name.endsWith('.ps1'));
    expect(quoted?.text).toContain("'a''; Remove-Item b; '''");
  });
});
