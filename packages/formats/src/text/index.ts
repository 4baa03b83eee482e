import { type FormatOf } from '../format.ts';
import { NAMED } from '../named.ts';
import { readText } from './read.ts';
import { writeText } from './write.ts';

/** Plain text tablature. */
export const textFormat = {
  ...NAMED.text,
  write: writeText,
  read: readText,
} satisfies FormatOf;
