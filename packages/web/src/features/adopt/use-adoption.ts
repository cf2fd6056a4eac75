/** The state of a folder that is taken in: the template chosen for it, its values, and what is in the way. */
import type { FitRow, TemplateRow } from '@nesting/contract';
import type { Registers, Value, Values } from '@nesting/core/name';
import { compileTemplate, type Diagnostic } from '@nesting/core/template';
import { wordsFor } from '@nesting/core/words';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { troubleOf } from '../../app/api';
import { changesApi } from '../batches/changes-api';

export interface AdoptInput {
  readonly volume: string;
  readonly folder: string;
  readonly volumes: readonly string[];
  readonly registers: Registers;
  readonly templates: readonly TemplateRow[];
  readonly onPlace: (volume: string, folder: string) => void;
}

export type Adoption = ReturnType<typeof useAdoption>;

export function useAdoption({ volume, folder, registers, templates }: AdoptInput) {
  const go = useNavigate();
  const { data, error, isFetching } = changesApi.useFitsQuery({ volume, folder }, { skip: folder === '' });
  const [chosen, setChosen] = useState<string | null>(null);
  const [given, setGiven] = useState<Values>({});
  const [makeMissing, setMakeMissing] = useState(false);
  const [adopt, adopting] = changesApi.useAdoptMutation();
  const fit = data?.fits.find((f) => f.template === chosen) ?? data?.fits[0];
  const row = templates.find((t) => t.id === fit?.template);
  const values = useMemo<Values>(() => ({ ...fit?.values, ...given }), [fit, given]);
  const expansion = useMemo(
    () =>
      row === undefined || fit === undefined
        ? null
        : compileTemplate({ ...row.template, adjusted: fit.adjusted }, registers).expand(values),
    [row, fit, registers, values],
  );
  const give = (key: string, value: Value) => setGiven({ ...given, [key]: value });
  const hindrance = hindranceOf(folder, fit, values, expansion?.diagnostics ?? []);
  const take = async () => {
    if (fit === undefined) return;
    const made = await adopt({
      volume,
      folder,
      template: fit.template,
      edition: fit.edition,
      values: values,
      adjusted: fit.adjusted,
      makeMissing,
    })
      .unwrap()
      .catch(() => null);
    if (made !== null) await go(`/projects/${made.id}`);
  };

  return {
    data,
    error,
    isFetching,
    fit,
    row,
    values,
    expansion,
    hindrance,
    makeMissing,
    setMakeMissing,
    take,
    give,
    isTaking: adopting.isLoading,
    trouble: adopting.isError ? troubleOf(adopting.error) : null,
    choose: (template: string) => {
      setChosen(template);
      setGiven({});
    },
  };
}

/** Why the folder cannot be taken in yet. */
function hindranceOf(
  folder: string,
  fit: FitRow | undefined,
  values: Values,
  diagnostics: readonly Diagnostic[],
): string | null {
  if (folder === '') return 'Choose a folder first.';
  if (fit === undefined) return 'Nothing fits yet.';
  if (String(values.number ?? '') === '') return 'It needs a number.';
  const refused = diagnostics.find((d) => d.weight === 'refused');
  return refused ? wordsFor(refused.code, refused.params) : null;
}
