/**
 * Project numbers: given out one after another under the series' locked row, held while a form is filled in, given back
 * and offered again.
 * Whatever happens to a counted number is written in the same transaction, so that no hole is ever unexplained.
 */
import type { Hold, NumberLine, NumberPage } from '@nesting/contract';
import type { Coded } from '@nesting/core';
import {
  type CompiledSeries,
  compileSeries,
  type NumberContext,
  type NumberSeries,
  type SeriesFault,
} from '@nesting/core/numbers';
import { type Client, sqlFault, transaction } from '../../db/client';
import { recordActivity } from '../../db/queries/house/activity';
import {
  allNumbers,
  deleteReserved,
  dropExpired,
  dropHold,
  heldByOther,
  holdsOf,
  insertReserved,
  isTaken,
  keepStood,
  knownNumbers,
  listReserved,
  lockSeries,
  type NumberEvent,
  putHold,
  readCounter,
  readSeries,
  recordNumbers,
  reservedFor,
  returnedNumbers,
  scopesThere,
  updateSeries,
  writeCounter,
} from '../../db/queries/house/numbers';
import { Refused, type World } from '../world';

const becauseOf = (fault: SeriesFault | undefined): Coded => ({
  code: fault?.code ?? '',
  params: Object.fromEntries(Object.entries(fault ?? {}).map(([key, value]) => [key, String(value)])),
});

function compiled(series: NumberSeries): CompiledSeries {
  const made = compileSeries(series);
  if (made.ok) return made.value;
  const [fault] = made.faults;
  throw new Refused('series-refused', { because: becauseOf(fault) });
}

/** The event of a number, by what it says of itself; numbers of another form have none. */
function eventOf(
  series: CompiledSeries,
  number: string,
  what: NumberEvent['what'],
  person: string | null,
  why = '',
): NumberEvent[] {
  const read = series.read(number);
  return read === null ? [] : [{ number, scope: read.scope, n: read.n, what, person, why }];
}

/** The last number counted in a scope; from the projects that are there, where nobody has counted yet. */
async function lastOf(client: Client, series: CompiledSeries, scope: string): Promise<number> {
  const known = await readCounter(client, scope);
  if (known !== null) return known;
  const there = (await allNumbers(client))
    .flatMap((number) => series.read(number) ?? [])
    .filter((r) => r.scope === scope);
  return there.reduce((most, r) => Math.max(most, r.n), series.series.start - 1);
}

async function giveBackExpired(client: Client, series: CompiledSeries): Promise<void> {
  await recordNumbers(
    client,
    (await dropExpired(client)).flatMap((h) => eventOf(series, h.number, 'expired', h.person)),
  );
}

const CANNOT = 'series-value-missing';

/** The next number for this context: the person's own hold, else one that came back, else the next of the count. */
export async function holdNumber(world: World, person: string, context: NumberContext): Promise<Hold> {
  return transaction(world.db, async (client) => {
    const series = compiled(await lockSeries(client));
    await giveBackExpired(client, series);
    const scope = series.scopeOf(context);
    const wanted = series.write(context, series.series.start);
    if (!wanted.ok) throw new Refused(CANNOT, { because: becauseOf(wanted.faults[0]) });
    // Of several forms open at once each asks for the same number; one that carries another client or month is another
    // form's.
    const mine = (await holdsOf(client, person)).find((number) => {
      const read = series.read(number);
      const again = read?.scope === scope ? series.write(context, read.n) : null;
      return again?.ok === true && again.value === number;
    });
    const number = mine ?? (await nextOf(client, series, context, scope));
    const until = await putHold(client, number, person);
    if (mine === undefined) await recordNumbers(client, eventOf(series, number, 'held', person));
    return { number, until: until.toISOString() };
  });
}

