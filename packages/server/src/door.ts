import { createHash, timingSafeEqual } from 'node:crypto';
import { getConnInfo } from '@hono/node-server/conninfo';
import { PASSCODE_LIMIT } from '@crow-ladder/contract';
import { type Context, Hono, type MiddlewareHandler } from 'hono';
import { deleteCookie, getCookie, setCookie } from 'hono/cookie';
import { type Knex } from 'knex';
import { customAlphabet, nanoid } from 'nanoid';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { answered, limited, Refused } from './refused.ts';
import { iso, type World, WORLD } from './world.ts';

/** How long a browser that gave the passcode is let in without it, in days. */
const VISIT_DAYS = 60;
const DAY_S = 86_400;
/** Letters and digits that are not taken for each other. */
const SIGNS = 'abcdefghjkmnpqrstuvwxyz23456789';
/** Wrong passcodes that are answered at once: of one device in a minute, and of all in ten. */
const GUESSES = { ofOne: { points: 5, duration: 60 }, ofAll: { points: 60, duration: 600 } };

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
  return ((await db('facts').where({ name: 'passcode' }).first()) as { value: string }).value;
}

const digest = (...texts: readonly string[]): Buffer =>
  createHash('sha256').update(texts.join('\n')).digest();

/** The door of a library: open where no passcode is asked for. A visit ends with the passcode that it was begun with. */
export function doorOf(
  db: Knex,
  passcode: string | null,
  port: number,
  { now }: Pick<World, 'now'> = WORLD,
): Door {
  // Cookies know no ports, and two libraries may be served from one computer.
  const cookie = `crow-ladder-${port}`;
  const ofOne = new RateLimiterMemory(GUESSES.ofOne);
  const ofAll = new RateLimiterMemory(GUESSES.ofAll);
  const rowOf = (token: string): string => digest(token, passcode ?? '').toString('hex');
  const isIn = async (c: Context): Promise<boolean> => {
    if (passcode === null) return true;
    const token = getCookie(c, cookie);
    if (!token) return false;
    const visit = (await db('visits')
      .where({ token: rowOf(token) })
      .first()) as { until: string } | undefined;
    return visit !== undefined && visit.until > iso(now());
  };
  const from = (c: Context): string => {
    try {
      return getConnInfo(c).remote.address ?? '';
    } catch {
      return '';
    }
  };
  /** Takes one guess of those that are left; refuses where none is. */
  const guess = async (who: string): Promise<void> => {
    try {
      await ofOne.consume(who);
      await ofAll.consume('');
    } catch (left) {
      const seconds = Math.ceil(((left as { msBeforeNext?: number }).msBeforeNext ?? 60_000) / 1000);
      throw new Refused(429, {
        code: 'too-many-guesses',
        message: `Too many wrong passcodes: try again in ${seconds} seconds.`,
      });
    }
  };

  const visits = new Hono();
  visits.use(limited(10 * PASSCODE_LIMIT));
  visits.onError(answered);
  visits.get('/', async (c) => c.json({ asks: passcode !== null, in: await isIn(c) }));
  visits.post('/', async (c) => {
    const asked = (await c.req.json().catch(() => null)) as { passcode?: unknown } | null;
    const given = asked?.passcode;
    if (typeof given !== 'string' || given.length > PASSCODE_LIMIT)
      throw new Refused(422, { code: 'invalid', field: 'passcode', message: 'Type the passcode.' });
    if (passcode === null) return c.json({ ok: true });
    const who = from(c);
    await guess(who);
    if (!timingSafeEqual(digest(given.trim()), digest(passcode)))
      throw new Refused(403, {
        code: 'wrong-passcode',
        field: 'passcode',
        message: 'This is not the passcode. Whoever started Crow Ladder has it.',
      });
    await ofOne.delete(who);
    await ofAll.reward('');
    const token = nanoid(32);
    await db('visits').where('until', '<', iso(now())).delete();
    const until = iso(now() + VISIT_DAYS * DAY_S * 1000);
    await db('visits').insert({ token: rowOf(token), until });
    setCookie(c, cookie, token, {
      path: '/',
      httpOnly: true,
      sameSite: 'Strict',
      // Under TLS, which something before this server ends, the page says so of itself.
      secure: (c.req.header('origin') ?? '').startsWith('https:'),
      maxAge: VISIT_DAYS * DAY_S,
    });
    return c.json({ ok: true });
  });
  visits.delete('/', async (c) => {
    const token = getCookie(c, cookie);
    if (token)
      await db('visits')
        .where({ token: rowOf(token) })
        .delete();
    deleteCookie(c, cookie, { path: '/' });
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
