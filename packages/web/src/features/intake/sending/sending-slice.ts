/** Files of this computer on their way to the server: they go on while other pages are looked at. */
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { HowFar, Sent } from '../../../workers/sending-worker';

interface All {
  readonly volume: string;
  readonly name: string;
  readonly allFiles: number;
  readonly allBytes: number;
  /** Milliseconds since 1970. */
  readonly since: number;
}

export type SendingState =
  | { readonly kind: 'idle' }
  | ({ readonly kind: 'sending' } & All & HowFar)
  | ({ readonly kind: 'ended' } & All & Sent);

const idle = (): SendingState => ({ kind: 'idle' });

export const sendingSlice = createSlice({
  name: 'sending',
  initialState: idle,
  reducers: {
    begun: (_state, { payload }: PayloadAction<All>): SendingState => ({
      ...{ kind: 'sending', ...payload },
      ...{ folder: '', files: 0, bytes: 0, isWaiting: false },
    }),
    told: (state, { payload }: PayloadAction<HowFar>): SendingState =>
      state.kind === 'sending' ? { ...state, ...payload } : state,
    ended: (state, { payload }: PayloadAction<Sent>): SendingState => {
      if (state.kind !== 'sending') return state;
      const { volume, name, allFiles, allBytes, since } = state;
      return { kind: 'ended', volume, name, allFiles, allBytes, since, ...payload };
    },
    putAway: idle,
  },
});
