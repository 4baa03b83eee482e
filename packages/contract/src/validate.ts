import { type Schema, ValidationError } from 'yup';
import { type Checked } from './checked.ts';

interface Checker {
  readonly validateSync: Schema['validateSync'];
}

/** Checks data against a schema and reports the first thing that is wrong, by field. */
export function validate<T>(schema: Checker, data: unknown): Checked<T> {
  try {
    return { ok: true, value: schema.validateSync(data, { strict: true, abortEarly: true }) as T };
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    return {
      ok: false,
      error: { code: 'invalid', message: error.message, ...(error.path ? { field: error.path } : {}) },
    };
  }
}
