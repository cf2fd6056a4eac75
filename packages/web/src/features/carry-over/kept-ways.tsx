/** Ways of carrying over that are kept with a template. */
import type { KeptWay } from '@nesting/contract';
import { type FormEvent, useState } from 'react';
import { troubleOf } from '../../app/api';
import { Button, Heading, Popover, TextInput } from '../../ui';
import { carryApi } from './carry-api';
import { bodyOfWay, type CarryWork } from './carry-work';

/** "How we make the next one": kept with the template, and used again. */
export function KeptWays({ work }: { work: CarryWork }) {
  const { project, setWay, forget } = work;
  const template = project.template.id;
  const { data: ways = [] } = carryApi.useCarryWaysQuery(template);
  const [drop] = carryApi.useDropCarryWayMutation();
  const [isOpen, setIsOpen] = useState(false);
  const use = (way: KeptWay['way']) => {
    setWay({ ...UNSET, ...way });
    setIsOpen(false);
  };
  return (
    <div className="flex flex-wrap gap-2">
      <Popover label="Kept ways" trigger={<Button>Kept ways…</Button>} open={isOpen} onOpen={setIsOpen} width="w-80">
        <div className="flex flex-col gap-3 p-3 text-sm">
          <Heading>Kept with this template</Heading>
          {ways.length === 0 && (
            <p className="text-ink2">
              None yet. What comes of each folder, versions and words are kept; single files are not.
            </p>
          )}
          <ul className="flex flex-col gap-1">
            {ways.map((way) => (
              <li key={way.name} className="flex items-center gap-1">
                <button
                  type="button"
                  onClick={() => use(way.way)}
                  className="min-w-0 flex-1 truncate rounded-tray px-2 py-1 text-left hover:bg-bench"
                >
                  {way.name}
                </button>
                <Button
                  variant="quiet"
                  aria-label={`Forget ${way.name}`}
                  onClick={() => void drop({ template, name: way.name })}
                >
                  Forget it
                </Button>
              </li>
            ))}
          </ul>
          <KeepForm template={template} work={work} />
        </div>
      </Popover>
      <Button variant="quiet" onClick={forget}>
        Begin anew
      </Button>
    </div>
  );
}

const UNSET = { folders: {}, take: [], leave: [], version: 'restart', words: [] } as const;

/** Single files that were taken or left belong to this project, and are not kept. */
function KeepForm({ template, work: { said } }: { template: string; work: CarryWork }) {
  const [keep, keeping] = carryApi.useKeepCarryWayMutation();
  const [name, setName] = useState('');
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const kept = await keep({ template, name: name.trim(), way: bodyOfWay(said.way) })
      .unwrap()
      .then(() => true)
      .catch(() => false);
    if (kept) setName('');
  };
  return (
    <>
      <form className="flex gap-2" onSubmit={(event) => void submit(event)}>
        <TextInput
          aria-label="What this way is called"
          placeholder="What this way is called"
          value={name}
          maxLength={100}
          className="min-w-0 flex-1"
          onChange={(e) => setName(e.target.value)}
        />
        <Button type="submit" disabled={name.trim() === '' || keeping.isLoading}>
          Keep it
        </Button>
      </form>
      {keeping.isError && <p className="text-brick">{troubleOf(keeping.error)}</p>}
    </>
  );
}
