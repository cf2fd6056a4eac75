/**
 * Named folders of a project with their whole path in the form of the reader's system; for programs as files and by
 * address.
 */

import { type ProjectPage, SYSTEMS } from '@nesting/contract';
import { pathOn, SIGNPOST_FORMATS, type SignpostFormat, signpostsOf } from '@nesting/core/project';
import type { Expansion } from '@nesting/core/template';
import { useMemo } from 'react';
import { addressFor } from '../../app/endpoints';
import { chooseReaderSystem, SYSTEM_WORDS, useReaderSystem } from '../../app/reader-path';
import { CopyButton, Heading, Radios } from '../../ui';
import { volumesApi } from '../house/volumes-api';

const SHOWN = 60;

export function SignpostsPanel({ project, expansion }: { project: ProjectPage; expansion: Expansion }) {
  const system = useReaderSystem();
  // Those of the whole project first, then those made once for each entry.
  const signposts = useMemo(
    () => signpostsOf(expansion).toSorted((a, b) => Number(a.name.includes('.')) - Number(b.name.includes('.'))),
    [expansion],
  );
  const { data: volumes = [] } = volumesApi.useVolumesQuery();
  const prefixOf = (name: string): string => {
    const volume = volumes.find((v) => v.name === name);
    return volume?.prefixes[system] || (system === 'linux' ? (volume?.root ?? '') : '');
  };
  const prefix = prefixOf(project.volume);
  const address = (form: SignpostFormat) =>
    addressFor('signposts', { project: project.number, query: { as: form, system } });
  return (
    <section aria-label="Paths for programs" className="flex flex-col gap-2 text-sm">
      <Heading>Paths for programs</Heading>
      <Radios
        label="System"
        value={system}
        onChange={chooseReaderSystem}
        options={SYSTEMS.map((value) => ({ value, label: SYSTEM_WORDS[value] }))}
      />
      {prefix === '' && (
        <p className="text-ochre">
          Nobody has said how {SYSTEM_WORDS[system]} sees the volume {project.volume}: a coordinator does, among the
          volumes.
        </p>
      )}
      <ul>
        {signposts.slice(0, SHOWN).map((s) => {
          const whole = pathOn(
            system,
            prefixOf(s.volume ?? project.volume) || (s.volume ?? project.volume),
            project.folder,
            s.path,
          );
          return (
            <li key={s.name} className="flex items-start gap-1 border-b border-line py-1">
              <span className="min-w-0 flex-1">
                <span className="font-semibold">{s.name}</span>
                <span className="block font-mono text-xs break-all text-note">{whole}</span>
              </span>
              <CopyButton text={whole} what={`the path of ${s.name}`} />
            </li>
          );
        })}
        {signposts.length > SHOWN && (
          <li className="py-1 text-ink2">and {signposts.length - SHOWN} more, in the files</li>
        )}
      </ul>
      {prefix !== '' && (
        <p className="flex flex-wrap gap-x-3 gap-y-1">
          For programs:{' '}
          {SIGNPOST_FORMATS.map((form) => (
            <a
              key={form}
              href={address(form)}
              download={`${project.number}.${{ json: 'json', dotenv: 'env', sh: 'sh', powershell: 'ps1' }[form]}`}
              className="text-bottle underline"
            >
              {form}
            </a>
          ))}
        </p>
      )}
      <p className="text-xs text-ink2">
        A script asks with an access key: <span className="font-mono break-all">{address('json')}</span>
      </p>
    </section>
  );
}
