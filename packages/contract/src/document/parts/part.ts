import { mixed, type Schema } from 'yup';
import { type Writable, wrongAt } from '../../fields.ts';
import { validate } from '../../validate.ts';
import { type Fields, isFieldsOf } from '../fields.ts';

/** A kind of thing that a chart holds, with the one codec that rows, backups, drafts and addresses share. */
export interface PartKind<T> {
  readonly name: string;
  readonly schema: Schema;
  /** What was written before, as it is written today; `chart` holds it. What cannot be brought up is left to the schema. */
  readonly upgrade: (was: Fields, chart: Fields) => unknown;
  /** The word of an address for it; what a word says is checked by the schema. */
  readonly word: { readonly write: (part: T) => string; readonly read: (word: string) => unknown };
}

/** Things that are told by their type, each with its schema; what a later application keeps is of another one, and is kept as it is. */
export const typedSchema = <T extends { readonly type?: unknown }>(
  schemas: Readonly<Record<string, Schema>>,
  unknown: string,
) =>
  mixed<Writable<T>>(isFieldsOf)
    .meta({ types: schemas, others: true })
    .required()
    .test('type', unknown, (part, context) => {
      const type: unknown = (part as T | undefined)?.type;
      const schema = typeof type === 'string' && Object.hasOwn(schemas, type) ? schemas[type] : undefined;
      if (!schema) return true;
      const read = validate<T>(schema as never, part);
      return read.ok || wrongAt(context, read.error.field, read.error.message);
    });
