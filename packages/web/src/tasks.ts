import { chords } from './features/chords/index.ts';
import { compare } from './features/compare/index.ts';
import { formula } from './features/formula/index.ts';
import { ladder } from './features/ladder/index.ts';
import { move } from './features/move/index.ts';
import { phrases } from './features/phrases/index.ts';
import { practice } from './features/practice/index.ts';
import { shape } from './features/shape/index.ts';
import { type TaskEntry } from './task/task.ts';

/** Every task, in the order of the row. The first one opens where the address names none. */
export const TASKS: readonly TaskEntry[] = [shape, formula, ladder, move, compare, chords, practice, phrases];
