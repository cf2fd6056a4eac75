/** A folder of the project, to be written or chosen among the planned ones. */
import type { ProjectPage } from '@nesting/contract';
import type { Registers } from '@nesting/core/name';
import { ProjectRules } from '@nesting/core/project';
import { useEffect, useMemo, useState } from 'react';
import { Labelled, TextInput } from '../ui';

interface Props {
  readonly id: string;
  readonly label: string;
  /** Whose folder it is. */
  readonly project: Pick<ProjectPage, 'body' | 'values'>;
  readonly registers: Registers;
  /** From the project's root; empty where none is known, or it is the root. */
  readonly given: string;
  readonly onFolder: (folder: string) => void;
}

/** More than that nobody chooses among; each can be written. */
const MOST_OFFERED = 1000;

export function FolderField({ id, label, project, registers, given, onFolder }: Props) {
  const [folder, setFolder] = useState(given);
  useEffect(() => setFolder(given), [given]);
  const planned = useMemo(() => {
    const rules = new ProjectRules({ template: project.body, values: project.values, registers });
    const folders = rules.expansion.lines.filter((l) => l.kind === 'folder' && l.elsewhere === undefined);
    return folders.slice(0, MOST_OFFERED).map((l) => l.path);
  }, [project.body, project.values, registers]);
  const take = () => {
    const written = folder
      .trim()
      .replaceAll('\\', '/')
      .replace(/^\/+|\/+$/g, '');
    if (written !== given) onFolder(written);
  };
  return (
    <Labelled id={id} label={label} help={folder === '' && given !== '' ? 'Empty is the project’s root.' : undefined}>
      <TextInput
        id={id}
        value={folder}
        list={`${id}-planned`}
        maxLength={4096}
        className="font-mono"
        spellCheck={false}
        autoComplete="off"
        onChange={(e) => setFolder(e.target.value)}
        onBlur={take}
        onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
      />
      <datalist id={`${id}-planned`}>
        {planned.map((path) => (
          <option key={path} value={path} />
        ))}
      </datalist>
    </Labelled>
  );
}