async function nextOf(client: Client, series: CompiledSeries, context: NumberContext, scope: string): Promise<string> {
  const write = (n: number): string => {
    const written = series.write(context, n);
    if (!written.ok) throw new Refused(CANNOT, { because: becauseOf(written.faults[0]) });
    return written.value;
  };
  // Numbers that carry more than their scope come back only as the very same one.
  for (const back of await returnedNumbers(client, scope)) if (write(back.n) === back.number) return back.number;
  let n = (await lastOf(client, series, scope)) + 1;
  while (await isTaken(client, write(n))) n++;
  await writeCounter(client, scope, n);
  return write(n);
}

export async function giveBackNumber(world: World, person: string, number: string): Promise<void> {
  await transaction(world.db, async (client) => {
    const series = compiled(await lockSeries(client));
    if (await dropHold(client, person, number))
      await recordNumbers(client, eventOf(series, number, 'given-back', person));
  });
}

/** How many numbers one written by hand may leave behind it without being asked about each. */
const MOST_PASSED = 2000;

/**
 * A project takes its number, in the transaction that makes it: what others hold or the house keeps is refused. Its own
 * former one it may take again.
 */
export async function claimNumber(
  client: Client,
  person: string,
  number: string,
  folder: string,
  project: string | null = null,
): Promise<void> {
  const series = compiled(await lockSeries(client));
  const other = await heldByOther(client, person, number);
  if (other !== null) throw new Refused('number-held', { number, by: other });
  const why = await reservedFor(client, number, project);
  if (why !== null) throw new Refused('number-reserved', { number, why });
  await dropHold(client, person, number);
  const read = series.read(number);
  if (read === null) return;
  const last = await lastOf(client, series, read.scope);
  // One written by hand beyond the count: those it passes over are told so, and can be offered again.
  const passed = Array.from({ length: Math.min(MOST_PASSED, Math.max(0, read.n - last - 1)) }, (_, i) => last + 1 + i);
  const events: NumberEvent[] = [];
  for (const n of passed) {
    const skipped = rewritten(series, number, n);
    if (skipped !== null)
      events.push({ number: skipped, scope: read.scope, n, what: 'passed-over', person, why: number });
  }
  await recordNumbers(client, [...events, { number, scope: read.scope, n: read.n, what: 'used', person, why: folder }]);
  await writeCounter(client, read.scope, Math.max(last, read.n));
}

/** The same number with another count. */
function rewritten(series: CompiledSeries, number: string, n: number): string | null {
  const digits = /\{n(?::(0+))?\}/.exec(series.series.pattern)?.[1]?.length ?? 1;
  const read = series.read(number);
  if (read === null) return null;
  const was = String(read.n).padStart(digits, '0');
  const now = String(n).padStart(digits, '0');
  const at = number.lastIndexOf(was);
  const other = at < 0 ? null : number.slice(0, at) + now + number.slice(at + was.length);
  return other !== null && series.read(other)?.n === n ? other : null;
}

/** A start that came to nothing: its number is free again. */
export async function freeNumber(client: Client, number: string, why: string): Promise<void> {
  const series = compiled(await lockSeries(client));
  await recordNumbers(client, eventOf(series, number, 'freed', null, why));
}

interface Renumbered {
  readonly project: string;
  readonly person: string | null;
  readonly volume: string;
  /** The folder that stood under the former number. */
  readonly folder: string;
  readonly was: string;
  readonly now: string;
}

/**
 * A project has another number. Its former one stays kept: files, papers and mails of that name may be anywhere, and
 * only a coordinator knows when they are not.
 */
export async function renumber(client: Client, to: Renumbered): Promise<void> {
  const { project, person, volume, folder, was, now } = to;
  const series = compiled(await lockSeries(client));
  const why = `It stood in ${folder} on ${volume}, until its project became ${now}.`;
  await deleteReserved(client, now);
  await keepStood(client, { number: was, why, person, project });
  await recordNumbers(client, eventOf(series, was, 'reserved', person, why));
}

/** What is odd about a number written by hand; `null` where nothing is. */
export async function noteOfNumber(world: World, number: string): Promise<string | null> {
  const made = compileSeries(await readSeries(world.db));
  if (!made.ok || number === '') return null;
  const read = made.value.read(number);
  if (read === null) return `${number} is not of the house's form, ${made.value.series.pattern}.`;
  const last = await lastOf(world.db, made.value, read.scope);
  return read.n > last + 1
    ? `It passes over ${read.n - last - 1} ${read.n - last === 2 ? 'number' : 'numbers'}.`
    : null;
}

