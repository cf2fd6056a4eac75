/** Expansion and checking: what a plan is, and the law that a project just made has no findings. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { checkListing } from '../src/check';
import { foldersFrom } from '../src/listing';
import { NO_REGISTERS, type Values } from '../src/name';
import { inMakingOrder, startChanges } from '../src/planners';
import { ProjectRules } from '../src/project';
import {
  compileTemplate,
  diagnoseTemplate,
  expandTemplate,
  type FolderNode,
  fillText,
  idsIn,
  moveFolders,
  normaliseTemplate,
  removeFolders,
  setFolder,
  type Template,
} from '../src/template';
import { SHOW, SHOW_VALUES, STUDIO, templateWithValues } from './templates';

const expand = (values: Values = SHOW_VALUES, template: Template = SHOW) => expandTemplate(template, values, STUDIO);
const codes = (values: Values, template?: Template) =>
  expand(values, template)
    .diagnostics.filter((d) => d.weight === 'refused')
    .map((d) => d.code);

/** What stands on a disk right after a start. */
function made(template: Template, values: Values): string[] {
  const expansion = expandTemplate(template, values, STUDIO);
  const steps = inMakingOrder(startChanges({ template, expansion, project: 'p', started: '' }));
  return (steps.ok ? steps.value : []).map((s) => (s.entry === 'folder' ? `${s.path}/` : s.path));
}

const check = (paths: readonly string[], template = SHOW, values = SHOW_VALUES) =>
  checkListing(
    new ProjectRules({ template, values, registers: STUDIO }),
    foldersFrom(paths.map((p) => ({ path: p.replace(/\/$/, ''), folder: p.endsWith('/'), size: 1, modified: 0 }))),
  );

const found = (paths: readonly string[]) => check(paths).findings.map((f) => [f.rule, f.path]);

