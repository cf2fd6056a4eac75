/**
 * What artists may do to a project by themselves: add entries to lists, and make folders, where the template lets them.
 */
import type { ProjectShape, ReshapeAsked } from '@nesting/contract';
import type { Registers, Value } from '@nesting/core/name';
import { compileTemplate, type Template } from '@nesting/core/template';
import type { RefusalParams } from '@nesting/core/words';
import { Refused } from '../world';

type Why = RefusalParams<'artist-not-allowed'>['why'];

const no = (why: Why, what = ''): never => {
  throw new Refused('artist-not-allowed', { why, what });
};

const flat = (value: Value | undefined): readonly string[] =>
  Array.isArray(value)
    ? value.map(String)
    : value !== null && typeof value === 'object'
      ? Object.entries(value).flatMap(([outer, inner]) => flat(inner).map((e) => `${outer}/${e}`))
      : [];

export function requireArtistMay(
  template: Template,
  from: ProjectShape,
  to: ProjectShape,
  asked: ReshapeAsked,
  registers: Registers,
): void {
  if (from.template !== to.template || from.edition !== to.edition) no('edition');
  if (Object.keys(asked.renamed).length > 0 || asked.extra.length > 0) no('renames');
  const open = new Set(template.fields.flatMap((f) => (f.type === 'list' && f.artistsMayAdd ? [f.key] : [])));
  const expander = compileTemplate(template, registers);
  const kept = expander.expand(to.values);
  const was = expander.expand(from.values);
  for (const key of new Set([...Object.keys(was.values.values), ...Object.keys(kept.values.values)])) {
    const [a, b] = [was.values.values[key], kept.values.values[key]];
    if (JSON.stringify(a) === JSON.stringify(b)) continue;
    const label = template.fields.find((f) => f.key === key)?.label ?? key;
    if (!open.has(key)) no('field', label);
    const after = new Set(flat(b));
    if (flat(a).some((entry) => !after.has(entry))) no('takes', label);
  }
  const lines = new Map(kept.lines.map((l) => [l.key, l]));
  for (const key of new Set([...Object.keys(from.adjusted), ...Object.keys(to.adjusted)])) {
    const [a, b] = [from.adjusted[key] ?? {}, to.adjusted[key] ?? {}];
    if (JSON.stringify(a) === JSON.stringify(b)) continue;
    const onlyMade = JSON.stringify({ ...a, make: true }) === JSON.stringify({ ...b, make: true }) && b.make === true;
    if (!onlyMade || lines.get(key)?.folder?.artistsMayAdd !== true) no('folder', lines.get(key)?.name ?? key);
  }
}
