/** One thing said for many: what all shown files are of, where they go, whether they come. */
import { useId, useState } from 'react';
import { many } from '../../app/words';
import { Button, Choose, Heading, TextInput } from '../../ui';
import type { SayField } from './intake-fields';
import type { Item } from './intake-rows';
import type { IntakeWork } from './intake-work';

interface Props {
  readonly work: IntakeWork;
  readonly fields: readonly SayField[];
  readonly folders: readonly string[];
  readonly shown: readonly Item[];
}

const PLACE = 'place';

export function SayForShown({ work: { say }, fields, folders, shown }: Props) {
  const id = useId();
  const [key, setKey] = useState<string>(fields[0]?.key ?? PLACE);
  const [value, setValue] = useState('');
  const field = fields.find((one) => one.key === key);
  const known = field?.known ?? folders;
  const paths = shown.map(({ from }) => from);
  const isFitting = field?.isDay !== true || value === '' || /^\d{4}-\d{2}-\d{2}$/.test(value.trim());
  const set = () => {
    const said = value.trim();
    if (key === PLACE) say(paths, { folder: said === '' ? undefined : said });
    else say(paths, { values: { [key]: said } });
  };
  return (
    <section aria-label="For all shown" className="flex flex-col gap-2">
      <Heading>For all {many(shown.length, 'file')} shown</Heading>
      <div className="flex gap-2">
        <span className="w-28">
          <Choose
            label="What is said of them"
            value={key}
            options={[...fields.map((f) => ({ value: f.key, label: f.label })), { value: PLACE, label: 'Folder' }]}
            onChange={(next) => {
              setKey(next);
              setValue('');
            }}
          />
        </span>
        <TextInput
          aria-label={field?.label ?? 'Folder'}
          value={value}
          list={`${id}-known`}
          placeholder={field?.isDay ? '2026-03-02' : ''}
          maxLength={255}
          fault={!isFitting}
          className="min-w-0 flex-1 font-mono"
          spellCheck={false}
          autoComplete="off"
          onChange={(e) => setValue(e.target.value)}
        />
        <datalist id={`${id}-known`}>
          {known.map((entry) => (
            <option key={entry} value={entry} />
          ))}
        </datalist>
      </div>
      <div className="flex flex-wrap gap-2">
        <Button disabled={!isFitting || shown.length === 0} onClick={set}>
          {value.trim() === '' ? 'Clear' : 'Set'}
        </Button>
        <Button disabled={shown.length === 0} onClick={() => say(paths, { comes: true })}>
          Take them
        </Button>
        <Button disabled={shown.length === 0} onClick={() => say(paths, { comes: false })}>
          Leave them
        </Button>
      </div>
    </section>
  );
}
