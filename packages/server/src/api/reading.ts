import { createHash } from 'node:crypto';
import { type Checked } from '@crow-ladder/contract';
import { idSchema, validate } from '@crow-ladder/contract/schemas';
import { type Context } from 'hono';
import { type Keyed } from '../library.ts';
import { Refused } from '../refused.ts';

/** Refuses what does not say that it is JSON: a form of another page can say only other things. */
export function isJson(c: Context): void {
  if (!/^application\/json\b/i.test(c.req.header('content-type') ?? ''))
    throw new Refused(415, {
      code: 'not-json',
      message: 'What is sent has to be JSON, and to say so: content-type application/json.',
    });
}

/** The JSON of a request. */
export async function json(c: Context): Promise<unknown> {
  isJson(c);
  try {
    return await c.req.json();
  } catch (error) {
    if (error instanceof Refused) throw error;
    throw new Refused(400, {
      code: 'bad-json',
      message: 'This could not be read: the file or message is cut short or is not JSON.',
    });
  }
}

/** What was read, or what is wrong with it by its field. */
export function right<T>(checked: Checked<T>): T {
  if (!checked.ok) throw new Refused(422, checked.error);
  return checked.value;
}
/** The body of a request, read. */
export const body = async <T>(c: Context, read: (data: unknown) => Checked<T>): Promise<T> =>
  right(read(await json(c)));

/** The id in an address. */
export const idOf = (c: Context): string => c.req.param('id') ?? '';
/** The id of something that who makes it gives. */
export function idGiven(c: Context): string {
  const id = validate<string>(idSchema, idOf(c));
  if (id.ok) return id.value;
  throw new Refused(422, { ...id.error, code: 'bad-id', field: 'id' });
}

/** The key under which a change is made once, if it came with one, with what is asked for under it. */
export async function keyOf(c: Context): Promise<Keyed | undefined> {
  const key = c.req.header('idempotency-key');
  if (key === undefined) return undefined;
  if (!/^[\w-]{8,64}$/.test(key))
    throw new Refused(422, {
      code: 'bad-key',
      message: 'An idempotency key is 8 to 64 letters, digits, hyphens or underscores.',
    });
  const asked = createHash('sha256')
    .update(`${c.req.method} ${c.req.path}\n${await c.req.text()}`)
    .digest('hex');
  return { key, asked };
}

/** The library that something was made on, where it says so. */
export const libraryMeant = (c: Context): string | undefined => c.req.header('crow-ladder-library');

/** The revision that a deletion was decided on. */
export function revisionOf(c: Context): number {
  const revision = /^"(\d{1,15})"$/.exec(c.req.header('if-match') ?? '')?.[1];
  if (revision !== undefined) return Number(revision);
  throw new Refused(428, {
    code: 'no-revision',
    message: 'Say which revision is to be deleted, as in If-Match: "3".',
  });
}

/** What was looked for, which there may not be. */
export function found<T>(value: T | null | false, what: string): T {
  if (value === null || value === false)
    throw new Refused(404, {
      code: 'not-found',
      message: `There is no such ${what}; it may have been deleted.`,
    });
  return value;
}

/** A change of something that moved on meanwhile; `current` is how it stands. */
export const conflict = (what: string, since: 'opened' | 'read', current: unknown): Refused =>
  new Refused(
    409,
    { code: 'conflict', message: `This ${what} was changed elsewhere since it was ${since} here.` },
    current,
  );