describe('expand', () => {
  test('names, numbers, lists, conditions and blocks as the template says', () => {
    const paths = expand()
      .lines.filter((l) => l.made)
      .map((l) => l.path);
    expect(expand().rootName).toBe('26014_QHT_harbour-lights');
    expect(paths).toEqual([
      '',
      '20_survey',
      '20_survey/night-2026-03-02',
      '20_survey/night-2026-03-03',
      '30_design',
      '40_motion',
      ...['west-front', 'clock-tower'].flatMap((surface) => [
        `40_motion/${surface}`,
        ...['s01', 's02', 's03'].flatMap((s) => [
          `40_motion/${surface}/${s}`,
          `40_motion/${surface}/${s}/working`,
          `40_motion/${surface}/${s}/renders`,
        ]),
      ]),
      '42_speech',
      '90_cache',
      '91_quotes',
      '92_permits',
      '92_permits/old',
      '26014_brief.md',
    ]);
  });

  test('a folder left out by its condition leaves its number free', () => {
    const paths = expand({ ...SHOW_VALUES, speech: 'none' }).lines.map((l) => l.path);
    expect(paths).not.toContain('42_speech');
    expect(paths).toContain('43_extras');
  });

  test('identities are the node and its entries, whatever the names', () => {
    const keys = (values: Values) => expand(values).lines.map((l) => l.key);
    expect(keys(SHOW_VALUES)).toEqual(keys({ ...SHOW_VALUES, title: 'Other', client: 'OTM', number: '26099' }));
    expect(keys(SHOW_VALUES)).toContain('working@surface=West Front&scene=s02');
    expect(new Set(keys(SHOW_VALUES)).size).toBe(keys(SHOW_VALUES).length);
  });

  test('a list within another may have entries of its own for each', () => {
    const paths = expand({ ...SHOW_VALUES, scenes: { 'West Front': 's01..s02', 'clock-tower': ['s09'] } }).lines.map(
      (l) => l.path,
    );
    expect(paths.filter((p) => /motion\/[^/]+\/s\d\d$/.test(p))).toEqual([
      '40_motion/west-front/s01',
      '40_motion/west-front/s02',
      '40_motion/clock-tower/s09',
    ]);
  });

  test.each<[string, Values, string]>([
    ['an unknown client', { ...SHOW_VALUES, client: 'ZZZ' }, 'client-unknown'],
    ['a missing title', { ...SHOW_VALUES, title: '' }, 'value-missing'],
    ['a title of 300 letters', { ...SHOW_VALUES, title: 'a'.repeat(300) }, 'value-too-long'],
    ['a title nobody can fold', { ...SHOW_VALUES, title: 'Мост' }, 'value-unfoldable'],
    ['a title of emoji alone', { ...SHOW_VALUES, title: '🏮🏮' }, 'value-empty'],
    ['a right-to-left mark', { ...SHOW_VALUES, number: '26014\u200f' }, 'value-characters'],
    ['a number that leaves the folder', { ...SHOW_VALUES, number: '../26014' }, 'value-characters'],
    ['31 February', { ...SHOW_VALUES, nights: '2026-02-31' }, 'date-bad'],
    ['a range without end', { ...SHOW_VALUES, scenes: 's01..s999999' }, 'too-many-entries'],
    ['a range backwards', { ...SHOW_VALUES, scenes: 's09..s01' }, 'range-bad'],
    ['surfaces that fold to one name', { ...SHOW_VALUES, surfaces: ['West Front', 'west-front'] }, 'siblings-alike'],
    ['a banned word', { ...SHOW_VALUES, title: 'The final show' }, 'banned-word-in-name'],
    ['an unknown choice', { ...SHOW_VALUES, speech: 'loud' }, 'choice-unknown'],
  ])('%s is said, never thrown', (_what, values, code) => {
    expect(codes(values)).toContain(code);
  });

  test('a path over its budget is said at its line, the prefix counted in', () => {
    const deep = expandTemplate(SHOW, SHOW_VALUES, STUDIO, { prefix: 'x'.repeat(200) });
    expect(deep.longest).toBe(200 + '26014_QHT_harbour-lights/40_motion/clock-tower/s01/working'.length);
    expect(deep.diagnostics.filter((d) => d.code === 'path-over-budget').map((d) => d.line)).toContain(
      'working@surface=West Front&scene=s01',
    );
  });

  test('faults of the template itself are said at their node', () => {
    const broken = normaliseTemplate({
      ...SHOW,
      root: {
        ...SHOW.root,
        folders: [
          { id: 'a', name: '{title' },
          { id: 'b', name: 'x', conventions: ['none'] },
          { id: 'c', block: 'gone' },
          { id: 'd', name: 'a:b' },
          { id: 'e', name: 'l', onePer: { list: 'title', as: 't' } },
        ],
      },
    } as never);
    expect(expand(SHOW_VALUES, broken).diagnostics.map((d) => [d.node, d.code])).toEqual(
      expect.arrayContaining([
        ['a', 'slot-unclosed'],
        ['b', 'convention-unknown'],
        ['c', 'block-unknown'],
        ['d', 'name-forbidden'],
        ['e', 'list-unknown'],
      ]),
    );
  });

  test('a block inside itself ends', () => {
    const endless = normaliseTemplate({
      ...SHOW,
      blocks: [
        { id: 'paperwork', folders: [{ id: 'q', name: 'quotes', folders: [{ id: 'again', block: 'paperwork' }] }] },
      ],
    } as never);
    expect(expand(SHOW_VALUES, endless).diagnostics).toEqual(
      expect.arrayContaining([expect.objectContaining({ code: 'block-in-itself' })]),
    );
  });

  test('a thousand levels are answered', () => {
    let folder: { name: string; folders?: unknown[] } = { name: 'deep' };
    for (let i = 0; i < 1000; i++) folder = { name: `l${i}`, folders: [folder] };
    expect(
      expand(
        SHOW_VALUES,
        normaliseTemplate({ ...SHOW, root: { ...SHOW.root, folders: [folder] } } as never),
      ).diagnostics.map((d) => d.code),
    ).toContain('too-deep');
  });

  test('the compiled template gives what a fresh one gives', () => {
    const expander = compileTemplate(SHOW, STUDIO);
    expander.expand({ ...SHOW_VALUES, surfaces: ['a'] });
    expect(expander.expand(SHOW_VALUES).lines).toEqual(expand().lines);
  });

  test('text is filled where a field is known, and left alone elsewhere', () => {
    expect(
      fillText(
        '{title} for {client.name}: {nobody} {surfaces} body{color:red}',
        expand().values.values,
        SHOW.fields,
        expand().registers,
      ),
    ).toBe('Harbour Lights for Quillhaven Harbour Trust: {nobody} West Front, clock-tower body{color:red}');
  });
});

