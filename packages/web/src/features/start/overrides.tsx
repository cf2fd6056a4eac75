/**
 * What this project will have otherwise than its template: folders left out, made now, or called otherwise. Each goes
 * back as planned by one click.
 */
import type { Adjustment, Adjustments, PlannedLine } from '@nesting/core/template';
import { useId, useState } from 'react';
import { Button, Choose, Heading, Labelled, TextInput } from '../../ui';

/** `scene@surface=west-front&scene=s03/renders` is told by its folder and its entries. */
const wordsOf = (key: string): string => key.replace(/@/, ' of ').replaceAll('&', ', ').replace(/=/g, ' ');

export function adjustmentWords(a: Adjustment): string {
  if (a.leaveOut) return 'left out';
  return [
    a.make ? 'made now' : '',
    a.name === undefined ? '' : `called ${a.name}`,
    a.volume === undefined ? '' : `on ${a.volume}`,
  ]
    .filter((w) => w !== '')
    .join(', ');
}

export function withAdjustment(all: Adjustments, key: string, change: Adjustment | null): Adjustments {
  const { [key]: old, ...others } = all;
  if (change === null) return others;
  const next = Object.fromEntries(
    Object.entries({ ...old, ...change }).filter(([, v]) => v !== undefined && v !== false && v !== ''),
  );
  return Object.keys(next).length === 0 ? others : { ...others, [key]: next };
}

interface OverridesProps {
  readonly adjusted: Adjustments;
  readonly onAdjust: (adjusted: Adjustments) => void;
}

export function Overrides({ adjusted, onAdjust }: OverridesProps) {
  const all = Object.entries(adjusted);
  if (all.length === 0) return null;
  return (
    <section aria-label="Changed for this project" className="flex flex-col gap-1 text-sm">
      <Heading>Changed for this project</Heading>
      <ul>
        {all.map(([key, a]) => (
          <li key={key} className="flex items-baseline gap-2 border-b border-line py-1">
            <span className="min-w-0 flex-1 break-words">
              <span className="font-mono text-xs">{wordsOf(key)}</span> {adjustmentWords(a)}
            </span>
            <Button
              variant="quiet"
              className="h-5!"
              aria-label={`As planned: ${wordsOf(key)}`}
              onClick={() => onAdjust(withAdjustment(adjusted, key, null))}
            >
              As planned
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

const SAME = ':same';

interface LineActsProps {
  readonly line: PlannedLine;
  readonly adjusted: Adjustments;
  readonly volumes: readonly string[];
  readonly onAdjust: (adjusted: Adjustments) => void;
}

/** What can be done with the selected line, for this project alone. */
/** `volumes` are those a folder can be redirected to; none where the project is not written on one. */
export function LineActs({ line, adjusted, volumes, onAdjust }: LineActsProps) {
  const id = useId();
  const own = adjusted[line.key];
  const [name, setName] = useState<string | null>(null);
  if (line.depth === 0) return null;
  const set = (change: Adjustment | null) => onAdjust(withAdjustment(adjusted, line.key, change));
  return (
    <section aria-label="For this project alone" className="flex flex-col gap-2 text-sm">
      <Heading>For this project alone</Heading>
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => set({ leaveOut: true })}>Leave it out</Button>
        {line.kind === 'folder' &&
          (line.folder?.presence ?? 'always') !== 'always' &&
          (own?.make ? (
            <Button onClick={() => set({ make: false })}>Not now</Button>
          ) : (
            <Button onClick={() => set({ make: true })}>Make it now</Button>
          ))}
      </div>
      {line.kind === 'folder' && volumes.length > 0 && (line.elsewhere === undefined || own?.volume !== undefined) && (
        <Labelled
          id={`${id}v`}
          label="On volume"
          help={own?.volume === undefined ? undefined : 'under a folder of the same name there, with all that is in it'}
        >
          <Choose
            id={`${id}v`}
            label="On volume"
            value={own?.volume ?? SAME}
            options={[{ value: SAME, label: 'where the project is' }, ...volumes.map((v) => ({ value: v, label: v }))]}
            onChange={(v) => set({ volume: v === SAME ? undefined : v })}
          />
        </Labelled>
      )}
      <Labelled id={id} label="Called" help={own?.name === undefined ? undefined : 'otherwise than the template says'}>
        <TextInput
          id={id}
          value={name ?? line.name}
          maxLength={255}
          className="font-mono"
          spellCheck={false}
          autoComplete="off"
          onChange={(e) => setName(e.target.value)}
          onBlur={() => {
            if (name !== null && name !== line.name) set({ name: name.trim() });
            setName(null);
          }}
          onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        />
      </Labelled>
    </section>
  );
}
