/** Folders without a template: the template that fits, the values their names carry, what they have otherwise. */
import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { parseTemplate } from '../../contract/src/index';
import { stateOf } from '../src/check';
import type { Values } from '../src/name';
import { ProjectRules } from '../src/project';
import { expandTemplate, fitTemplate, folderTree, type Template } from '../src/template';
import { REGISTERS } from './names';

const load = (name: string): Template => {
  const parsed = parseTemplate(readFileSync(`demo/templates/${name}.nest.json`, 'utf8'));
  if (!parsed.ok) throw new Error(parsed.faults[0]);
  return parsed.value;
};
const templates = ['facade-show', 'dome-film', 'window-piece', 'sound-only-walk']
  .map((n) => {
    try {
      return load(n);
    } catch {
      return null;
    }
  })
  .filter((t) => t !== null);
const facade = load('facade-show');
const registers = { ...REGISTERS, clients: [{ code: 'QHT', name: 'Q' }], people: [{ initials: 'IT', name: 'I' }] };
const values: Values = {
  number: '26014',
  title: 'harbour-lights',
  client: 'QHT',
  person: 'IT',
  date: '2026-11-27',
  surfaces: ['clock-tower', 'west-front'],
  scenes: { 'clock-tower': ['s01'], 'west-front': ['s01', 's02'] },
  stands: ['pier', 'mill-roof'],
  nights: ['2026-03-02'],
  speech: 'spoken',
  languages: ['nl'],
};
const foldersOf = (template: Template, v: Values): string[] =>
  expandTemplate(template, v, registers)
    .lines.filter((l) => l.kind === 'folder' && l.made && l.path !== '')
    .map((l) => l.path);
const ROOT = '26014_QHT_harbour-lights';

describe('fitting', () => {
  test('a folder made by a template fits it wholly, and says its values', () => {
    const fit = fitTemplate(facade, registers, ROOT, folderTree(foldersOf(facade, values)));
    expect(fit).toMatchObject({ score: 1, missing: [], unplanned: [], otherwise: [], adjusted: {} });
    expect(fit.values).toMatchObject({
      number: '26014',
      client: 'QHT',
      title: 'harbour-lights',
      surfaces: values.surfaces,
      scenes: values.scenes,
      stands: ['mill-roof', 'pier'],
      nights: ['2026-03-02'],
      languages: ['nl'],
      speech: 'spoken',
    });
  });

  test('of several templates its own fits best', () => {
    expect(templates.length).toBeGreaterThan(2);
    for (const template of templates) {
      const fits = templates
        .map((t) => ({
          id: t.id,
          score: fitTemplate(
            t,
            registers,
            'x',
            folderTree(foldersOf(template, { ...values, domes: ['a'], walks: ['a'] })),
          ).score,
        }))
        .sort((a, b) => b.score - a.score);
      expect(fits[0]?.id).toBe(template.id);
    }
  });

  test('names by meaning, lacking and unknown folders: each is said, and the project’s rules have them as they are', () => {
    const paths = foldersOf(facade, values)
      .map((p) => p.replace(/^20_survey/, 'Survey').replace(/^30_design/, '3 - DESIGN'))
      .filter((p) => !p.startsWith('90_cache'));
    const fit = fitTemplate(
      facade,
      registers,
      'some freelancer’s job',
      folderTree([...paths, 'Survey/misc', 'misc', 'misc/deeper']),
    );
    expect(fit.otherwise).toEqual(
      expect.arrayContaining([
        { path: 'Survey', planned: '20_survey' },
        { path: '3 - DESIGN', planned: '30_design' },
      ]),
    );
    expect([fit.missing, fit.unplanned]).toEqual([['90_cache'], expect.arrayContaining(['misc', 'Survey/misc'])]);
    expect(fit.values.number).toBeUndefined();
    const rules = new ProjectRules({
      template: { ...facade, adjusted: fit.adjusted },
      values: { ...fit.values, number: '26014' },
      registers,
    });
    expect(paths.map((p) => stateOf(rules, p).kind)).toEqual(paths.map(() => 'planned'));
  });

  test('given values stand over what names say', () => {
    expect(fitTemplate(facade, registers, ROOT, folderTree([]), { number: '1' }).values.number).toBe('1');
  });

  test('law: whatever is taken away or added, the fit never leaves 0 to 1, and every folder is the project’s by the rules found, or in one said to be unplanned', () => {
    const all = foldersOf(facade, values);
    fc.assert(
      fc.property(
        fc.subarray(all),
        fc.array(fc.tuple(fc.constantFrom('', ...all), fc.constantFrom('misc', 'old stuff', 'Survey', 's99')), {
          maxLength: 5,
        }),
        (kept, more) => {
          const paths = [
            ...new Set(
              [...kept, ...more.map(([above, name]) => (above === '' ? name : `${above}/${name}`))].flatMap((p) =>
                p.split('/').map((_, i, parts) => parts.slice(0, i + 1).join('/')),
              ),
            ),
          ];
          const fit = fitTemplate(facade, registers, ROOT, folderTree(paths));
          expect(fit.score >= 0 && fit.score <= 1).toBe(true);
          const below = paths.filter((p) => fit.unplanned.some((u) => p === u || p.startsWith(`${u}/`)));
          const rules = new ProjectRules({
            template: { ...facade, adjusted: fit.adjusted },
            values: { number: '26014', ...fit.values },
            registers,
          });
          for (const path of paths)
            if (!below.includes(path))
              expect([path, stateOf(rules, path).kind]).toEqual([path, expect.stringMatching(/^(planned|free)$/)]);
        },
      ),
      { numRuns: 60 },
    );
  });
});