describe('check', () => {
  const clean = made(SHOW, SHOW_VALUES);
  const working = '40_motion/west-front/s02/working';

  test('law: a project just made from any template has no findings', () => {
    let checked = 0;
    fc.assert(
      fc.property(templateWithValues, ({ template, values }) => {
        if (expandTemplate(template, values, STUDIO).diagnostics.some((d) => d.weight === 'refused')) return;
        checked++;
        expect(check(made(template, values), template, values).findings).toEqual([]);
      }),
      { seed: 20262, numRuns: 300 },
    );
    expect(checked).toBeGreaterThan(150);
  });

  test('law: without one planned folder, exactly that folder is missing', () => {
    fc.assert(
      fc.property(templateWithValues, fc.nat(), ({ template, values }, pick) => {
        if (expandTemplate(template, values, STUDIO).diagnostics.some((d) => d.weight === 'refused')) return;
        const paths = made(template, values);
        const folders = paths.filter((p) => p.endsWith('/') && p !== '.nesting/');
        const gone = folders[pick % Math.max(1, folders.length)];
        if (gone === undefined) return;
        expect(
          check(
            paths.filter((p) => !p.startsWith(gone)),
            template,
            values,
          ).findings.map((f) => [f.rule, `${f.path}/`]),
        ).toEqual([['missing-folder', gone]]);
      }),
      { seed: 20263, numRuns: 200 },
    );
  });

  test.each([
    ['a right name', `${working}/26014_west-front_s02_anim_BO_v003.usda`, []],
    ['a right name among older ones', `${working}/older/26014_west-front_s02_anim_BO_v001.usda`, []],
    ['anything in a free folder', '90_cache/a b/WHATEVER', []],
    ['a note in a folder without a rule', '30_design/notes of monday.txt', []],
    ['another project', `${working}/26009_west-front_s02_anim_BO_v003.usda`, ['foreign-project']],
    ['another project and more', `${working}/26009_west-front_s02_anim_BO_v3.usda`, ['name-mismatch']],
    ["another folder's scene", `${working}/26014_west-front_s03_anim_BO_v003.usda`, ['misplaced-file']],
    ['a loose file', 'todo.txt', ['loose-file']],
    ['a file beside folders', '40_motion/todo.txt', ['loose-file']],
    ['a folder nobody planned', '40_motion/clock tower/x.usda', ['unplanned-folder']],
    ['a wrong family', `${working}/26014_west-front_s02_v003.0001.exr`, ['misplaced-file']],
  ])('%s', (_what, path, rules) => {
    expect(check([...clean, path]).findings.map((f) => f.rule)).toEqual(rules);
  });

  test('one cause, one finding: what lies in an unplanned folder is not judged', () => {
    expect(found([...clean, '40_mtoion/', '40_mtoion/west/', '40_mtoion/west/bad name.usda'])).toEqual([
      ['unplanned-folder', '40_mtoion'],
    ]);
  });

  test('frames of a sequence with one fault are one finding, and its identity is the same with one frame more', () => {
    const frame = (n: number) =>
      `40_motion/west-front/s01/renders/26014_west-front_s01_V003.${String(n).padStart(4, '0')}.exr`;
    const some = check([...clean, ...[3, 1, 2].map(frame)]).findings;
    expect(some).toMatchObject([
      { rule: 'version-style', path: frame(1), related: [frame(2), frame(3)], params: { frames: 3 } },
    ]);
    expect(check([...clean, frame(7)]).findings[0]?.id).toBe(some[0]?.id);
  });

  test('findings come in one order, whatever order folders come in', () => {
    const rules = new ProjectRules({ template: SHOW, values: SHOW_VALUES, registers: STUDIO });
    const listing = foldersFrom(
      [...clean, 'b.txt', 'a.txt', `${working}/x.usda`].map((p) => ({
        path: p.replace(/\/$/, ''),
        folder: p.endsWith('/'),
        size: 0,
        modified: 0,
      })),
    );
    expect(checkListing(rules, [...listing].reverse())).toEqual(checkListing(rules, listing));
  });

  test('a weight is set by the template, and a rule can be off', () => {
    const template: Template = { ...SHOW, checks: { rules: { 'loose-file': 'off', 'unplanned-folder': 'note' } } };
    expect(check([...clean, 'todo.txt', 'stray/'], template).findings).toMatchObject([
      { rule: 'unplanned-folder', weight: 'note' },
    ]);
  });

  test('an identity does not hang on the edition, the weight or the words', () => {
    const one = check([...clean, 'todo.txt']).findings[0]?.id;
    expect(
      check([...clean, 'todo.txt'], { ...SHOW, edition: 9, checks: { rules: { 'loose-file': 'must' } } }).findings[0]
        ?.id,
    ).toBe(one);
  });
});

