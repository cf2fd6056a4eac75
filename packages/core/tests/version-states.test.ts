/** Versions in states, as offices issue plans: A as a draft, for comment, issued; then B as a draft again. */
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { rootIdOf } from '../src/change';
import { checkListing } from '../src/check';
import { compareSides, itemsOfSide } from '../src/compare';
import type { FolderListing } from '../src/listing';
import { NO_REGISTERS, nextVersion, type Values } from '../src/name';
import { carryOver, namesPlanned, PLAIN_WAY, type VersionWay } from '../src/planners';
import { ProjectRules } from '../src/project';
import { normaliseTemplate } from '../src/template';

const STATES = ['draft', 'comment', 'issued'] as const;
const template = normaliseTemplate({
  format: 'nesting/template',
  formatVersion: 1,
  name: 'Plans',
  fields: [],
  conventions: [
    {
      id: 'plan',
      name: 'Plan',
      pattern: '{number}_{part:kebab}_{version:A}_{state}.{ext}',
      families: ['plan'],
      fields: [{ key: 'state', type: 'choice', options: STATES.map((code) => ({ code })), ofVersion: true }],
    },
  ],
  registers: { families: [{ name: 'plan', extensions: ['dxf'] }] },
  root: {
    name: '{number}',
    folders: [
      {
        id: 'plans',
        name: 'plans',
        accepts: ['plan'],
        conventions: ['plan'],
        older: { folder: 'superseded', keep: 1 },
      },
    ],
  },
});
const rulesOf = (values: Values) =>
  new ProjectRules({ template, values, registers: NO_REGISTERS, now: Date.UTC(2026, 3, 20) });
const [old, next] = [rulesOf({ number: '26011' }), rulesOf({ number: '27003' })];

const plan = (version: string, state: string, number = '26011') => `${number}_stage-floor_${version}_${state}.dxf`;
const listings = (top: readonly string[], superseded: readonly string[] = []): FolderListing[] => {
  const files = (names: readonly string[]) => names.map((name, i) => ({ name, size: 10 + i, modified: i }));
  return [
    { path: '', folders: ['plans'], files: [], others: [] },
    { path: 'plans', folders: ['superseded'], files: files(top), others: [] },
    { path: 'plans/superseded', folders: [], files: files(superseded), others: [] },
  ];
};

const found = (top: readonly string[], superseded: readonly string[] = []) =>
  checkListing(old, listings(top, superseded)).findings.map(({ rule, path }) => [rule, path]);

test('one version in two states is no version twice: the state before is superseded, and so is a version before', () => {
  expect(found([plan('A', 'issued')])).toEqual([]);
  expect(found([plan('A', 'draft'), plan('A', 'issued')])).toEqual([
    ['old-version-on-top', `plans/${plan('A', 'draft')}`],
  ]);
  expect(found([plan('A', 'issued'), plan('B', 'draft')])).toEqual([
    ['old-version-on-top', `plans/${plan('A', 'issued')}`],
  ]);
  // One version is kept, in as many states as it was in.
  expect(found([plan('B', 'draft')], [plan('A', 'draft'), plan('A', 'comment'), plan('A', 'issued')])).toEqual([]);
  // Nothing is missing between A and B, whatever states were skipped.
  expect(found([plan('B', 'issued')], [plan('A', 'draft')])).toEqual([]);
});

test('the next version is after all states of the one before', () => {
  const [by] = old.conventionsIn(old.planned('plans') as never);
  const after = (names: readonly string[], state = 'draft') =>
    nextVersion(by?.strict as never, { number: '26011', part: 'stage-floor', state, ext: 'dxf' }, names);
  expect(after([plan('A', 'issued')])).toBe('B');
  expect(after([plan('A', 'draft'), plan('B', 'comment'), plan('A', 'issued')])).toBe('C');
  // The same one goes on: a draft is issued. What was issued is not issued again, nor is it a draft any more.
  expect(after([plan('A', 'draft')], 'issued')).toBe('A');
  expect(after([plan('A', 'issued'), plan('B', 'draft')], 'comment')).toBe('B');
  expect(after([plan('A', 'draft'), plan('A', 'issued')], 'issued')).toBe('B');
  expect(after([], 'issued')).toBe('A');
});

function carried(top: readonly string[], version: VersionWay, isAll = false): string[] {
  const { items } = carryOver({
    ...{ source: old, target: next, listings: listings(top), picked: {}, revision: null, startersCome: false },
    way: { ...PLAIN_WAY, version, folders: isAll ? { plans: 'everything' } : {} },
    documents: [],
    read: () => 'unreadable',
    roots: { source: [], target: [] },
    rootOf: () => rootIdOf('source'),
    there: namesPlanned(next, false),
  });
  return items.filter(({ comes, clash }) => comes && !clash).map(({ to }) => to.slice('plans/'.length));
}

test('carried over, a version that begins anew begins with its first state; what is kept keeps it', () => {
  const top = [plan('A', 'issued'), plan('B', 'draft'), plan('B', 'comment')];
  expect(carried(top, 'restart')).toEqual([plan('A', 'draft', '27003')]);
  expect(carried(top, 'keep')).toEqual([plan('B', 'comment', '27003')]);
  // With all that was before it, it is its history that comes.
  expect(carried(top, 'restart', true)).toEqual([
    plan('A', 'issued', '27003'),
    plan('B', 'draft', '27003'),
    plan('B', 'comment', '27003'),
  ]);
});

test('whatever comes of a chain, no two get one name, and the newest alone is always A in its first state', () => {
  const versions = fc.uniqueArray(
    fc.tuple(fc.constantFrom('A', 'B', 'C', 'D'), fc.constantFrom(...STATES)).map(([v, s]) => plan(v, s)),
    { minLength: 1 },
  );
  fc.assert(
    fc.property(versions, (top) => {
      expect(carried(top, 'restart')).toEqual([plan('A', 'draft', '27003')]);
      const all = carried(top, 'restart', true);
      expect(new Set(all).size).toBe(top.length);
    }),
  );
});

test('side by side, a plan in another state is the same plan, changed', () => {
  const side = (rules: ProjectRules, top: readonly string[]) => itemsOfSide(rules, listings(top), true);
  const rows = compareSides({
    left: side(old, [plan('A', 'issued')]),
    right: side(next, [plan('A', 'draft', '27003')]),
    sameContent: () => false,
    contentOf: (which) => which,
  });
  expect(rows.map(({ state, evidence }) => [state, evidence])).toEqual([['changed', 'version']]);
});
