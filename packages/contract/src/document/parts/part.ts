import { type Schema } from 'yup';
import { type Fields } from '../fields.ts';

/** A kind of thing that a chart holds, with the one codec that rows, backups, drafts and addresses share. */
export interface PartKind<T> {
  readonly name: string;
  readonly schema: Schema;
  /** What was written before, as it is written today; `chart` holds it. What cannot be brought up is left to the schema. */
  readonly upgrade: (was: Fields, chart: Fields) => unknown;
  /** The word of an address for it; what a word says is checked by the schema. */
  readonly word: { readonly write: (part: T) => string; readonly read: (word: string) => unknown };
}
