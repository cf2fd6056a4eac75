/** About one finding: what is wrong, why it matters, how it should read. */
import type { FindingRow } from '@nesting/contract';
import { nameOf, parentOf } from '@nesting/core/listing';
import { CHANGE_WORDS, expectationWords, RULE_WORDS } from '@nesting/core/words';
import { Proposed } from '../../anatomy/anatomy';
import { CopyButton, Heading } from '../../ui';
import { WEIGHT_WORDS, WeightSign } from '../../ui/signs';
import { Pair } from '../templates/folder-facts';

const CONFIDENCE_WORDS = {
  sure: 'Sure: nothing had to be guessed, and no other name is as near.',
  likely: 'Likely. Look at it before you rename.',
  guess: 'A guess: something had to be made up.',
} as const;

/** How a finding about a name begins, where more is known than that it breaks the rule. */
const RULE_LEADS: Readonly<Partial<Record<FindingRow['rule'], string>>> = {
  'unknown-code': 'It holds a code nobody knows; the rule is',
  'version-style': 'Its version is not written as it is by',
  'sequence-padding': 'Its frames are not written as they are by',
  'banned-word': 'It holds a banned word; else it would follow',
};

interface Props {
  readonly finding: FindingRow;
  /** A path from the project's root → the whole one, as the reader's system writes it. */
  readonly wholePath: (path: string) => string;
}

export function FindingDetail({ finding, wholePath }: Props) {
  const named = finding.problems.filter((p) => p.part !== null && /[A-Za-z0-9]/.test(p.part));
  const strays = finding.problems.filter((p) => p.part === null && /[^\s_.-]/.test(p.found));
  return (
    <div className="flex flex-col gap-5">
      <div className="flex flex-col gap-2">
        <Heading>What is wrong</Heading>
        {named.length + strays.length > 0 ? (
          <Problems finding={finding} named={named} strays={strays} />
        ) : (
          <p>{finding.message}</p>
        )}
      </div>
      {finding.suggestion && (
        <div className="flex flex-col gap-2">
          <Heading>It should read</Heading>
          <div className="flex items-start gap-1 rounded-tray border border-line bg-sheet p-2">
            <span className="min-w-0 flex-1">
              <Proposed found={nameOf(finding.path)} meant={finding.suggestion.name} />
            </span>
            <CopyButton text={finding.suggestion.name} what="the proposed name" />
          </div>
          <p className="text-xs text-ink2">{CONFIDENCE_WORDS[finding.suggestion.confidence]}</p>
        </div>
      )}
      <div className="flex flex-col gap-2">
        <Heading>Why it matters</Heading>
        <p className="text-sm">{RULE_WORDS[finding.rule].reason}</p>
      </div>
      <div className="flex flex-col gap-2">
        <Heading>What to do</Heading>
        <p className="text-sm">{RULE_WORDS[finding.rule].cure}</p>
      </div>
      <Facts finding={finding} path={wholePath(finding.path)} />
    </div>
  );
}

type Problem = FindingRow['problems'][number];

interface ProblemsProps {
  readonly finding: FindingRow;
  /** What is wrong with parts that the convention names. */
  readonly named: readonly Problem[];
  /** What stands in the name and belongs to no part. */
  readonly strays: readonly Problem[];
}

function Problems({ finding, named, strays }: ProblemsProps) {
  return (
    <>
      <p>
        {RULE_LEADS[finding.rule] ?? 'This name breaks the rule'}{' '}
        <strong className="font-semibold">{String(finding.params.convention)}</strong>.
      </p>
      <dl className="grid grid-cols-[5.5rem_1fr] gap-x-3 gap-y-1 text-sm">
        {named.map((p) => (
          <Pair key={`${p.part}${p.at}`} what={p.part} words={<ProblemWords problem={p} />} />
        ))}
        {strays.map((p) => (
          <Pair
            key={`stray${p.at}`}
            what={<span className="font-mono">{p.found}</span>}
            words={CHANGE_WORDS[p.change]}
          />
        ))}
      </dl>
    </>
  );
}

function ProblemWords({ problem: { change, expected, found } }: { problem: Problem }) {
  if (change === 'order') return 'stands in another place';
  return (
    <>
      {expectationWords(expected)};{' '}
      {found === '' ? (
        'nothing stands there'
      ) : (
        <>
          found <span className="wavy font-mono whitespace-pre">{found}</span>
        </>
      )}
    </>
  );
}

function Facts({ finding, path }: { finding: FindingRow; path: string }) {
  return (
    <dl className="grid grid-cols-[5.5rem_1fr] gap-x-3 gap-y-1.5 text-sm">
      <Pair
        what="Weight"
        words={
          <span className="flex items-center gap-2">
            <WeightSign weight={finding.weight} /> {WEIGHT_WORDS[finding.weight]}
          </span>
        }
      />
      <Pair what="In" words={<span className="font-mono">{parentOf(finding.path) || "the project's root"}</span>} />
      {finding.related.length > 0 && finding.params.frames === undefined && (
        <Pair
          what="And"
          words={
            <span className="font-mono break-all">
              {finding.related.slice(0, 6).map(nameOf).join(', ')}
              {finding.related.length > 6 ? ` and ${finding.related.length - 6} more` : ''}
            </span>
          }
        />
      )}
      {finding.related.length > 0 && finding.params.frames !== undefined && (
        <Pair
          what="Frames"
          words={`${finding.related.length + 1}, from ${nameOf(finding.path)} to ${nameOf(finding.related[finding.related.length - 1] ?? '')}`}
        />
      )}
      <Pair
        what="Path"
        words={
          <span className="flex items-start gap-1">
            <span className="min-w-0 font-mono break-all">{path}</span>
            <CopyButton text={path} what="the path" />
          </span>
        }
      />
    </dl>
  );
}