export async function saveSeries(world: World, person: string, series: NumberSeries, version: number): Promise<void> {
  compiled(series);
  await transaction(world.db, async (client) => {
    const before = await lockSeries(client);
    if (!(await updateSeries(client, series, version))) throw new Refused('series-changed');
    await recordActivity(
      client,
      'series-changed',
      person,
      null,
      { was: before.pattern, now: series.pattern, resetWas: before.reset, reset: series.reset },
      'numbers',
    );
  });
}

export async function reserveNumber(world: World, person: string, number: string, why: string): Promise<void> {
  try {
    await transaction(world.db, async (client) => {
      const series = compiled(await lockSeries(client));
      await giveBackExpired(client, series);
      if (await isTaken(client, number)) throw new Refused('number-taken', { number });
      await insertReserved(client, number, why, person);
      await recordNumbers(client, eventOf(series, number, 'reserved', person, why));
      await recordActivity(client, 'number-reserved', person, null, { number, why }, `number:${number}`);
    });
  } catch (error) {
    if (sqlFault(error)?.state === '23505') throw new Refused('number-taken', { number });
    throw error;
  }
}

export async function releaseNumber(world: World, person: string, number: string): Promise<void> {
  await transaction(world.db, async (client) => {
    const series = compiled(await lockSeries(client));
    if (!(await deleteReserved(client, number))) throw new Refused('not-reserved', { number });
    await recordNumbers(client, eventOf(series, number, 'released', person));
    await recordActivity(client, 'number-released', person, null, { number }, `number:${number}`);
  });
}

/** Lines shown of one scope, the newest first. */
const MOST_LINES = 500;

/** The series, what comes next, and every counted number of a scope with what became of it. */
export async function numberPage(world: World, asked: string | null): Promise<NumberPage> {
  return transaction(world.db, async (client) => {
    const { version, ...series } = await lockSeries(client);
    const made = compiled(series);
    await giveBackExpired(client, made);
    const now = new Date();
    const context: NumberContext = { year: now.getFullYear(), month: now.getMonth() + 1, client: null, template: null };
    const scope = asked ?? made.scopeOf(context);
    const last = await lastOf(client, made, scope);
    const numbers = await allNumbers(client);
    const inScope = numbers.filter((n) => made.read(n)?.scope === scope);
    const sample = made.write(context, last + 1);
    const like = inScope[0] ?? (sample.ok && made.read(sample.value)?.scope === scope ? sample.value : null);
    const counted =
      like === null
        ? []
        : Array.from({ length: Math.min(MOST_LINES, Math.max(0, last - series.start + 1)) }, (_, i) => last - i);
    const byCount = new Map(inScope.map((n) => [made.read(n)?.n ?? -1, n]));
    const wanted = counted.flatMap((n) => byCount.get(n) ?? (like === null ? [] : (rewritten(made, like, n) ?? [])));
    const known = await knownNumbers(client, wanted);
    const lines = wanted.map((number): NumberLine => {
      const k = known.get(number);
      const state = k?.project
        ? 'project'
        : k?.reserved
          ? 'reserved'
          : k?.held
            ? 'held'
            : k?.what
              ? 'free'
              : 'unexplained';
      return {
        number,
        n: made.read(number)?.n ?? 0,
        state,
        what: k?.what ?? null,
        project: k?.project ?? null,
        by: k?.by ?? null,
        at: k?.at ?? null,
        why: k?.reserved ?? k?.why ?? '',
      };
    });
    const back = (await returnedNumbers(client, scope))[0]?.number;
    return {
      series,
      version,
      next: back ?? (sample.ok && made.read(sample.value)?.scope === scope ? sample.value : null),
      scope,
      scopes: [...new Set([made.scopeOf(context), ...(await scopesThere(client))])],
      lines,
      reserved: await listReserved(client),
    };
  });
}
