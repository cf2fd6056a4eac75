/**
 * A folder that grew without a template becomes a project: which template fits, what its names say, what is otherwise;
 * taken in as it is.
 */

import type { TemplateRow } from '@nesting/contract';
import type { Expansion } from '@nesting/core/template';
import { troubleOf } from '../../app/api';
import { useAddress } from '../../app/use-address';
import { many } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Nest } from '../../nest/nest';
import { nestOfTemplate } from '../../nest/of-template';
import { Button, Empty, Heading, TextInput, Tick, Trouble } from '../../ui';
import { houseApi } from '../house/house-api';
import { volumesApi } from '../house/volumes-api';
import { ListRows } from '../reshape/list-rows';
import { FieldRow, Row } from '../start/fields';
import { templatesApi } from '../templates/templates-api';
import { AdoptFolder } from './adopt-folder';
import { FitShown, Fits } from './fits';
import { type AdoptInput, type Adoption, useAdoption } from './use-adoption';

export function AdoptPage() {
  const [params, put] = useAddress();
  const volumes = volumesApi.useVolumesQuery();
  const registers = houseApi.useRegistersQuery();
  const templates = templatesApi.useTemplatesQuery();
  const failed = [volumes, registers, templates].find((q) => q.isError);
  if (failed) return <Trouble message={troubleOf(failed.error)} again={() => void failed.refetch()} />;
  if (!volumes.data || !registers.data || !templates.data) return null;
  const volume = params.get('volume') ?? volumes.data[0]?.name ?? '';
  const folder = params.get('folder') ?? '';
  return (
    <Adopting
      key={`${volume}/${folder}`}
      volume={volume}
      folder={folder}
      volumes={volumes.data.map((v) => v.name)}
      registers={registers.data}
      templates={templates.data}
      onPlace={(v, f) => put({ volume: v, folder: f === '' ? null : f })}
    />
  );
}

function Adopting(input: AdoptInput) {
  const state = useAdoption(input);
  const { volume, folder, volumes, templates, onPlace } = input;
  const { data, fit, row, expansion } = state;
  return (
    <Columns
      id="adopt"
      labels={['The folder and what it is', 'How it fits', 'The template']}
      given={
        <div className="flex flex-col gap-4">
          <div>
            <h1 className="text-xl font-semibold">Take a folder in as a project</h1>
            <p className="text-sm text-ink2">Nothing in it is moved, renamed or removed.</p>
          </div>
          <AdoptFolder volume={volume} folder={folder} volumes={volumes} onPlace={onPlace} />
          {data && <Fits fits={data.fits} chosen={fit?.template ?? ''} templates={templates} onChoose={state.choose} />}
          {row && expansion && <WhatItIs row={row} expansion={expansion} state={state} />}
        </div>
      }
      plan={<HowItFits folder={folder} state={state} />}
      consequence={row && <TemplateShown row={row} />}
      ledger={<Ledger place={`${volume}/${folder}`} state={state} />}
    />
  );
}

interface WhatItIsProps {
  readonly row: TemplateRow;
  readonly expansion: Expansion;
  readonly state: Adoption;
}

function WhatItIs({ row, expansion, state: { values, give } }: WhatItIsProps) {
  return (
    <section aria-label="What it is" className="flex flex-col gap-2">
      <Heading>What it is</Heading>
      <Row id="adopt-number" label="Number" faults={[]}>
        <TextInput
          id="adopt-number"
          value={String(values.number ?? '')}
          onChange={(e) => give('number', e.target.value)}
          className="font-mono"
          spellCheck={false}
          autoComplete="off"
        />
      </Row>
      {row.template.fields.map((field) =>
        field.type === 'list' ? (
          <ListRows
            key={field.key}
            field={field}
            values={values}
            expansion={expansion}
            onValues={(v) => give(field.key, v[field.key] ?? null)}
          />
        ) : (
          <FieldRow
            key={field.key}
            field={field}
            value={values[field.key]}
            registers={expansion.registers}
            expansion={expansion}
            onGive={(v) => give(field.key, v)}
          />
        ),
      )}
    </section>
  );
}

function HowItFits({ folder, state: { error, fit, isFetching } }: { folder: string; state: Adoption }) {
  return error ? (
    <Trouble message={troubleOf(error)} />
  ) : folder === '' ? (
    <Empty title="No folder is chosen">
      Choose one at left: the templates are compared with it, and its names are read.
    </Empty>
  ) : fit === undefined ? (
    <p className="text-ink2">{isFetching ? 'Comparing it with every template…' : ''}</p>
  ) : (
    <FitShown fit={fit} />
  );
}

function TemplateShown({ row }: { row: TemplateRow }) {
  return (
    <div className="flex flex-col gap-3 text-sm">
      <Heading>{row.name}</Heading>
      <Nest root={nestOfTemplate(row.template)} width={240} height={150} label={`The nest of ${row.name}`} />
      <p className="text-ink2">{row.purpose}</p>
      <p className="text-ink2">
        What is called otherwise keeps its name, as this project’s own. What no rule knows stays, and the first check
        says so.
      </p>
    </div>
  );
}

function Ledger({ place, state }: { place: string; state: Adoption }) {
  const { trouble, hindrance, values, fit, makeMissing } = state;
  return (
    <>
      <div className="min-w-0 flex-1" aria-live="polite">
        {trouble !== null ? (
          <p className="text-brick">{trouble}</p>
        ) : hindrance !== null ? (
          <p>
            <strong className="font-semibold">It cannot be taken in yet.</strong>{' '}
            <span className="text-ink2">{hindrance}</span>
          </p>
        ) : (
          <p>
            <strong className="font-semibold">
              Takes <span className="font-mono">{place} </span> in as {String(values.number)}.
            </strong>{' '}
            <span className="text-ink2">
              Only Nesting’s own folder is made in it
              {makeMissing && fit ? `, and the ${many(fit.missing.length, 'folder')} it lacks` : ''}.
            </span>
          </p>
        )}
      </div>
      {fit && fit.missing.length > 0 && (
        <Tick label={`Make the ${fit.missing.length} it lacks`} checked={makeMissing} onChange={state.setMakeMissing} />
      )}
      <Button variant="main" disabled={hindrance !== null || state.isTaking} onClick={() => void state.take()}>
        {state.isTaking ? 'Taking it in…' : 'Take it in'}
      </Button>
    </>
  );
}
