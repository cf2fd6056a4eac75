/**
 * What the project is to become: its values, entries of its lists, folders made when they are needed, another edition.
 */
import type { Me, ProjectPage, TemplateRow } from '@nesting/contract';
import type { ListField, Registers, Value, Values } from '@nesting/core/name';
import type { Expansion, Template } from '@nesting/core/template';
import { useId, useState } from 'react';
import { Button, Choose, Heading, Labelled, TextInput } from '../../ui';
import { FieldRow, Row } from '../start/fields';
import { withAdjustment } from '../start/overrides';
import { ListRows } from './list-rows';
import { renamedEntry, type Wish } from './reshape-slice';

interface Props {
  readonly me: Me;
  readonly project: ProjectPage;
  readonly wish: Wish;
  readonly template: Template;
  readonly templates: readonly TemplateRow[];
  readonly editions: readonly number[];
  readonly registers: Registers;
  readonly expansion: Expansion;
  readonly onChange: (wish: Wish, what: string | null) => void;
}

export function WishForm({ me, project, wish, template, templates, editions, registers, expansion, onChange }: Props) {
  const id = useId();
  const isArtist = me.role === 'artist';
  const lists = template.fields.filter(
    (f): f is ListField => f.type === 'list' && (!isArtist || f.artistsMayAdd === true),
  );
  const give = (key: string, value: Value) => onChange({ ...wish, values: { ...wish.values, [key]: value } }, key);
  const optional = expansion.lines.filter(
    (l) =>
      l.kind === 'folder' &&
      l.presence !== 'always' &&
      l.elsewhere === undefined &&
      !l.made &&
      (!isArtist || l.folder?.artistsMayAdd === true),
  );
  const chosen = Object.entries(wish.adjusted).filter(([key, a]) => a.make && project.adjusted[key]?.make !== true);
  return (
    <div className="flex flex-col gap-4">
      {lists.length > 0 && (
        <section aria-label="More of what it has" className="flex flex-col gap-2">
          <Heading>More of what it has</Heading>
          {lists.map((field) => (
            <ListRows
              key={field.key}
              field={field}
              values={wish.values}
              expansion={expansion}
              onValues={(values, what) => onChange({ ...wish, values }, what)}
              {...(!isArtist && {
                onRename: (from: string, to: string, values: Values) =>
                  onChange(renamedEntry(wish, field.key, from, to, values), null),
              })}
            />
          ))}
        </section>
      )}
      {optional.length + chosen.length > 0 && (
        <section aria-label="Folders made when they are needed" className="flex flex-col gap-1 text-sm">
          <Heading>Folders made when they are needed</Heading>
          <ul>
            {optional.slice(0, 60).map((l) => (
              <li key={l.key} className="flex items-baseline gap-2 border-b border-line py-1">
                <span className="min-w-0 flex-1 font-mono text-xs break-all">{l.path}</span>
                <Button
                  look="quiet"
                  className="h-5!"
                  aria-label={`Make ${l.path}`}
                  onClick={() =>
                    onChange({ ...wish, adjusted: withAdjustment(wish.adjusted, l.key, { make: true }) }, null)
                  }
                >
                  Make it
                </Button>
              </li>
            ))}
            {chosen.map(([key]) => (
              <li key={key} className="flex items-baseline gap-2 border-b border-line py-1">
                <span className="min-w-0 flex-1 font-mono text-xs break-all">
                  {expansion.lines.find((l) => l.key === key)?.path ?? key}
                </span>
                <Button
                  look="quiet"
                  className="h-5!"
                  onClick={() =>
                    onChange({ ...wish, adjusted: withAdjustment(wish.adjusted, key, { make: false }) }, null)
                  }
                >
                  Not now
                </Button>
              </li>
            ))}
          </ul>
        </section>
      )}
      {!isArtist && (
        <>
          <section aria-label="What it is" className="flex flex-col gap-2">
            <Heading>What it is</Heading>
            <Row id={`${id}n`} label="Number" faults={[]}>
              <TextInput
                id={`${id}n`}
                value={String(wish.values.number ?? '')}
                onChange={(e) => give('number', e.target.value)}
                className="font-mono"
                spellCheck={false}
                autoComplete="off"
              />
            </Row>
            {template.fields
              .filter((f) => f.type !== 'list')
              .map((field) => (
                <FieldRow
                  key={field.key}
                  field={field}
                  value={wish.values[field.key]}
                  registers={registers}
                  expansion={expansion}
                  onGive={(v) => give(field.key, v)}
                />
              ))}
          </section>
          <section aria-label="Its rules" className="flex flex-col gap-2">
            <Heading>Its rules</Heading>
            <Labelled id={`${id}t`} label="Template">
              <Choose
                id={`${id}t`}
                label="Template"
                value={wish.template}
                options={templates.map((t) => ({ value: t.id, label: t.name }))}
                onChange={(t) =>
                  onChange(
                    {
                      ...wish,
                      template: t,
                      edition:
                        t === project.template.id
                          ? project.template.edition
                          : (templates.find((r) => r.id === t)?.edition ?? 1),
                    },
                    null,
                  )
                }
              />
            </Labelled>
            <Labelled
              id={`${id}e`}
              label="Edition"
              help={
                wish.template === project.template.id && wish.edition === project.template.edition
                  ? undefined
                  : `it has edition ${project.template.edition}${wish.template === project.template.id ? '' : ` of ${project.template.name}`} now`
              }
            >
              <Choose
                id={`${id}e`}
                label="Edition"
                value={String(wish.edition)}
                options={editions.map((e) => ({
                  value: String(e),
                  label: `edition ${e}${e === Math.max(...editions) ? ', the newest' : ''}`,
                }))}
                onChange={(e) => onChange({ ...wish, edition: Number(e) }, null)}
              />
            </Labelled>
          </section>
          <Extra wish={wish} expansion={expansion} onChange={onChange} />
        </>
      )}
    </div>
  );
}

