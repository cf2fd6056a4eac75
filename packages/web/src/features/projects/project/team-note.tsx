/** What the team should know, at the head of a project's page: everybody reads it, a coordinator writes it. */
import type { ProjectPage } from '@nesting/contract';
import { useId, useState } from 'react';
import { troubleOf } from '../../../app/api';
import { ago, moment } from '../../../app/words';
import { Button, Heading, Labelled, Lines, Refused } from '../../../ui';
import { useEditProject } from '../use-edit-project';

const TITLE = 'What the team should know';

export function TeamNote({ project, mayWrite }: { project: ProjectPage; mayWrite: boolean }) {
  const { teamNote } = project;
  const { keep, error } = useEditProject(project);
  const [isWriting, setWriting] = useState(false);
  if (isWriting)
    return (
      <NoteForm
        text={teamNote.text}
        error={error}
        onKeep={async (text) => {
          // What was written stays in the form until it is kept.
          if (text === teamNote.text || (await keep({ teamNote: text }))) setWriting(false);
        }}
        onLeave={() => setWriting(false)}
      />
    );
  return (
    <section aria-label={TITLE} className="flex flex-col items-start gap-1">
      {teamNote.text !== '' && (
        <>
          <Heading>{TITLE}</Heading>
          <p
            // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled by keyboard
            tabIndex={0}
            className="max-h-40 w-full overflow-auto rounded-tray border-l-4 border-ochre bg-sheet px-3 py-2 break-words whitespace-pre-line"
          >
            {teamNote.text}
          </p>
          <NoteAuthor note={teamNote} />
        </>
      )}
      {mayWrite && (
        <Button variant="quiet" className="h-6!" onClick={() => setWriting(true)}>
          {teamNote.text === '' ? 'Tell the team something…' : 'Change it…'}
        </Button>
      )}
    </section>
  );
}

function NoteAuthor({ note: { by, at } }: { note: ProjectPage['teamNote'] }) {
  if (by === null || at === null) return null;
  return (
    <p className="text-xs text-ink2" title={moment(at)}>
      {by}, {ago(at)}
    </p>
  );
}

interface NoteFormProps {
  readonly text: string;
  readonly error: unknown;
  readonly onKeep: (text: string) => Promise<void>;
  readonly onLeave: () => void;
}

function NoteForm({ text, error, onKeep, onLeave }: NoteFormProps) {
  const id = useId();
  const [written, setWritten] = useState(text);
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        void onKeep(written.trim());
      }}
    >
      <Labelled id={id} label={TITLE}>
        <Lines
          id={id}
          rows={5}
          autoFocus
          value={written}
          maxLength={20_000}
          onChange={(e) => setWritten(e.target.value)}
          className="font-sans"
        />
      </Labelled>
      <Refused words={error ? troubleOf(error) : null} />
      <span className="flex gap-3">
        <Button type="submit">Keep it</Button>
        <Button variant="quiet" onClick={onLeave}>
          Cancel
        </Button>
      </span>
    </form>
  );
}
