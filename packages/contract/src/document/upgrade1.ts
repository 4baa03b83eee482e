import { type Fields } from './fields.ts';

/**
 * Version 1 had no version: root, scale, string and fret stood side by side, and which position was in front was not kept.
 * What is missing or of a wrong type is left to the check of the newest version.
 */
export function upgrade1({ root, scale, string, fret, ...rest }: Fields): Fields {
  return { ...rest, v: 2, key: { root, scale }, at: { string, fret }, front: null };
}
