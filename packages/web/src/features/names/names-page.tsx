/**
 * What to call a file and where to put it: for artists, on a phone too. Or a name found somewhere, read and put right.
 */

import type { Me } from '@nesting/contract';
import { NO_REGISTERS } from '@nesting/core/name';
import { useOutletContext } from 'react-router';
import { troubleOf } from '../../app/api';
import { useAddress } from '../../app/use-address';
import { usePageTitle } from '../../app/use-page-title';
import { Columns } from '../../columns/columns';
import { Button, Empty, Trouble } from '../../ui';
import { Finder } from '../../ui/finder';
import { houseApi } from '../house/house-api';
import { projectsApi } from '../projects/projects-api';
import { ProjectChoice, SlotField, WhatChoice } from './name-fields';
import { NameMeaning } from './name-meaning';
import { isOptional } from './name-preview';
import { NameResult } from './name-result';
import { askedSlots } from './project-names';
import { type NameAsked, useNameAsked } from './use-name-asked';

export function NamesPage() {
  const me = useOutletContext<Me>();
  const { data: projects, isError, error, refetch } = projectsApi.useSomeProjectsQuery('');
  const { data: registers = NO_REGISTERS } = houseApi.useRegistersQuery();
  usePageTitle('Name helper');
  const [, put] = useAddress();
  const asked = useNameAsked(me, projects ?? [], registers);
  if (isError) return <Trouble message={troubleOf(error)} again={() => void refetch()} />;
  if (projects === undefined) return null;
  if (asked.running.length === 0)
    return (
      <Empty title="No project is running">
        When one is, this page says what to call a file in it, and where to put it.
      </Empty>
    );
  return (
    <Columns
      id="names"
      labels={['What is being saved', 'What to call it', 'A name that is there already']}
      given={<Asked asked={asked} />}
      plan={
        asked.place === undefined || asked.page === undefined ? (
          <Empty title="Choose what you are saving">
            Then its whole name stands here, with the folder it belongs in and the next version that is free.
          </Empty>
        ) : (
          <NameResult
            place={asked.place.line}
            preview={asked.preview}
            held={asked.held}
            refused={asked.refused}
            takenName={asked.takenName}
            me={me}
            project={asked.page}
          />
        )
      }
      consequence={<NameMeaning names={asked.names} name={asked.pasted} onName={(name) => put({ name })} />}
      ledger={<Ledger asked={asked} />}
    />
  );
}

function Asked({ asked }: { asked: NameAsked }) {
  const [, put] = useAddress();
  const { names, savable, place, filled, row } = asked;
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        if (asked.mayAsk && asked.preview?.complete) asked.give();
      }}
    >
      <h1 className="text-xl font-semibold">What to call a file</h1>
      <ProjectChoice
        running={asked.running}
        row={row}
        onChoose={(number) => put({ project: number, save: null, in: null })}
      />
      {asked.lost && <Trouble message={asked.lost} />}
      {names && (
        <WhatChoice
          names={names}
          savable={savable}
          onChoose={(id) => put({ project: row?.number ?? '', save: id, in: null })}
        />
      )}
      {savable && savable.places.length > 1 && (
        <Finder
          label="Where"
          mono
          options={savable.places.map(({ line }) => ({ value: line.path, label: line.path }))}
          value={place?.line.path ?? null}
          onChoose={(path) => put({ in: path })}
        />
      )}
      {place &&
        askedSlots(place.rule).map((slot) => (
          <SlotField
            key={slot.field}
            field={slot.field}
            domain={slot.domain}
            value={String(filled[slot.field] ?? '')}
            optional={isOptional(place.rule, slot.field)}
            onGive={(value) => put({ [`v.${slot.field}`]: value })}
          />
        ))}
      <button type="submit" hidden aria-hidden />
    </form>
  );
}

function Ledger({ asked: { held, mayAsk, place, preview, isAsking, give } }: { asked: NameAsked }) {
  return (
    <>
      <p className="flex-1" role="status">
        {held ? (
          <>
            <strong className="font-semibold">
              Yours until {new Date(held.until).toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit' })}.
            </strong>{' '}
            <span className="text-ink2">Nobody else is given this name before then. Nothing was written.</span>
          </>
        ) : (
          <span className="text-ink2">
            {mayAsk
              ? 'The next free version is looked up on the disk when you ask, and held for you for ten minutes.'
              : 'As a lead you may look; artists and coordinators are given names.'}
          </span>
        )}
      </p>
      {mayAsk && (
        <Button variant="main" disabled={place === undefined || !preview?.complete || isAsking} onClick={give}>
          {held ? 'Ask again' : 'Give me the name'}
        </Button>
      )}
    </>
  );
}
