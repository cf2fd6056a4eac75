/** Findings as text, JSON, CSV and SARIF 2.1.0. The same order and words everywhere. */
import type { CheckSummary, Finding } from '../check/finding';
import { RULE_CODES } from '../check/registry';
import { csv } from '../text/csv';
import { shown } from '../text/shown';
import { type AnyFinding, findingWords, RULE_WORDS } from '../words/rules';

/** What was found, just now or as it was stored. */
export interface Reported {
  readonly summary: CheckSummary;
  readonly findings: readonly ReportedFinding[];
}

type ReportedFinding = AnyFinding & Pick<Finding, 'id' | 'weight' | 'path' | 'suggestion' | 'related'>;

/** One finding as it stands in JSON output. */
export interface FindingLine {
  readonly id: string;
  readonly rule: string;
  readonly weight: string;
  readonly path: string;
  readonly message: string;
  readonly suggestion?: string;
  readonly related?: readonly string[];
}

function findingLine(finding: ReportedFinding): FindingLine {
  return {
    id: finding.id,
    rule: finding.rule,
    weight: finding.weight,
    path: finding.path,
    message: findingWords(finding),
    ...(finding.suggestion !== null && { suggestion: finding.suggestion.name }),
    ...(finding.related.length > 0 && { related: finding.related }),
  };
}

export function findingsJson(outcome: Reported): string {
  return `${JSON.stringify({ summary: outcome.summary, findings: outcome.findings.map(findingLine) }, null, 2)}\n`;
}

export function findingsText(outcome: Reported): string {
  const { must, should, note, files, folders } = outcome.summary;
  const lines = outcome.findings.map(
    (f) =>
      `${f.weight.padEnd(6)} ${shown(f.path) || '.'}\n       ${shown(findingWords(f))}${f.suggestion === null ? '' : `\n       ${f.suggestion.confidence}: ${shown(f.suggestion.name)}`}\n`,
  );
  const total = `${files} files in ${folders} folders: ${must} must, ${should} should, ${note} note.\n`;
  return lines.join('') + total;
}

export function findingsCsv(outcome: Reported): string {
  const rows = outcome.findings
    .map(findingLine)
    .map((f) => [
      f.id,
      f.rule,
      f.weight,
      shown(f.path),
      shown(f.message),
      f.suggestion ?? null,
      f.related?.length ?? 0,
    ]);
  return csv([['id', 'rule', 'weight', 'path', 'message', 'suggestion', 'related'], ...rows]);
}

const LEVELS = { must: 'error', should: 'warning', note: 'note' } as const;

export function findingsSarif(outcome: Reported): string {
  const rules = RULE_CODES.map((code) => ({
    id: code,
    shortDescription: { text: RULE_WORDS[code].title },
    fullDescription: { text: RULE_WORDS[code].reason },
  }));
  const results = outcome.findings.map((f) => ({
    ruleId: f.rule,
    level: LEVELS[f.weight],
    message: { text: findingWords(f) },
    locations: [{ physicalLocation: { artifactLocation: { uri: uriOf(f.path), uriBaseId: 'PROJECT' } } }],
    partialFingerprints: { 'nesting/v1': f.id },
    ...(f.suggestion !== null && {
      properties: { suggestion: f.suggestion.name, confidence: f.suggestion.confidence },
    }),
  }));
  const run = {
    tool: { driver: { name: 'Nesting', rules } },
    originalUriBaseIds: { PROJECT: { description: { text: "The project's root folder" } } },
    results,
  };
  return `${JSON.stringify({ $schema: 'https://json.schemastore.org/sarif-2.1.0.json', version: '2.1.0', runs: [run] }, null, 2)}\n`;
}

const uriOf = (path: string): string =>
  path
    .split('/')
    .map((part) => encodeURIComponent(part.isWellFormed() ? part : part.toWellFormed()))
    .join('/') || '.';
