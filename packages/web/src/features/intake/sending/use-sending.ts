/** Sends files of this computer, one choice at a time; what was chosen last can be gone on with. */
import { proxy } from 'comlink';
import { api } from '../../../app/api';
import { type State, useAppDispatch, useAppSelector } from '../../../app/store';
import { sendingWorker } from '../../../workers/sending';
import type { PlacedFile, Sending } from '../../../workers/sending-worker';
import { sendingSlice } from './sending-slice';

const { begun, told, ended, putAway } = sendingSlice.actions;

/** Files are no data that a store can hold. */
let last: Sending | null = null;

/** A page that is left takes its files with it. */
const askFirst = (event: BeforeUnloadEvent): void => event.preventDefault();

export function useSending() {
  const dispatch = useAppDispatch();
  const state = useAppSelector(({ sending }: State) => sending);
  const send = async (asked: Sending) => {
    const { volume, name, files } = asked;
    last = asked;
    const allBytes = files.reduce((sum, { file }) => sum + file.size, 0);
    dispatch(begun({ volume, name, allFiles: files.length, allBytes, since: Date.now() }));
    globalThis.addEventListener('beforeunload', askFirst);
    const sent = await sendingWorker().send(
      asked,
      proxy((how) => void dispatch(told(how))),
    );
    globalThis.removeEventListener('beforeunload', askFirst);
    dispatch(ended(sent));
    // The inboxes hold more than before.
    dispatch(api.util.invalidateTags(['volumes']));
    return sent;
  };
  return {
    state,
    send,
    again: async () => (last === null ? null : send(last)),
    stop: () => void sendingWorker().stop(),
    /** What is not whole is given up; what is stays. */
    leave: async () => {
      if (last !== null) await sendingWorker().leave(last);
      dispatch(putAway());
      dispatch(api.util.invalidateTags(['volumes']));
    },
    putAway: () => void dispatch(putAway()),
  };
}

export type SendingFiles = ReturnType<typeof useSending>;

/** Files of a choice, by where they lie in it. */
export const placedFiles = (files: readonly File[]): readonly PlacedFile[] =>
  files.map((file) => ({ path: insideOf(file), file }));

/** A folder that was chosen is the heap itself. */
const insideOf = ({ webkitRelativePath: at, name }: File): string => (at === '' ? name : at.slice(at.indexOf('/') + 1));
