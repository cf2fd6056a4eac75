/** A template on paper, in Markdown and as an outline that gives the same tree. */
import { readFileSync } from 'node:fs';
import { expect, test } from '@jest/globals';
import { parseTemplate } from '../../contract/src/index';
import { parseListing } from '../src/listing';
import { NO_REGISTERS } from '../src/name';
import { templateMarkdown, templateOutline, templatePage } from '../src/report';

const parsed = parseTemplate(readFileSync('demo/templates/dome-film.nest.json', 'utf8'));
if (!parsed.ok) throw new Error('template');
const template = parsed.value;

test('every folder with its purpose, every convention with an example', () => {
  const page = templatePage(template, NO_REGISTERS);
  expect(page.folders.length).toBeGreaterThan(10);
  expect(page.folders.some((f) => f.notes.some((n) => n.startsWith('one for each of')))).toBe(true);
  expect(page.conventions.map((c) => c.name)).toEqual(template.conventions.map((c) => c.name));
});

test('Markdown cannot be broken out of by a name', () => {
  const odd = { ...template, name: 'A *b* [c](d)', root: { ...template.root, name: 'x`y' } };
  const text = templateMarkdown(odd, NO_REGISTERS);
  expect(text).toContain('# A \\*b\\* \\[c\\](d)');
  expect(text).toContain('`` x`y ``');
});

test('the outline is a listing of the same folders', () => {
  const page = templatePage(template, NO_REGISTERS);
  expect(parseListing(templateOutline(template, NO_REGISTERS)).map((l) => l.path.split('/').length - 1)).toEqual(
    page.folders.map((f) => f.depth),
  );
});
