import { configureStore, createListenerMiddleware } from '@reduxjs/toolkit';
import { type TypedUseSelectorHook, useDispatch, useSelector } from 'react-redux';
import { peopleApi } from '../features/access/people-api';
import { blockDrafts } from '../features/blocks/block-slice';
import { conventionDrafts } from '../features/conventions/editor-slice';
import { sendingSlice } from '../features/intake/sending/sending-slice';
import { reshapes } from '../features/reshape/reshape-slice';
import { keepStart, startReducer } from '../features/start/start-slice';
import { templateDrafts } from '../features/templates/editor/template-slice';
import { api, SESSION_ENDED } from './api';

/**
 * An answer said that nobody is signed in: who is there is asked again, and the sign-in page comes. Several answers may
 * say so; after the first nobody is thought to be there, and a sign-in under way is not disturbed.
 */
const sessions = createListenerMiddleware();
const whoIsThere = peopleApi.endpoints.me.select();
sessions.startListening({
  type: SESSION_ENDED,
  effect: (_action, { dispatch, getState }) => {
    if (whoIsThere(getState() as State).isSuccess) dispatch(api.util.invalidateTags(['me']));
  },
});

export const store = configureStore({
  reducer: {
    [api.reducerPath]: api.reducer,
    start: startReducer,
    conventions: conventionDrafts.reducer,
    templates: templateDrafts.reducer,
    blocks: blockDrafts.reducer,
    reshapes: reshapes.reducer,
    sending: sendingSlice.reducer,
  },
  middleware: (defaults) => defaults().prepend(sessions.middleware).concat(api.middleware),
});

let last = store.getState();
store.subscribe(() => {
  const now = store.getState();
  if (now.start !== last.start) keepStart(now.start);
  if (now.conventions !== last.conventions) conventionDrafts.keep(now.conventions);
  if (now.templates !== last.templates) templateDrafts.keep(now.templates);
  if (now.blocks !== last.blocks) blockDrafts.keep(now.blocks);
  if (now.reshapes !== last.reshapes) reshapes.keep(now.reshapes);
  last = now;
});

export type State = ReturnType<typeof store.getState>;
export const useAppDispatch: () => typeof store.dispatch = useDispatch;
export const useAppSelector: TypedUseSelectorHook<State> = useSelector;
