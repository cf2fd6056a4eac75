import { configureStore, createListenerMiddleware } from '@reduxjs/toolkit';
import { type TypedUseSelectorHook, useDispatch, useSelector } from 'react-redux';
import { blockDrafts } from '../features/blocks/block-slice';
import { conventionDrafts } from '../features/conventions/editor-slice';
import { reshapes } from '../features/reshape/reshape-slice';
import { keepStart, startReducer } from '../features/start/start-slice';
import { templateDrafts } from '../features/templates/editor/template-slice';
import { api, SESSION_ENDED } from './api';

/** All that was asked for by somebody who is not signed in any more is forgotten, but for what is being written. */
const sessions = createListenerMiddleware();
sessions.startListening({
  type: SESSION_ENDED,
  effect: (_action, { dispatch }) => {
    dispatch(api.util.resetApiState());
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