describe('what is remembered from letter to letter', () => {
  const acts = fc.array(
    fc.tuple(
      fc.constantFrom('name', 'number', 'remove', 'move', 'accepts', 'per', 'when', 'field', 'value', 'budget'),
      fc.nat(40),
      fc.nat(40),
    ),
    { minLength: 1, maxLength: 10 },
  );
  const anew = <T>(thing: T): T => JSON.parse(JSON.stringify(thing)) as T;

  test('gives the very plan and the very faults that working it all out again gives', () => {
    fc.assert(
      fc.property(templateWithValues, acts, (start, done) => {
        let { template, values } = start;
        for (const [kind, pick, other] of done) {
          const ids = [...idsIn(template.root)].filter((id) => id.startsWith('n'));
          const id = ids[pick % (ids.length || 1)] ?? 'root';
          const set = (change: Partial<FolderNode>) => ({ ...template, root: setFolder(template.root, id, change) });
          if (kind === 'name') template = set({ name: ['written', '{scene}', 'final', '{oops', 'a:b'][other % 5] });
          else if (kind === 'number') template = set({ number: other % 9 });
          else if (kind === 'remove') template = { ...template, root: removeFolders(template.root, [id]) };
          else if (kind === 'move')
            template = {
              ...template,
              root: moveFolders(template.root, [id], { parent: ids[other % (ids.length || 1)] ?? 'root', index: 0 }),
            };
          else if (kind === 'accepts') template = set({ accepts: other % 2 ? ['nothing'] : [] });
          else if (kind === 'per')
            template = set({
              onePer: other % 3 ? { list: ['scenes', 'nights', 'gone'][other % 3] as string, as: 'scene' } : undefined,
            });
          else if (kind === 'when')
            template = set({ onlyWhen: { field: 'speech', is: other % 2 ? 'spoken' : 'none' } });
          else if (kind === 'field')
            template = {
              ...template,
              fields: template.fields.map((f, i) => (i === 0 ? { ...f, max: 3 + other } : f)) as Template['fields'],
            };
          else if (kind === 'value') values = { ...values, scenes: [`s${other}`] };
          else template = { ...template, checks: { pathBudget: 20 + other } };
          const kept = compileTemplate(template, STUDIO).expand(values, { remember: true });
          const fresh = compileTemplate(anew(template), anew(STUDIO)).expand(anew(values));
          expect(kept.lines.map((l) => [l.key, l.path, l.made, l.depth, l.mark, l.rules])).toEqual(
            fresh.lines.map((l) => [l.key, l.path, l.made, l.depth, l.mark, l.rules]),
          );
          expect(kept.diagnostics).toEqual(fresh.diagnostics);
          expect([kept.longest, kept.folders, kept.files]).toEqual([fresh.longest, fresh.folders, fresh.files]);
          expect(diagnoseTemplate(template, STUDIO)).toEqual(diagnoseTemplate(anew(template), anew(STUDIO)));
        }
      }),
      { numRuns: 300 },
    );
  });

  test('a name that cannot be used is told whatever the values, in a block and in a list too', () => {
    const broken: Template = {
      ...SHOW,
      root: setFolder(setFolder(SHOW.root, 'working', { name: '{scene:kebab' }), 'cache', { name: '{client.colour}' }),
      blocks: [{ id: 'paperwork', folders: [{ id: 'q', name: '{title:000}' }] }],
    };
    expect(diagnoseTemplate(broken, STUDIO).map((d) => d.node)).toEqual(['working', 'cache', 'papers/q']);
    expect(diagnoseTemplate(SHOW, STUDIO)).toEqual([]);
  });
});

