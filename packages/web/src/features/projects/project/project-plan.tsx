/** The middle of a project's page: its findings, folders, map or sheet. */
import type { Me, ProjectPage as Project } from '@nesting/contract';
import { RULE_CODES } from '@nesting/core/check';
import { RULE_WORDS } from '@nesting/core/words';
import { count, many } from '../../../app/words';
import { TrayTree } from '../../../tray/tray-tree';
import { Button, Empty } from '../../../ui';
import { VIEW_WORDS } from '../../findings/filters';
import { FindingsList } from '../../findings/findings-list';
import type { FindingsShown } from '../../findings/use-findings';
import { isMapSize, MapView } from '../map-view';
import { SheetView } from '../sheet-view';
import { PROJECT_VIEWS, type ProjectLook, type ProjectView } from './use-project-view';
import type { SelectedFindings } from './use-selected-findings';

interface Props {
  readonly project: Project;
  readonly me: Me;
  readonly look: ProjectLook;
  readonly shown: FindingsShown;
  readonly selected: SelectedFindings;
  readonly isChecked: boolean;
  readonly onSelect: (finding: string) => void;
}

const TAB_WORDS: Readonly<Record<ProjectView, string>> = {
  findings: 'Findings',
  folders: 'Folders',
  map: 'Map',
  sheet: 'Sheet',
};

export function ProjectPlan(props: Props) {
  const { look, shown } = props;
  return (
    <>
      <div role="tablist" aria-label="What is shown" className="flex gap-5 pb-3">
        {PROJECT_VIEWS.map((view) => (
          <Tab
            key={view}
            words={view === 'findings' && look.open > 0 ? `Findings ${count(look.open)}` : TAB_WORDS[view]}
            chosen={look.view === view}
            onChoose={() => look.put({ view })}
          />
        ))}
        <span className="ml-auto self-center text-xs text-ink2">{captionOf(look, shown)}</span>
      </div>
      <View {...props} />
    </>
  );
}

function captionOf({ view, params, overlay }: ProjectLook, shown: FindingsShown): string {
  switch (view) {
    case 'sheet':
      return 'state and settings';
    case 'findings': {
      const rule = RULE_CODES.find((code) => code === params.get('rule'));
      return `${VIEW_WORDS[shown.view].toLowerCase()}: ${rule ? RULE_WORDS[rule].title.toLowerCase() : 'all causes'}`;
    }
    case 'folders':
    case 'map':
      // The project's own folder is one of them, and is none of those in it.
      return `${many(Math.max(0, overlay.folders.size - 1), 'folder')} on the disk`;
  }
}

function View(props: Props) {
  const { project, me, look, shown, isChecked } = props;
  const by = look.params.get('by');
  switch (look.view) {
    case 'sheet':
      return <SheetView project={project} me={me} />;
    case 'map':
      return (
        <MapView
          title={project.title}
          lines={look.expansion.lines}
          overlay={look.overlay}
          by={isMapSize(by) ? by : 'things'}
          onBy={(to) => look.put({ by: to === 'things' ? null : to })}
          chosen={look.lineKey}
          onChoose={(key) => look.put({ line: look.keyOfTray(key) })}
        />
      );
    case 'folders':
      return (
        <TrayTree
          label={`Folders of ${project.title}`}
          nodes={look.overlay.nodes}
          selected={look.lineKey}
          onSelect={(key) => look.put({ line: key })}
        />
      );
    case 'findings':
      if (shown.rows.length > 0) return <List {...props} />;
      return shown.counted === null && isChecked ? null : <NoFindings {...props} />;
  }
}

function List({ shown, selected, onSelect }: Props) {
  return (
    <FindingsList
      findings={shown.rows}
      total={shown.counted?.total ?? 0}
      group={shown.group}
      selected={selected.finding?.id ?? null}
      latest={selected.latest}
      picked={selected.picked}
      onSelect={onSelect}
      onPick={selected.pick}
      more={shown.more}
    />
  );
}

const EVERY_FINDING = { findings: null, rule: null, weight: null, person: null, folder: null, find: null };

function NoFindings({ look, shown, isChecked }: Props) {
  if (!isChecked)
    return (
      <Empty title="Not checked yet">A check compares what is on the disk with the rules, and changes nothing.</Empty>
    );
  if (shown.filtered || shown.view !== 'open')
    return (
      <Empty title="Nothing of this kind">
        <Button onClick={() => look.put(EVERY_FINDING)}>Show everything that is to be put right</Button>
      </Empty>
    );
  return (
    <Empty title="Everything is in order">
      Every file and folder is where it belongs and is called as it should be.
    </Empty>
  );
}

function Tab({ words, chosen, onChoose }: { words: string; chosen: boolean; onChoose: () => void }) {
  return (
    <button
      type="button"
      role="tab"
      aria-selected={chosen}
      onClick={onChoose}
      className={`border-b-2 pb-0.5 text-sm ${chosen ? 'border-bottle font-semibold' : 'border-clear text-ink2 hover:border-rule'}`}
    >
      {words}
    </button>
  );
}
