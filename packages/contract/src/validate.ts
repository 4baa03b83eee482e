import { type Schema, ValidationError } from 'yup';
import { type Checked } from './checked.ts';
import { textTrouble, tidied } from './text.ts';

interface Checker {
  readonly validateSync: Schema['validateSync'];
}

/** Checks data against a schema and reports the first thing that is wrong, by field. Texts come out as they are kept. */
export function validate<T>(schema: Checker, data: unknown): Checked<T> {
  const odd = textTrouble(data);
  if (odd)
    return {
      ok: false,
      error: { code: 'invalid', message: odd.message, ...(odd.field ? { field: odd.field } : {}) },
    };
  try {
    return { ok: true, value: schema.validateSync(tidied(data), { strict: true, abortEarly: true }) as T };
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    return {
      ok: false,
      error: { code: 'invalid', message: error.message, ...(error.path ? { field: error.path } : {}) },
    };
  }
}
