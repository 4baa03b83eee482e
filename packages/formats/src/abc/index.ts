import { type FormatOf } from '../format.ts';
import { NAMED } from '../named.ts';
import { readAbc } from './read.ts';
import { writeAbc } from './write.ts';

/** ABC notation 2.1. */
export const abcFormat = {
  ...NAMED.abc,
  write: writeAbc,
  read: readAbc,
} satisfies FormatOf;
