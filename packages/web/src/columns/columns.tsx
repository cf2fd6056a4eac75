/**
 * Every working screen: given, plan, consequence from left to right, and under them the ledger. Splitters are movable
 * and remembered.
 */
import { type ReactNode, useSyncExternalStore } from 'react';
import { Group, Panel, Separator, useDefaultLayout } from 'react-resizable-panels';
import { Drawer } from '../ui';

interface Props {
  readonly id: string;
  readonly given: ReactNode;
  readonly plan: ReactNode;
  readonly consequence: ReactNode;
  readonly ledger: ReactNode;
  readonly labels: readonly [string, string, string];
}

/** Below this the right column becomes a drawer. */
const NARROW = '(max-width: 1099px)';
const PHONE = '(max-width: 699px)';

export function Columns({ id, given, plan, consequence, ledger, labels }: Props) {
  const narrow = useMedia(NARROW);
  const phone = useMedia(PHONE);
  if (phone) return <Stacked given={given} plan={plan} consequence={consequence} ledger={ledger} labels={labels} />;
  return <Beside {...{ id, given, plan, consequence, ledger, labels, narrow }} />;
}

/** On a phone one under the other; the ledger stays in sight. */
function Stacked({ given, plan, consequence, ledger, labels }: Omit<Props, 'id'>) {
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <section
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled by keyboard
        tabIndex={0}
        aria-label={labels.join(', ')}
        className="flex min-h-0 flex-1 flex-col gap-6 overflow-auto px-4 py-4 *:shrink-0"
      >
        <section aria-label={labels[0]}>{given}</section>
        <section aria-label={labels[1]} className="flex flex-col">
          {plan}
        </section>
        <section aria-label={labels[2]}>{consequence}</section>
      </section>
      <section
        aria-label="What will happen"
        className="ledger flex shrink-0 flex-wrap items-center gap-3 border-t border-line bg-bench px-4 py-2"
      >
        {ledger}
      </section>
    </div>
  );
}

function Beside({ id, given, plan, consequence, ledger, labels, narrow }: Props & { narrow: boolean }) {
  const panels = narrow ? ['given', 'plan'] : ['given', 'plan', 'consequence'];
  const layout = useDefaultLayout({ id: `nesting-${id}-${panels.length}`, panelIds: panels, storage: localStorage });
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <Group
        orientation="horizontal"
        className="min-h-0 flex-1"
        {...(layout.defaultLayout && { defaultLayout: layout.defaultLayout })}
        onLayoutChanged={layout.onLayoutChanged}
      >
        <Panel id="given" defaultSize={narrow ? '38%' : '25%'} minSize="220px">
          {/* A column that scrolls can be scrolled by keyboard, whatever is in it. */}
          {/* biome-ignore lint/a11y/noNoninteractiveTabindex: as above */}
          <section aria-label={labels[0]} tabIndex={0} className="h-full overflow-auto px-5 py-4">
            {given}
          </section>
        </Panel>
        <Splitter />
        <Panel id="plan" minSize="320px">
          <section aria-label={labels[1]} className="flex h-full min-w-0 flex-col px-4 py-4">
            {plan}
          </section>
        </Panel>
        {!narrow && (
          <>
            <Splitter />
            <Panel id="consequence" defaultSize="25%" minSize="240px">
              {/* biome-ignore lint/a11y/noNoninteractiveTabindex: as above */}
              <section aria-label={labels[2]} tabIndex={0} className="h-full overflow-auto px-5 py-4">
                {consequence}
              </section>
            </Panel>
          </>
        )}
      </Group>
      <section
        aria-label="What will happen"
        className="ledger flex min-h-14 shrink-0 flex-wrap items-center gap-x-4 gap-y-2 border-t border-line bg-bench px-5 py-2"
      >
        {ledger}
        {narrow && <Drawer label={labels[2]}>{consequence}</Drawer>}
      </section>
    </div>
  );
}

function Splitter() {
  return <Separator className="w-px bg-line outline-offset-0 hover:bg-rule data-[separator=active]:bg-plum" />;
}

function useMedia(query: string): boolean {
  return useSyncExternalStore(
    (changed) => {
      const list = matchMedia(query);
      list.addEventListener('change', changed);
      return () => list.removeEventListener('change', changed);
    },
    () => matchMedia(query).matches,
  );
}
