/** How project numbers are made: their pattern, when the count begins anew, codes for kinds of work. */
import type { NumberPage } from '@nesting/contract';
import { compileSeries, type NumberSeries, RESETS, type Reset } from '@nesting/core/numbers';
import { wordsFor } from '@nesting/core/words';
import { useId, useMemo, useState } from 'react';
import { troubleOf } from '../../app/api';
import { Button, Choose, Confirm, Heading, Labelled, Refused, TextInput } from '../../ui';
import { templatesApi } from '../templates/templates-api';
import { houseApi } from './house-api';
import { numbersApi } from './numbers-api';

const RESET_WORDS: Readonly<Record<Reset, string>> = {
  never: 'never',
  yearly: 'each year',
  monthly: 'each month',
  client: 'for each client',
  'client-yearly': 'for each client, each year',
};

export function NumberSeriesForm({ page, mayWrite }: { page: NumberPage; mayWrite: boolean }) {
  const id = useId();
  const [series, setSeries] = useState<NumberSeries>(page.series);
  const [save, { error }] = numbersApi.useSaveSeriesMutation();
  const made = useMemo(() => compileSeries(series), [series]);
  const sample = useSample(series, made);
  const dirty = JSON.stringify(series) !== JSON.stringify(page.series);
  return (
    <section aria-label="How numbers are made" className="flex flex-col gap-3">
      <Heading>How they are made</Heading>
      <Labelled id={`${id}p`} label="Pattern" help="{year} {yy} {month} {client} {kind} and the count, {n:000}">
        <TextInput
          id={`${id}p`}
          value={series.pattern}
          readOnly={!mayWrite}
          fault={!made.ok}
          onChange={(e) => setSeries({ ...series, pattern: e.target.value })}
          className="font-mono"
          spellCheck={false}
          becomes={sample?.ok ? sample.value : undefined}
        />
      </Labelled>
      <SeriesFaults made={made} sample={sample} />
      <ResetFields series={series} readOnly={!mayWrite} onChange={setSeries} />
      {series.pattern.includes('{kind}') && <KindFields series={series} readOnly={!mayWrite} onChange={setSeries} />}
      <Refused words={error && troubleOf(error)} />
      {mayWrite && dirty && (
        <span className="flex gap-3">
          <Confirm
            trigger={
              <Button variant="main" disabled={!made.ok}>
                Number so from now on…
              </Button>
            }
            title="Number projects so from now on?"
            act="Number so from now on"
            run={() => void save({ series, version: page.version })}
          >
            Projects keep the numbers they have. The next one would be{' '}
            <span className="font-mono">{sample?.ok ? sample.value : '…'}</span> or the first that is free after it.
          </Confirm>
          <Button onClick={() => setSeries(page.series)}>Cancel the changes</Button>
        </span>
      )}
    </section>
  );
}

function withKind(kinds: NumberSeries['kinds'], template: string, code: string): NumberSeries['kinds'] {
  const { [template]: _old, ...others } = kinds;
  return code === '' ? others : { ...others, [template]: code };
}

type Made = ReturnType<typeof compileSeries>;

/** The first number of the series as it stands. */
function useSample(series: NumberSeries, made: Made) {
  const { data: templates = [] } = templatesApi.useTemplatesQuery();
  const { data: registers } = houseApi.useRegistersQuery();
  if (!made.ok) return null;
  const now = new Date();
  const of = {
    year: now.getFullYear(),
    month: now.getMonth() + 1,
    client: registers?.clients[0]?.code ?? 'ABC',
    template: Object.keys(series.kinds)[0] ?? templates[0]?.id ?? null,
  };
  return made.value.write(of, series.start);
}

const faultWords = (fault: { readonly code: string }): string => wordsFor(fault.code, { ...fault });

function SeriesFaults({ made, sample }: { made: Made; sample: ReturnType<typeof useSample> }) {
  if (!made.ok)
    return (
      <ul className="text-sm text-brick">
        {made.faults.map((f) => (
          <li key={JSON.stringify(f)}>{faultWords(f)}</li>
        ))}
      </ul>
    );
  const [first] = sample === null || sample.ok ? [] : sample.faults;
  return first === undefined ? null : <p className="text-sm text-ochre">{faultWords(first)}</p>;
}

interface SeriesProps {
  readonly series: NumberSeries;
  readonly readOnly: boolean;
  readonly onChange: (series: NumberSeries) => void;
}

function ResetFields({ series, readOnly, onChange }: SeriesProps) {
  const id = useId();
  return (
    <div className="grid grid-cols-2 gap-3">
      <Labelled id={`${id}r`} label="The count begins anew">
        <Choose
          id={`${id}r`}
          label="The count begins anew"
          disabled={readOnly}
          value={series.reset}
          options={RESETS.map((value) => ({ value, label: RESET_WORDS[value] }))}
          onChange={(reset) => onChange({ ...series, reset })}
        />
      </Labelled>
      <Labelled id={`${id}s`} label="From">
        <TextInput
          id={`${id}s`}
          type="number"
          min={0}
          max={1_000_000}
          readOnly={readOnly}
          value={series.start}
          onChange={(e) =>
            onChange({ ...series, start: Math.max(0, Math.min(1_000_000, Math.floor(Number(e.target.value)))) })
          }
        />
      </Labelled>
    </div>
  );
}

function KindFields({ series, readOnly, onChange }: SeriesProps) {
  const id = useId();
  const { data: templates = [] } = templatesApi.useTemplatesQuery();
  return templates.map((t) => (
    <Labelled key={t.id} id={`${id}${t.id}`} label={`Kind: ${t.name}`}>
      <TextInput
        id={`${id}${t.id}`}
        value={series.kinds[t.id] ?? ''}
        readOnly={readOnly}
        maxLength={12}
        onChange={(e) =>
          onChange({
            ...series,
            kinds: withKind(series.kinds, t.id, e.target.value.replace(/[^A-Za-z0-9-]/g, '')),
          })
        }
        className="font-mono"
      />
    </Labelled>
  ));
}
