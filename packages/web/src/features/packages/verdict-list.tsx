/** What is wrong with a package: missing, changed, extra, and what its form says. */
import type { Verdict } from '@nesting/core/package';
import { packageFaultWords } from '@nesting/core/words';
import { count } from '../../app/words';
import { Heading } from '../../ui';

/** Of each list. */
const MOST_SHOWN = 200;

export function VerdictList({
  verdict,
}: {
  verdict: Pick<Verdict, 'missing' | 'changed' | 'extra' | 'faults' | 'beside'>;
}) {
  const { missing, changed, extra, faults, beside } = verdict;
  return (
    <div className="flex flex-col gap-3 text-sm">
      <Named words="Missing" paths={missing} />
      <Named words="Changed" paths={changed.filter((one) => !one.isUnreadable).map(({ path }) => path)} />
      <Named words="Cannot be read" paths={changed.filter((one) => one.isUnreadable).map(({ path }) => path)} />
      <Named words="Not in its list" paths={extra} />
      <Named words="Wrong with its form" paths={faults.map(packageFaultWords)} isWords />
      <Named words="Beside it, and in no list" paths={beside} />
    </div>
  );
}

function Named({ words, paths, isWords = false }: { words: string; paths: readonly string[]; isWords?: boolean }) {
  if (paths.length === 0) return null;
  return (
    <section>
      <Heading>
        {words} ({count(paths.length)})
      </Heading>
      <ul className={isWords ? '' : 'font-mono'}>
        {[...new Set(paths)].slice(0, MOST_SHOWN).map((path) => (
          <li key={path} className="break-all">
            {path}
          </li>
        ))}
      </ul>
      {paths.length > MOST_SHOWN && <p className="text-ink2">The first {MOST_SHOWN} are shown.</p>}
    </section>
  );
}
