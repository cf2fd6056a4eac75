/** The list of damages as people do them: each done to the project in good order, with what a check is to find. */
import { readFileSync } from 'node:fs';
import { present } from '@nesting/core';
import type { RuleCode } from '@nesting/core/check';
import type { ProjectRules } from '@nesting/core/project';
import { above, moved, removed } from '../damage-kinds';
import { type Damaged, pickerOf } from '../damaged-disk';
import { type Disk, file, folder, goodDisk } from '../good-disk';
import { halved, sortsIn, unescaped } from './list';

export interface HabitDamage {
  readonly sort: string;
  /** What is done, in order. */
  readonly acts: readonly string[];
  readonly expected: readonly { readonly rule: RuleCode; readonly path: string }[];
  readonly half: 'tune' | 'measure';
}

export function habitDamages(): HabitDamage[] {
  return sortsIn(readFileSync('corpus/habits/damages.txt', 'utf8')).flatMap(({ title, lines }, sortAt) =>
    lines.map((line, i): HabitDamage => {
      const [done = '', ...found] = whole(line).split(' ! ');
      return {
        sort: title,
        acts: done.split(' ; '),
        expected: found.flatMap((text) => {
          const at = text.indexOf(' ');
          return at < 0 ? [] : [{ rule: text.slice(0, at) as RuleCode, path: unescaped(text.slice(at + 1)) }];
        }),
        half: halved(sortAt, i),
      };
    }),
  );
}

/** `W`, `R` and `F` written out. */
const whole = (line: string): string =>
  line
    .replace(/(^| )W\//g, '$140_motion/portico/s02/working/')
    .replace(/(^| )R(?=\/| |$)/g, '$140_motion/portico/s02/renders')
    .replace(/(^| |\/)F_/g, '$126011_portico_s02_');

function act(disk: Disk, text: string): void {
  const [, verb = '', rest = ''] = present(/^(\w+) (.*)$/.exec(text));
  const [from = '', to = ''] = rest.split(' -> ').map(unescaped);
  switch (verb) {
    case 'mv':
      if (!disk.has(from)) throw new Error(`nothing to move: ${text}`);
      moved(disk, from, to);
      return;
    case 'cp':
      copied(disk, from, to);
      return;
    case 'rm':
      if (!disk.has(from)) throw new Error(`nothing to remove: ${text}`);
      removed(disk, from);
      return;
    case 'mkdir':
      disk.set(from, folder);
      return;
    case 'say': {
      const at = rest.indexOf(' = ');
      disk.set(unescaped(rest.slice(0, at)), file(1000, unescaped(rest.slice(at + 3))));
      return;
    }
    case 'add': {
      const [, path = '', size] = present(/^(.*?)(?: (\d{1,15}))?$/.exec(rest));
      disk.set(unescaped(path), file(size === undefined ? 1000 : Number(size)));
      return;
    }
    default:
      throw new Error(`not known: ${text}`);
  }
}

/** A copy has the content of its original, inside a folder too. */
function copied(disk: Disk, from: string, to: string): void {
  if (!disk.has(from)) throw new Error(`nothing to copy: ${from}`);
  for (const [path, entry] of [...disk]) {
    if (path !== from && !path.startsWith(`${from}/`)) continue;
    const copy = to + path.slice(from.length);
    if (entry.folder) {
      disk.set(copy, entry);
      continue;
    }
    const content = entry.content ?? `content of ${path}`;
    disk.set(path, { ...entry, content });
    disk.set(copy, { ...entry, content });
  }
}

export function done(of: ProjectRules, damages: readonly HabitDamage[]): Damaged {
  const disk = goodDisk(of);
  for (const damage of damages) for (const text of damage.acts) act(disk, text);
  return { disk, kinds: damages.map((d) => d.sort), expected: damages.flatMap((d) => d.expected) };
}

/** So many of them, drawn by the seed, no two of one sort or at one place. */
export function drawHabits(all: readonly HabitDamage[], count: number, seed: number): HabitDamage[] {
  const pick = pickerOf(seed);
  const open = [...all];
  const drawn: HabitDamage[] = [];
  const near = (a: string, b: string) => a === b || a.startsWith(`${b}/`) || b.startsWith(`${a}/`);
  while (drawn.length < count && open.length > 0) {
    const chosen = present(pick(open));
    open.splice(open.indexOf(chosen), 1);
    const places = placesOf(chosen);
    const isFree = drawn.every((other) => !placesOf(other).some((a) => places.some((b) => near(a, b))));
    if (isFree && drawn.every((other) => other.sort !== chosen.sort)) drawn.push(chosen);
  }
  return drawn;
}

/** Folders in which something is done, and folders that are themselves moved: nobody else may touch them. */
function placesOf({ acts, expected }: HabitDamage): string[] {
  const said = acts.flatMap((text) => text.replace(/^\w+ /, '').split(' -> '));
  const paths = [
    ...said.map((p) => unescaped(p.split(' = ')[0]?.replace(/ \d+$/, '') ?? '')),
    ...expected.map((e) => e.path),
  ];
  return paths.map((p) => above(p) || p);
}
