import { type ThunkDispatch, type UnknownAction } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import { type AppState } from '../app/state.ts';
import { type Outside } from '../ports/outside.ts';
import { type SavingOutside } from './saving.ts';
import { type WithSessions } from './sessions.ts';

/** All that the page knows: its open charts, and everything beside them. */
export type State = AppState & WithSessions;
export type Send = ThunkDispatch<State, Outside & SavingOutside, UnknownAction>;
/** The page's store, for who asks it past the renders. */
export interface Store {
  readonly getState: () => State;
  readonly dispatch: Send;
  readonly subscribe: (listener: () => void) => () => void;
}
export const useAll = useSelector.withTypes<State>();
export const useSendAll = useDispatch.withTypes<Send>();
