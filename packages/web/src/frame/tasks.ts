import { createContext, useContext } from 'react';
import { type TaskEntry } from '../task/task.ts';

const Context = createContext<readonly TaskEntry[]>([]);
/** Gives the frame its tasks, in the order of their row; the first one opens where an address names none. */
export const TasksProvider = Context.Provider;
export const useTasks = (): readonly TaskEntry[] => useContext(Context);
