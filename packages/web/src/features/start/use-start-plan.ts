/** The draft of a start, and all that follows from it: the target, the hierarchy, what stands in the way. */

import type { Me, TemplateRow, VolumeRow } from '@nesting/contract';
import { adjustmentsSchema, valueSchema } from '@nesting/contract';
import type { Registers, Value, Values } from '@nesting/core/name';
import {
  type Adjustments,
  compileTemplate,
  type Expansion,
  inOnePlace,
  resolveTemplate,
  type Template,
} from '@nesting/core/template';
import { wordsFor } from '@nesting/core/words';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { z } from 'zod';
import { useAppDispatch, useAppSelector } from '../../app/store';
import { leaderField } from './field-order';
import type { Chosen } from './sheet';
import { ADJUSTED, draftFrom, fieldGiven, SETTINGS } from './start-slice';
import { isElsewhere, type Target } from './target';
import { treeOfPlan } from './tree';
import { useHeldNumber } from './use-held-number';
import { useClash, useThere } from './use-target';
import { canWriteFolders } from './write-elsewhere';

export type StartPlan = ReturnType<typeof useStartPlan>;

/** @param kept - what the draft is kept as */
export function useStartPlan(
  row: TemplateRow,
  registers: Registers,
  all: readonly VolumeRow[],
  me: Me,
  kept: string = row.id,
) {
  const dispatch = useAppDispatch();
  const [params, setParams] = useSearchParams();
  const drafts = useAppSelector((s) => s.start);
  const draft = useMemo(() => draftFrom(drafts, kept), [drafts, kept]);
  const { values, adjusted, settings } = useMemo(
    () => parted({ ...ledBy(me, row.template), ...draft.values }),
    [draft.values, me, row.template],
  );
  const volumeKept = useAppSelector((s) => s.start.volume);
  const volumes = all.filter((v) => !v.isInbox);
  const volume = volumes.find((v) => v.name === volumeKept) ?? volumes[0];
  const to = params.get('to');
  const target = targetOf(to, volume);
  const isOnVolume = target?.kind === 'volume';
  const prefix = isOnVolume && volume !== undefined ? `${volume.root}/` : '';
  const { template, resolved, expansion } = useExpansion(row, registers, values, adjusted, prefix, isOnVolume);
  const number = typeof values.number === 'string' ? values.number : '';
  const { client } = expansion.values.values;
  const numberIsTyped = draft.past.some((change) => change.field === 'number');
  const { held, holdTrouble } = useHeldNumber(
    { template: row.id, kept },
    typeof client === 'string' ? client : null,
    numberIsTyped,
  );
  const { clash: found, adds, note } = useClash(number, volume, expansion.rootName);
  const [into, setInto] = useState(false);
  const isAdding = isOnVolume && adds && into;
  // A folder of that name is in the way on a volume alone, and only where one does not mean to add to it.
  const clash = isAdding || (!isOnVolume && !found?.startsWith('The number')) ? null : found;
  const there = useThere(isAdding ? volume : undefined, expansion);
  const nodes = useMemo(
    () => treeOfPlan(expansion, clash !== null, resolved, there),
    [expansion, clash, resolved, there],
  );
  const selected = params.get('line') ?? resolved.root.id;
  const give = (field: string, value: Value) => dispatch(fieldGiven({ template: kept, field, value }));
  return {
    row,
    draft,
    values,
    adjusted,
    settings,
    volumes,
    volume,
    target,
    isOnVolume,
    prefix,
    template,
    expansion,
    nodes,
    number,
    held,
    holdTrouble,
    clash,
    note,
    /** The folder is there and may be added to. */
    adds,
    into,
    setInto,
    isAdding,
    there,
    selected,
    line: expansion.lines.find((l) => l.key === selected) ?? expansion.lines[0],
    hindrance: hindranceOf(expansion, target, clash, number),
    setParams,
    select: (key: string) => setParams({ template: row.id, line: key, ...(to && { to }) }, { replace: true }),
    give,
    adjust: (next: Adjustments) => give(ADJUSTED, asValue(next)),
    choose: (settled: Chosen) => give(SETTINGS, asValue(settled)),
  };
}

/** Whoever starts a project leads it, until somebody else is chosen. */
function ledBy(me: Me, template: Template): Values {
  const field = leaderField(template.fields);
  return field === null ? {} : { [field]: me.initials };
}

function targetOf(to: string | null, volume: VolumeRow | undefined): Target | null {
  if (isElsewhere(to)) return { kind: to };
  return volume === undefined ? null : { kind: 'volume', volume };
}

/** What the values make of the template. What is not written on a volume is one tree. */
function useExpansion(
  row: TemplateRow,
  registers: Registers,
  values: Values,
  adjusted: Adjustments,
  prefix: string,
  isOnVolume: boolean,
) {
  const placed = useMemo(() => (isOnVolume ? adjusted : inOnePlace(adjusted)), [isOnVolume, adjusted]);
  const template = useMemo(
    () => (Object.keys(placed).length === 0 ? row.template : { ...row.template, adjusted: placed }),
    [row.template, placed],
  );
  const expander = useMemo(() => compileTemplate(template, registers), [template, registers]);
  const resolved = useMemo(() => resolveTemplate(template, expander.registers), [template, expander]);
  const expansion = useMemo(() => expander.expand(values, { prefix }), [expander, values, prefix]);
  return { template, resolved, expansion };
}

const chosenSchema: z.ZodType<Chosen> = z.record(z.string(), z.string());

/** Both stand in a draft as values do, and are read back by their own schemas. */
const asValue = (thing: Adjustments | Chosen): Value => valueSchema.parse(JSON.parse(JSON.stringify(thing)));

/** What a draft holds: the values of its fields, and what stands beside them. */
function parted(all: Values): { values: Values; adjusted: Adjustments; settings: Chosen } {
  const { [ADJUSTED]: adjusted, [SETTINGS]: settings, ...values } = all;
  return {
    values,
    adjusted: adjustmentsSchema.safeParse(adjusted).data ?? {},
    settings: chosenSchema.safeParse(settings).data ?? {},
  };
}

const NOT_READY = {
  missing: 'cannot be reached just now',
  'read-only': 'is read-only',
  new: 'has not been taken up yet: that is done in the list of volumes',
  other: 'is not mounted: something else is found in its place',
} as const;

/** The first thing in the way, in a sentence; `null` when the project can be made. */
function hindranceOf(expansion: Expansion, target: Target | null, clash: string | null, number: string): string | null {
  if (target === null) return 'No volume is configured.';
  if (target.kind === 'folder' && !canWriteFolders())
    return 'This browser cannot write folders on this computer: take a zip instead.';
  if (target.kind === 'volume' && target.volume.state !== 'ready')
    return `The volume ${target.volume.name} ${NOT_READY[target.volume.state]}.`;
  if (number === '') return 'A project needs a number.';
  const refused = expansion.diagnostics.filter((d) => d.weight === 'refused');
  const required = refused.find((d) => d.code === 'field-required') ?? refused.find((d) => d.code === 'value-missing');
  if (required) return wordsFor(required.code, required.params);
  if (refused[0])
    return `${wordsFor(refused[0].code, refused[0].params)}${refused.length > 1 ? ` And ${refused.length - 1} more.` : ''}`;
  return clash;
}
