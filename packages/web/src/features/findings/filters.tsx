/**
 * What is looked at: open, new, accepted, solved; by cause, weight, person, folder. Each count is under all other
 * filters.
 */
import {
  FINDING_GROUPS,
  FINDING_VIEWS,
  type FindingGroup,
  type FindingList,
  type FindingView,
  type Me,
} from '@nesting/contract';
import { WEIGHTS, type Weight } from '@nesting/core/template';
import { RULE_WORDS } from '@nesting/core/words';
import type { AddressChanges } from '../../app/use-address';
import { count, many } from '../../app/words';
import { Choose, Heading, TextInput } from '../../ui';
import { WEIGHT_WORDS, WeightSign } from '../../ui/signs';

export const VIEW_WORDS: Readonly<Record<FindingView, string>> = {
  open: 'To put right',
  new: 'New since last time',
  accepted: 'Accepted',
  solved: 'Solved since',
};
const GROUP_WORDS: Readonly<Record<FindingGroup, string>> = {
  cause: 'by cause',
  folder: 'by folder',
  person: 'by person',
  weight: 'by weight',
  none: 'by path alone',
};

interface Props {
  readonly counted: FindingList;
  readonly view: FindingView;
  readonly group: FindingGroup;
  readonly params: URLSearchParams;
  readonly put: (changes: AddressChanges) => void;
  readonly me: Me;
}

type ChooseFilter = (key: string, value: string | null) => void;

interface SectionProps {
  readonly counted: FindingList;
  readonly params: URLSearchParams;
  /** Chosen twice it is chosen no more. */
  readonly choose: ChooseFilter;
}

export function Filters({ counted, view, group, params, put, me }: Props) {
  const choose: ChooseFilter = (key, value) =>
    put({ view: 'findings', [key]: params.get(key) === value ? null : value, finding: null });
  const section = { counted, params, choose };
  return (
    <div className="flex flex-col gap-4">
      <Views
        {...section}
        view={view}
        me={me}
        onView={(findings) => put({ view: 'findings', findings, finding: null })}
      />
      <div className="flex gap-2">
        <TextInput
          aria-label="Part of a path"
          placeholder="Part of a path"
          value={params.get('find') ?? ''}
          onChange={(e) => put({ view: 'findings', find: e.target.value, finding: null })}
          className="min-w-0 flex-1"
        />
        <span className="w-32">
          <Choose
            label="How they are grouped"
            value={group}
            options={FINDING_GROUPS.map((value) => ({ value, label: GROUP_WORDS[value] }))}
            onChange={(value) => put({ group: value === 'cause' ? null : value })}
          />
        </span>
      </div>
      <Causes {...section} onAll={() => put({ view: 'findings', rule: null, finding: null })} />
      <ByWeight {...section} />
      <ByPerson {...section} />
      <ByFolder {...section} />
    </div>
  );
}

function Views({
  counted,
  params,
  choose,
  view,
  me,
  onView,
}: SectionProps & Pick<Props, 'view' | 'me'> & { readonly onView: (view: FindingView | null) => void }) {
  const mine = counted.people.find((p) => p.key === me.initials)?.count ?? 0;
  const isMine = params.get('person') === me.initials;
  return (
    <ul aria-label="Which findings">
      {FINDING_VIEWS.filter((v) => v === 'open' || v === view || counted.views[v] > 0).map((v) => (
        <li key={v}>
          <Row
            words={VIEW_WORDS[v]}
            of={counted.views[v]}
            chosen={v === view}
            onChoose={() => onView(v === 'open' ? null : v)}
          />
        </li>
      ))}
      {(mine > 0 || isMine) && (
        <li>
          <Row words="Mine" of={mine} chosen={isMine} onChoose={() => choose('person', me.initials)} />
        </li>
      )}
    </ul>
  );
}

function Causes({ counted, params, choose, onAll }: SectionProps & { readonly onAll: () => void }) {
  const all = counted.rules.reduce((n, r) => n + r.count, 0);
  return (
    <section className="flex flex-col gap-1">
      <Heading>{many(all, 'finding')}, by cause</Heading>
      <ul>
        <li>
          <Row words="All of them" of={all} chosen={params.get('rule') === null} onChoose={onAll} />
        </li>
        {counted.rules.map((r) => (
          <li key={r.key}>
            <Row
              words={RULE_WORDS[r.key].title}
              of={r.count}
              chosen={params.get('rule') === r.key}
              onChoose={() => choose('rule', r.key)}
              weight={WEIGHTS.find((weight) => weight === r.weight)}
            />
          </li>
        ))}
      </ul>
    </section>
  );
}

function ByWeight({ counted, params, choose }: SectionProps) {
  return (
    <section className="flex flex-col gap-1">
      <Heading>By weight</Heading>
      <ul>
        {WEIGHTS.filter((w) => counted.weights[w] > 0 || params.get('weight') === w).map((w) => (
          <li key={w}>
            <Row
              words={WEIGHT_WORDS[w]}
              of={counted.weights[w]}
              chosen={params.get('weight') === w}
              onChoose={() => choose('weight', w)}
              weight={w}
            />
          </li>
        ))}
      </ul>
    </section>
  );
}

const NOBODY = '-';

function ByPerson({ counted, params, choose }: SectionProps) {
  if (params.get('person') === null && counted.people.every((p) => p.key === NOBODY)) return null;
  return (
    <section className="flex flex-col gap-1">
      <Heading>By person</Heading>
      <ul>
        {counted.people.map((p) => (
          <li key={p.key}>
            <Row
              words={p.key === NOBODY ? 'Nobody by name' : p.key}
              mono={p.key !== NOBODY}
              of={p.count}
              chosen={params.get('person') === p.key}
              onChoose={() => choose('person', p.key)}
            />
          </li>
        ))}
      </ul>
    </section>
  );
}

function ByFolder({ counted, params, choose }: SectionProps) {
  const chosen = params.get('folder');
  if (chosen === null && counted.folders.length <= 1) return null;
  // One that is filtered by stands here even where nothing is left in it.
  const isListed = counted.folders.some((f) => f.key === chosen);
  return (
    <section className="flex flex-col gap-1">
      <Heading>By folder</Heading>
      <ul>
        {chosen !== null && !isListed && (
          <li>
            <Row words={chosen} mono of={counted.total} chosen onChoose={() => choose('folder', chosen)} />
          </li>
        )}
        {counted.folders.map((f) => (
          <li key={f.key}>
            <Row words={f.key} mono of={f.count} chosen={chosen === f.key} onChoose={() => choose('folder', f.key)} />
          </li>
        ))}
      </ul>
    </section>
  );
}

interface RowProps {
  readonly words: string;
  readonly of: number;
  readonly chosen: boolean;
  readonly onChoose: () => void;
  readonly weight?: Weight | undefined;
  readonly mono?: boolean;
}

function Row({ words, of, chosen, onChoose, weight, mono = false }: RowProps) {
  return (
    <button
      type="button"
      aria-pressed={chosen}
      onClick={onChoose}
      className={`flex h-7 w-full items-center gap-3 rounded-tray px-2 text-left text-sm ${chosen ? 'bg-chosen ring-1 ring-plum ring-inset' : 'hover:bg-bench'}`}
    >
      {weight === undefined ? null : <WeightSign weight={weight} />}
      <span className={`min-w-0 flex-1 truncate ${mono ? 'font-mono' : ''}`}>{words}</span>
      <span className="tabular-nums">{count(of)}</span>
    </button>
  );
}
