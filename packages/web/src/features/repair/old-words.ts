/** Names in which a whole word becomes another, or goes with its separator. */
import { nameOf } from '@nesting/core/listing';
import type { Line } from './repair-rows';

export interface Renamed {
  readonly line: Line;
  readonly name: string;
}

export function renamedByWord(lines: readonly Line[], old: string, now: string): readonly Renamed[] {
  return lines.flatMap((line) => {
    if (line.after === null) return [];
    const name = nameOf(line.after);
    const other = withWord(name, old, now);
    return other === name || other === '' ? [] : [{ line, name: other }];
  });
}

function withWord(name: string, old: string, now: string): string {
  const parts = name.split(/([^\p{L}\p{N}]+)/u);
  const out: string[] = [];
  for (const [i, part] of parts.entries()) {
    const isWord = i % 2 === 0 && part === old;
    if (!isWord) out.push(part);
    else if (now !== '') out.push(now);
    // A word that goes takes the separator before it along, or the one behind it where it is the first.
    else if (out.length > 0) out.pop();
    else parts[i + 1] = '';
  }
  return out.join('');
}
