/**
 * SARIF as the standard's types have it: the compiler holds what we print against them, every value, every word of an
 * enumeration, nothing beyond.
 */
import { expect, test } from '@jest/globals';
import ts from 'typescript';
import { damaged } from '../../../corpus/damaged-disk';
import { DISK_DAMAGES } from '../../../corpus/disk-damages';
import { checkDisk, rules } from '../../../corpus/good-disk';
import { outcomeOf } from '../src/check';
import { findingsSarif } from '../src/report';

const NAME = '/work/printed.ts';

function complaints(printed: string): string[] {
  const text = `import type { Log } from 'sarif';\nexport const log: Log = ${printed};\n`;
  const options: ts.CompilerOptions = {
    strict: true,
    noEmit: true,
    target: ts.ScriptTarget.ES2022,
    module: ts.ModuleKind.ESNext,
    moduleResolution: ts.ModuleResolutionKind.Bundler,
    types: [],
    skipLibCheck: true,
    exactOptionalPropertyTypes: true,
  };
  const host = ts.createCompilerHost(options);
  const name = NAME.replace('/work', process.cwd());
  const own = host.getSourceFile.bind(host);
  host.getSourceFile = (file, ...rest) =>
    file === name ? ts.createSourceFile(file, text, ts.ScriptTarget.ES2022) : own(file, ...rest);
  const exists = host.fileExists.bind(host);
  host.fileExists = (file) => file === name || exists(file);
  return ts
    .getPreEmitDiagnostics(ts.createProgram([name], options, host))
    .map((d) => ts.flattenDiagnosticMessageText(d.messageText, '\n'));
}

test('what is printed for findings of every rule is a log of the standard', () => {
  const { rules: of } = rules();
  const findings = DISK_DAMAGES.flatMap((damage) => checkDisk(of, damaged(of, [damage], 1).disk));
  expect(new Set(findings.map((f) => f.rule)).size).toBeGreaterThan(33);
  const printed = findingsSarif(outcomeOf([], findings));
  expect(complaints(printed)).toEqual([]);
  // The compiler is no rubber stamp.
  expect(complaints(printed.replaceAll('"level": "error"', '"level": "fatal"'))).not.toEqual([]);
  expect(complaints(printed.replace('"ruleId"', '"rule"'))).not.toEqual([]);
  const log = JSON.parse(printed) as {
    runs: {
      tool: { driver: { rules: { id: string }[] } };
      results: {
        ruleId: string;
        locations: { physicalLocation: { artifactLocation: { uri: string } } }[];
        partialFingerprints: Record<string, string>;
      }[];
    }[];
  };
  const run = log.runs[0];
  const ids = run?.tool.driver.rules.map((r) => r.id) ?? [];
  expect(new Set(ids).size).toBe(ids.length);
  for (const result of run?.results ?? []) {
    expect(ids).toContain(result.ruleId);
    expect(result.locations[0]?.physicalLocation.artifactLocation.uri).toMatch(/^[A-Za-z0-9._~!$&'()*+,;=:@%/-]+$/);
  }
}, 60_000);
