/** What must not matter does not: another way of writing one name, another form of one listing. */
import { describe, expect, test } from '@jest/globals';
import { damaged, drawDamages } from '../../../corpus/damaged-disk';
import { goodDisk, listingOf, rules as rulesOf } from '../../../corpus/good-disk';
import { habitNames, habitRules } from '../../../corpus/habits/names';
import { checkListing, type RuleCode } from '../src/check';
import { valueAt } from '../src/element';
import { alignListing, foldersInText, type PathLine } from '../src/listing';
import { printListing } from '../src/listing/print';
import type { ListingFormat } from '../src/listing/text';
import { explainName } from '../src/name';
import { rootPlanOf } from '../src/project';

describe('one name written another way', () => {
  const rules = habitRules();
  const names = habitNames();
  const rights = [
    ...new Map(names.flatMap((n) => (n.right === null ? [] : [[`${n.convention} ${n.right}`, n]]))).values(),
  ];
  const best = (convention: string, name: string) => {
    const { compiled, context } = valueAt(rules, convention);
    return explainName(compiled, name, context).suggestions[0]?.name ?? null;
  };

  test.each([
    ['in capitals', (name: string) => name.toUpperCase()],
    ['with its separators doubled', (name: string) => name.replace(/[_-]/g, '$&$&')],
    ['with blanks round its separators', (name: string) => name.replace(/_/g, ' _ ')],
    [
      'in full width',
      (name: string) => name.replace(/[0-9A-Za-z_]/g, (ch) => String.fromCharCode(ch.charCodeAt(0) + 0xfee0)),
    ],
  ])('%s it is the same right name', (_, change) => {
    expect(rights.length).toBeGreaterThan(60);
    for (const { convention, right } of rights) {
      const other = change(right ?? '');
      if (other !== right) expect([other, best(convention, other)]).toEqual([other, right]);
    }
  });

  test('a word that nobody knows is never dropped by what is sure, wherever it stands', () => {
    let tried = 0;
    for (const { convention, right } of rights) {
      const name = right ?? '';
      const dot = name.lastIndexOf('.');
      const stem = name.slice(0, dot).split('_');
      for (const word of ['XYZ', 'zorb', 'b4', 'x'])
        for (let at = 0; at <= stem.length; at++)
          for (const joiner of ['_', ' ', '-']) {
            const [before, after] = [stem.slice(0, at).join('_'), stem.slice(at).join('_')];
            const added = [before, word].filter((p) => p !== '').join(joiner);
            const broken = `${[added, after].filter((p) => p !== '').join(at === 0 ? joiner : '_')}${name.slice(dot)}`;
            const { compiled, context } = valueAt(rules, convention);
            const [first] = explainName(compiled, broken, context).suggestions;
            tried++;
            if (first?.confidence === 'sure')
              expect([broken, first.name.toLowerCase()]).toEqual([broken, expect.stringContaining(word.toLowerCase())]);
          }
    }
    expect(tried).toBeGreaterThan(2000);
  });

  test('composed or taken apart, the same name is proposed', () => {
    const accented = names.filter((n) => n.broken.normalize('NFD') !== n.broken.normalize('NFC'));
    expect(accented.length).toBeGreaterThan(6);
    for (const { convention, broken } of accented)
      expect(best(convention, broken.normalize('NFD'))).toBe(best(convention, broken.normalize('NFC')));
  });
});

describe('one tree in another form', () => {
  const { rules: of } = rulesOf();
  /** What a list of names alone cannot tell. */
  const BY_FACTS: ReadonlySet<RuleCode> = new Set(['empty-file', 'over-limit', 'date-mismatch', 'empty-folder']);
  const FORMS: readonly ListingFormat[] = ['paths', 'outline', 'tree', 'csv', 'json'];

  test.each([0, 1, 2, 3, 4, 5])('a check of it and of every printed form agree (%i)', (seed) => {
    const disk = seed === 0 ? goodDisk(of) : damaged(of, drawDamages(15, seed), seed).disk;
    // A form of lines holds no name with a line break or a blank at its edge.
    for (const path of disk.keys()) if (/[\n\r]|(?:^|\/)\s|\s(?:\/|$)/.test(path)) disk.delete(path);
    const listings = listingOf(disk);
    const lines = [...disk]
      .map(([path, e]): PathLine => ({ path, folder: e.folder, size: e.size, modified: e.modified }))
      .sort((a, b) => (a.path.split('/').join('\0') < b.path.split('/').join('\0') ? -1 : 1));
    const told = (all: ReturnType<typeof checkListing>, form: ListingFormat) =>
      all.findings
        .filter((f) => ['csv', 'json'].includes(form) || !BY_FACTS.has(f.rule))
        .map((f) => `${f.rule} ${f.path} ${f.related.length}`)
        .sort();
    for (const form of FORMS) {
      const { folders } = alignListing(foldersInText(printListing(lines, form)), rootPlanOf(of));
      expect([form, told(checkListing(of, folders), form)]).toEqual([form, told(checkListing(of, listings), form)]);
    }
  });
});
