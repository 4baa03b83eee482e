import { createHash, timingSafeEqual } from 'node:crypto';
import { getConnInfo } from '@hono/node-server/conninfo';
import { PASSCODE_LIMIT } from '@crow-ladder/contract';
import { type Context, Hono, type MiddlewareHandler } from 'hono';
import { getCookie, setCookie } from 'hono/cookie';
import { type Knex } from 'knex';
import { customAlphabet, nanoid } from 'nanoid';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { json } from './api/reading.ts';
import { answered, limited, Refused } from './refused.ts';
import { iso, type World, WORLD } from './world.ts';

/** How long a browser that gave the passcode is let in without it, in days. */
const VISIT_DAYS = 60;
/** How long it keeps the word by which it is known after that, in days: as long as browsers keep any. */
const COOKIE_DAYS = 400;
const DAY_S = 86_400;
/** Letters and digits that are not taken for each other. */
const SIGNS = 'abcdefghjkmnpqrstuvwxyz23456789';
/** Wrong passcodes that are answered at once: of one device in a minute, and of all in ten; and those of a device that are answered slowly. */
const GUESSES = {
  ofOne: { points: 5, duration: 60 },
  ofAll: { points: 60, duration: 600 },
  slow: { points: 1, duration: 600 },
};
/** How long a slow guess takes, in ms, and how many wait for their turn. */
const SLOW = { turn: 2000, most: 10 };

/** Who is let in, and how. */
export interface Door {
  /** Lets nobody further without a visit. */
  readonly keep: MiddlewareHandler;
  /** What begins and ends a visit. */
  readonly visits: Hono;
}

/** The passcode that a library made for itself, the first time that it was served beyond its own computer. */
export async function ownPasscode(db: Knex): Promise<string> {
  const made = customAlphabet(SIGNS, 4);
  await db('facts')
    .insert({ name: 'passcode', value: `${made()}-${made()}` })
    .onConflict('name')
    .ignore();
  return (await db('facts').where({ name: 'passcode' }).first())!.value;
}

const digest = (...texts: readonly string[]): Buffer =>
  createHash('sha256').update(texts.join('\n')).digest();

/** The door of a library: open where no passcode is asked for. A visit ends with the passcode that it was begun with. */
export function doorOf(
  db: Knex,
  passcode: string | null,
  port: number,
  { now, later }: Pick<World, 'now' | 'later'> = WORLD,
): Door {
  // Cookies know no ports, and two libraries may be served from one computer.
  const cookie = `crow-ladder-${port}`;
  const ofOne = new RateLimiterMemory(GUESSES.ofOne);
  const ofAll = new RateLimiterMemory(GUESSES.ofAll);
  const slow = new RateLimiterMemory(GUESSES.slow);
  const rowOf = (token: string): string => digest(token, passcode ?? '').toString('hex');
  const visitOf = async (c: Context): Promise<{ readonly token: string; readonly until: string } | null> => {
    const token = getCookie(c, cookie);
    return token
      ? ((await db('visits')
          .where({ token: rowOf(token) })
          .first()) ?? null)
      : null;
  };
  const isIn = async (c: Context): Promise<boolean> =>
    passcode === null || ((await visitOf(c))?.until ?? '') > iso(now());
  const from = (c: Context): string => {
    try {
      return getConnInfo(c).remote.address ?? '';
    } catch {
      return '';
    }
  };
  let waiting = 0;
  let turn = Promise.resolve();
  /** Waits for a turn of those that guess slowly. */
  const slowly = (): Promise<void> => (turn = turn.then(() => new Promise((done) => later(SLOW.turn, done))));
  const tooMany = (ms = 60_000): Refused =>
    new Refused(429, {
      code: 'too-many-guesses',
      message: `Too many wrong passcodes: try again in ${Math.ceil(ms / 1000)} seconds.`,
    });
  const oneOf = (left: RateLimiterMemory, who: string): Promise<unknown> =>
    left.consume(who).catch((none: { msBeforeNext?: number }) => {
      throw tooMany(none.msBeforeNext);
    });
  /**
   * Takes one guess of those that are left; refuses where none is. Where many devices guess wrong, one that was in before is
   * answered all the same, and another one in its turn, slowly: nobody keeps everybody out.
   */
  const guess = async (who: string, isKnown: boolean): Promise<void> => {
    await oneOf(ofOne, who);
    if (isKnown) return;
    try {
      await oneOf(ofAll, '');
    } catch (error) {
      if (waiting >= SLOW.most) throw error;
      waiting++;
      try {
        await oneOf(slow, who);
        await slowly();
      } finally {
        waiting--;
      }
    }
  };

  const visits = new Hono();
  visits.use(limited(10 * PASSCODE_LIMIT));
  visits.onError(answered);
  visits.get('/', async (c) => c.json({ asks: passcode !== null, in: await isIn(c) }));
  visits.post('/', async (c) => {
    const asked = (await json(c)) as { passcode?: unknown } | null;
    const given = asked?.passcode;
    if (typeof given !== 'string' || given.length > PASSCODE_LIMIT)
      throw new Refused(422, { code: 'invalid', field: 'passcode', message: 'Type the passcode.' });
    if (passcode === null) return c.json({ ok: true });
    const known = await visitOf(c);
    const who = known?.token ?? from(c);
    await guess(who, known !== null);
    if (!timingSafeEqual(digest(given.trim()), digest(passcode)))
      throw new Refused(403, {
        code: 'wrong-passcode',
        field: 'passcode',
        message: 'This is not the passcode. Whoever started Crow Ladder has it.',
      });
    for (const left of [ofOne, slow]) await left.delete(who);
    if (!known) await ofAll.reward('');
    const token = nanoid(32);
    const until = iso(now() + VISIT_DAYS * DAY_S * 1000);
    await db('visits').insert({ token: rowOf(token), until });
    setCookie(c, cookie, token, {
      path: '/',
      httpOnly: true,
      sameSite: 'Strict',
      // Under TLS, which something before this server ends, the page says so of itself.
      secure: (c.req.header('origin') ?? '').startsWith('https:'),
      maxAge: COOKIE_DAYS * DAY_S,
    });
    return c.json({ ok: true });
  });
  // A visit that has ended lets nobody in; the browser is known by it all the same.
  visits.delete('/', async (c) => {
    const visit = await visitOf(c);
    if (visit)
      await db('visits')
        .where({ token: visit.token })
        .update({ until: iso(now()) });
    return c.json({ ok: true });
  });

  const OPEN = ['/api/visit', '/api/health'];
  return {
    visits,
    keep: async (c, next) => {
      if (OPEN.includes(c.req.path) || (await isIn(c))) return next();
      return answered(
        new Refused(401, { code: 'locked', message: 'Crow Ladder asks for its passcode first.' }),
        c,
      );
    },
  };
}
