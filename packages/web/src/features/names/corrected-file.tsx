/** A corrected file for a name that is taken: sent in under that name, and put in its place by a plan that is shown first. */
import type { Me, ProjectPage } from '@nesting/contract';
import { useEffect, useRef } from 'react';
import { useNavigate } from 'react-router';
import { many } from '../../app/words';
import { FileButton, Heading } from '../../ui';
import { volumesApi } from '../house/volumes-api';
import { useSending } from '../intake/sending/use-sending';

interface Props {
  readonly me: Me;
  readonly project: Pick<ProjectPage, 'id' | 'number'>;
  /** The name that is taken. */
  readonly name: string;
}

export function CorrectedFile({ me, project, name }: Props) {
  const go = useNavigate();
  const { data: volumes = [] } = volumesApi.useVolumesQuery();
  const { state, send } = useSending();
  const inbox = volumes.find((v) => v.isInbox && v.state === 'ready')?.name;
  const isMine = state.kind !== 'idle' && state.name === heapOf(name, me.initials);
  const isLooking = useRef(true);
  useEffect(
    () => () => {
      isLooking.current = false;
    },
    [],
  );
  const give = async (file: File) => {
    if (inbox === undefined) return;
    const sent = await send({ volume: inbox, name: heapOf(name, me.initials), files: [{ path: name, file }] });
    // Whoever looks at another page by now is left there.
    const isGoing = me.role === 'coordinator' && isLooking.current;
    if (sent.why !== null || sent.failed.length > 0 || !isGoing) return;
    await go(`/projects/${project.id}/intake?${new URLSearchParams({ volume: inbox, folder: sent.folder })}`);
  };
  return (
    <section aria-label="A corrected file" className="flex flex-col gap-2">
      <Heading>Have you corrected it?</Heading>
      <p className="text-sm text-ink2">
        A file that others refer to keeps its name. Send the new one in: the one that lies there is kept.
      </p>
      {inbox === undefined ? (
        <p className="text-sm">No volume takes files from here yet.</p>
      ) : isMine && state.kind === 'sending' ? (
        <p role="status">{`Sending it… ${many(state.files, 'file')} there.`}</p>
      ) : isMine && state.kind === 'ended' ? (
        <p role="status" className={state.why === null && state.failed.length === 0 ? '' : 'text-brick'}>
          {state.why ?? state.failed[0]?.why ?? 'It has arrived. A coordinator puts it in its place.'}
        </p>
      ) : (
        <FileButton
          label={`A corrected ${name}`}
          className="self-start"
          disabled={state.kind !== 'idle'}
          onFiles={([file]) => void give(file)}
        >
          Choose the corrected file…
        </FileButton>
      )}
    </section>
  );
}

const heapOf = (name: string, by: string): string => `corrected ${name} from ${by}`;