describe('a list within another, given by the entries of that one', () => {
  const template = normaliseTemplate({
    format: 'nesting/template',
    formatVersion: 1,
    name: 'T',
    fields: [
      { key: 'shots', type: 'list', of: { type: 'text', like: 'sh00' }, within: 'scenes' },
      { key: 'scenes', type: 'list', of: { type: 'text', like: 's00' } },
      { key: 'takes', type: 'list', of: { type: 'text' }, within: 'sounds' },
      {
        key: 'sounds',
        type: 'list',
        of: { type: 'choice', options: [{ code: 'mus', label: 'Music' }, { code: 'atm' }] },
      },
      { key: 'lamps', type: 'list', of: { type: 'text' }, within: 'places' },
      { key: 'places', type: 'list', of: { type: 'text' } },
    ],
    conventions: [],
    root: {
      name: 'p',
      folders: [
        {
          name: '{scene}',
          onePer: { list: 'scenes', as: 'scene' },
          folders: [{ name: '{shot}', onePer: { list: 'shots', as: 'shot' } }],
        },
        {
          name: '{sound}',
          onePer: { list: 'sounds', as: 'sound' },
          folders: [{ name: '{take}', onePer: { list: 'takes', as: 'take' } }],
        },
        {
          name: '{place:kebab}',
          onePer: { list: 'places', as: 'place' },
          folders: [{ name: '{lamp}', onePer: { list: 'lamps', as: 'lamp' } }],
        },
      ],
    },
  } as never);
  const pathsOf = (values: Values) => {
    const { lines, diagnostics } = expandTemplate(template, values, NO_REGISTERS);
    return {
      paths: lines.map((l) => l.path).sort(),
      faults: diagnostics.filter((d) => d.code !== 'list-empty').map((d) => d.code),
    };
  };
  const outer = { scenes: ['s01', 's02'], sounds: ['mus', 'atm'], places: ['West Front', 'Old Mill'] };
  const right = pathsOf({
    ...outer,
    shots: { s01: ['sh01'], s02: ['sh02'] },
    takes: { mus: ['a'] },
    lamps: { 'West Front': ['x'], 'Old Mill': ['y'] },
  });

  test('keys are read as entries are: in another form, by their label, with a slip', () => {
    expect(right.faults).toEqual([]);
    expect(right.paths).toContain('s02/sh02');
    expect(right.paths).toContain('old-mill/y');
    expect(
      pathsOf({
        ...outer,
        shots: { S1: ['sh01'], 2: ['sh02'] },
        takes: { Music: ['a'] },
        lamps: { 'west-front': ['x'], 'Old Mlil': ['y'] },
      }),
    ).toEqual(right);
  });

  test('a key that fits no entry is a fault, and never lost without a word', () => {
    const { paths, faults } = pathsOf({ ...outer, shots: { s01: ['sh01'], s09: ['sh02'] } });
    expect(faults).toEqual(['outer-unknown']);
    expect(paths).toContain('s01/sh01');
  });
});
