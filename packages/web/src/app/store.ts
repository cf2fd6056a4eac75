import { configureStore } from '@reduxjs/toolkit';
import { type TypedUseSelectorHook, useDispatch, useSelector } from 'react-redux';
import { keepStart, startReducer } from '../features/start/start-slice';
import { api } from './api';

export const store = configureStore({
  reducer: { [api.reducerPath]: api.reducer, start: startReducer },
  middleware: (defaults) => defaults().concat(api.middleware),
});

let last = store.getState().start;
store.subscribe(() => {
  const { start } = store.getState();
  if (start !== last) keepStart(start);
  last = start;
});

export type State = ReturnType<typeof store.getState>;
export const useAppDispatch: () => typeof store.dispatch = useDispatch;
export const useAppSelector: TypedUseSelectorHook<State> = useSelector;