/** A starter file of the template once more. */
function Extra({ wish, expansion, onChange }: { wish: Wish; expansion: Expansion; onChange: Props['onChange'] }) {
  const id = useId();
  const [open, setOpen] = useState(false);
  const starters = expansion.lines.filter((l) => l.starter !== null);
  const folders = expansion.lines
    .filter((l) => l.kind === 'folder' && l.parent !== null && (l.made || l.rules.conventions !== null))
    .slice(0, 500);
  const [given, setGiven] = useState({ starter: '', folder: '', name: '' });
  if (starters.length === 0) return null;
  const starter = given.starter || (starters[0]?.key ?? '');
  const folder = given.folder || (folders[0]?.key ?? '');
  return (
    <section aria-label="Another starter file" className="flex flex-col gap-2 text-sm">
      <Heading>Another starter file</Heading>
      {wish.extra.map((e) => (
        <p key={`${e.folder}${e.name}`} className="flex items-baseline gap-2">
          <span className="min-w-0 flex-1 font-mono text-xs break-all">{e.name}</span>
          <Button
            look="quiet"
            className="h-5!"
            onClick={() => onChange({ ...wish, extra: wish.extra.filter((o) => o !== e) }, null)}
          >
            Not now
          </Button>
        </p>
      ))}
      {!open ? (
        <Button look="quiet" className="h-6! self-start" onClick={() => setOpen(true)}>
          Add one…
        </Button>
      ) : (
        <form
          className="flex flex-col gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            if (given.name.trim() === '') return;
            onChange({ ...wish, extra: [...wish.extra, { starter, folder, name: given.name.trim() }] }, null);
            setGiven({ starter: '', folder: '', name: '' });
            setOpen(false);
          }}
        >
          <Labelled id={`${id}s`} label="As">
            <Choose
              id={`${id}s`}
              label="As"
              value={starter}
              options={starters.map((l) => ({ value: l.key, label: l.name }))}
              onChange={(s) => setGiven({ ...given, starter: s })}
            />
          </Labelled>
          <Labelled id={`${id}f`} label="In">
            <Choose
              id={`${id}f`}
              label="In"
              value={folder}
              options={folders.map((l) => ({ value: l.key, label: l.path }))}
              onChange={(f) => setGiven({ ...given, folder: f })}
            />
          </Labelled>
          <Labelled id={`${id}n`} label="Called">
            <TextInput
              id={`${id}n`}
              value={given.name}
              onChange={(e) => setGiven({ ...given, name: e.target.value })}
              className="font-mono"
              spellCheck={false}
              autoComplete="off"
            />
          </Labelled>
          <span className="flex gap-3">
            <Button type="submit" look="quiet" className="h-6!" disabled={given.name.trim() === ''}>
              Add it
            </Button>
            <Button look="quiet" className="h-6!" onClick={() => setOpen(false)}>
              Leave it
            </Button>
          </span>
        </form>
      )}
    </section>
  );
}
