import { type ApiError } from '@crow-ladder/contract';
import { list } from '@crow-ladder/core';
import { type Context } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import { type ContentfulStatusCode } from 'hono/utils/http-status';

/** An answer other than the one asked for; turned into JSON in one place. */
export class Refused extends Error {
  constructor(
    readonly status: ContentfulStatusCode,
    readonly answer: ApiError,
    readonly current?: unknown,
  ) {
    super(answer.message);
  }
}

export const LIBRARY_GONE =
  'The file of the library was moved or deleted while Crow Ladder runs, so nothing can be saved: put it back, then start Crow Ladder again.';

/** What was made on another library, or before a backup took this one's place, is not for this one. */
export const OTHER_LIBRARY = new Refused(409, {
  code: 'other-library',
  message:
    'This was made before another library took the place of the one that it was made on, so nothing was changed.',
});

/** What the database cannot do for now, and may do later. */
const FOR_NOW: readonly (readonly [code: RegExp, status: ContentfulStatusCode, answer: ApiError])[] = [
  [
    /^(SQLITE_FULL|ENOSPC)/,
    507,
    {
      code: 'disk-full',
      message: 'The disk is full, so nothing can be saved: make room. Your work is still here.',
    },
  ],
  [/^SQLITE_CANTOPEN/, 503, { code: 'library-gone', message: LIBRARY_GONE }],
  [
    /^SQLITE_BUSY/,
    503,
    { code: 'busy', message: 'The library is in use by another program for too long; nothing was changed.' },
  ],
  [
    /^(SQLITE_READONLY|SQLITE_IOERR)/,
    503,
    { code: 'not-writable', message: 'The library cannot be written to now; nothing was changed.' },
  ],
];

const forNow = ({ code = '' }: { code?: string }) => FOR_NOW.find(([of]) => of.test(code));
/** Whether an error is of what the database cannot do for now. */
export const isForNow = (error: unknown): boolean => forNow(error as { code?: string }) !== undefined;

/** An error as the API answers it. What is none of its own is told as one of the server; of what it holds nothing is logged, as that may be a player's. */
export function answered(error: unknown, c: Context): Response {
  if (error instanceof Refused)
    return c.json(
      { error: error.answer, ...(error.current ? { current: error.current } : {}) },
      error.status,
    );
  const { code = '', stack = '' } = error as { code?: string; stack?: string };
  const now = forNow({ code });
  if (now) return c.json({ error: now[2] }, now[1]);
  const frames = stack
    .split('\n')
    .filter((line) => /^\s+at /.test(line))
    .slice(0, 8);
  console.error([`${c.req.method} ${c.req.routePath} failed ${code}`.trim(), ...frames].join('\n'));
  return c.json(
    { error: { code: 'server', message: 'Something went wrong on the server; nothing was changed.' } },
    500,
  );
}

/** Says by which methods alone an address is asked. */
export function noSuchMethod(c: Context, methods: readonly string[]): Response {
  c.header('Allow', methods.join(', '));
  return answered(
    new Refused(405, {
      code: 'no-such-method',
      message: `This address takes ${list(methods, 'or')} alone.`,
    }),
    c,
  );
}

/** Refuses a request that is larger than `maxSize` bytes. */
export const limited = (maxSize: number) =>
  bodyLimit({
    maxSize,
    onError: () => {
      throw new Refused(413, {
        code: 'too-large',
        message: `This is larger than ${maxSize / 1000} kB, the most that can be taken in one piece.`,
      });
    },
  });
