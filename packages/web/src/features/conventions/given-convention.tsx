/** What is known of a convention at left: its name, the parts it is made of, the families it is for. */
import type { ConventionRow } from '@nesting/contract';
import { expectationOf } from '@nesting/core/name';
import type { Convention } from '@nesting/core/template';
import { expectationWords } from '@nesting/core/words';
import { useId } from 'react';
import { Link } from 'react-router';
import { many } from '../../app/words';
import { Button, Heading, Labelled, Menu, TextInput } from '../../ui';
import { addPart, PART_KIND_OPTIONS, rowFor } from './edit';
import type { Leaning } from './rules';
import type { Rule } from './use-rule';

export type WriteConvention = (convention: Convention, what: string | null) => void;

interface GivenProps {
  readonly row: ConventionRow;
  readonly convention: Convention;
  readonly leaning: Leaning;
  readonly rule: Rule;
  readonly chosen: number | null;
  readonly onChoose: (part: number) => void;
  readonly write: WriteConvention | null;
}

export function GivenConvention({ row, convention, leaning, rule, chosen, onChoose, write }: GivenProps) {
  const id = useId();
  return (
    <div className="flex flex-col gap-4">
      <Link to="/conventions" className="text-sm text-bottle hover:underline">
        All conventions
      </Link>
      {write ? (
        <Labelled id={id} label="Convention">
          <h1 className="sr-only">{convention.name}</h1>
          <TextInput
            id={id}
            value={convention.name}
            onChange={(e) => write({ ...convention, name: e.target.value }, 'name')}
            className="text-lg font-semibold"
          />
        </Labelled>
      ) : (
        <h1 className="text-xl font-semibold">{convention.name}</h1>
      )}
      <p className="text-sm text-ink2">{stateOf(row)}</p>
      <Parts convention={convention} rule={rule} chosen={chosen} onChoose={onChoose} write={write} />
      <Families convention={convention} known={leaning.registers.families.map((f) => f.name)} write={write} />
    </div>
  );
}

function Parts({
  convention,
  rule,
  chosen,
  onChoose,
  write,
}: Pick<GivenProps, 'convention' | 'rule' | 'chosen' | 'onChoose' | 'write'>) {
  const items = rowFor(convention.pattern)?.items ?? [];
  const words = (field: string) => {
    const domain = rule.compiled?.slots.find((s) => s.field === field)?.domain;
    return domain === undefined ? '' : expectationWords(expectationOf(domain));
  };
  return (
    <section aria-label="Parts it is made of" className="flex flex-col gap-1">
      <Heading>Parts it is made of</Heading>
      <ul className="flex flex-col">
        {items.map((item, i) => (
          <li key={`${item.slot.at}`} className="border-b border-line">
            <button
              type="button"
              aria-pressed={chosen === i}
              onClick={() => onChoose(i)}
              className={`grid w-full grid-cols-[6rem_1fr] gap-2 rounded-tray px-2 py-1.5 text-left text-sm ${chosen === i ? 'bg-chosen ring-1 ring-plum ring-inset' : 'hover:bg-bench'}`}
            >
              <span className="font-semibold break-all">{item.slot.field}</span>
              <span className="text-note">
                {words(item.slot.field)}
                {item.optional ? ', may be left out' : ''}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {write && (
        <Menu
          trigger={
            <Button variant="quiet" className="self-start">
              Add a part…
            </Button>
          }
          lines={PART_KIND_OPTIONS.map(({ value, label }) => ({
            words: label,
            run: () => write(addPart(convention, value), null),
          }))}
        />
      )}
    </section>
  );
}

function stateOf(row: ConventionRow): string {
  const what =
    row.edition === null
      ? 'a draft, never in force'
      : row.draft
        ? `draft of edition ${row.edition + 1}`
        : `edition ${row.edition}, in force`;
  const used =
    row.usedIn.length === 0 ? 'used in no template yet' : `used in ${row.usedIn.map((u) => u.name).join(', ')}`;
  return `${what} · ${used}${row.projects > 0 ? `, ${many(row.projects, 'running project')}` : ''}`;
}

interface FamiliesProps {
  readonly convention: Convention;
  readonly known: readonly string[];
  readonly write: GivenProps['write'];
}

function Families({ convention, known, write }: FamiliesProps) {
  const chosen = convention.families ?? [];
  const toggle = (name: string) => {
    const next = chosen.includes(name) ? chosen.filter((f) => f !== name) : [...chosen, name];
    write?.({ ...convention, families: next.length === 0 ? undefined : next }, null);
  };
  return (
    <section aria-label="For files" className="flex flex-col gap-1">
      <Heading>For files of</Heading>
      <p className="text-sm">{chosen.length === 0 ? 'every family' : chosen.join(', ')}</p>
      {write && (
        <Menu
          stay
          trigger={
            <Button variant="quiet" className="self-start">
              Choose…
            </Button>
          }
          lines={known.map((name) => ({ words: name, run: () => toggle(name), chosen: chosen.includes(name) }))}
        />
      )}
    </section>
  );
}
