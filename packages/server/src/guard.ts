import { networkInterfaces } from 'node:os';
import { type MiddlewareHandler } from 'hono';
import { secureHeaders } from 'hono/secure-headers';
import { type LookAtFiles } from './files.ts';
import { answered, Refused } from './refused.ts';

/** Names by which a computer calls itself. */
const LOOPBACK = ['localhost', '127.0.0.1', '[::1]'];
const ANY = ['0.0.0.0', '::', '[::]'];
/** Whether nobody but this computer itself reaches an address. */
export const isLoopback = (host: string): boolean =>
  LOOPBACK.includes(host) || host === '::1' || host.startsWith('127.');
/** The addresses under which others reach this computer when it listens on `host`. */
export const addressesOf = (host: string): readonly string[] =>
  ANY.includes(host)
    ? Object.values(networkInterfaces())
        .flatMap((all) => all ?? [])
        .flatMap(({ internal, address, family }) =>
          internal || address.startsWith('fe80') ? [] : [family === 'IPv6' ? `[${address}]` : address],
        )
    : [host];
const READING = ['GET', 'HEAD', 'OPTIONS'];

/** A host without its port, in small letters. */
const bare = (host: string): string => host.toLowerCase().replace(/:\d+$/, '');

/** The names that a server answers to: those of this computer, the addresses it is reached under, and those that it is told of. */
export function hostNames(host: string, more = ''): ReadonlySet<string> {
  const told = more.split(/[\s,]+/).filter(Boolean);
  return new Set([...LOOPBACK, ...addressesOf(host), ...told].map(bare));
}

const isOfTheApi = (path: string): boolean => path === '/api' || path.startsWith('/api/');

/**
 * Answers under its own names alone (421 otherwise: a name of somebody else that leads here is not to be trusted), and lets no
 * page of another origin read or change anything of the library. Over a plain address in a room browsers do not say where a reading
 * comes from; there the cookie of a visit, which they send for no other page, keeps it out.
 */
export const guard =
  (hosts: ReadonlySet<string>): MiddlewareHandler =>
  async (c, next) => {
    const host = c.req.header('host') ?? new URL(c.req.url).host;
    if (!hosts.has(bare(host)))
      return answered(
        new Refused(421, {
          code: 'wrong-host',
          message: 'Crow Ladder is not served under this name. Add it to CROW_LADDER_HOSTS if it should be.',
        }),
        c,
      );
    if (
      (!READING.includes(c.req.method) || isOfTheApi(c.req.path)) &&
      isForeign(c.req.header('origin'), c.req.header('sec-fetch-site'), host)
    )
      return answered(
        new Refused(403, {
          code: 'foreign-page',
          message: 'Only Crow Ladder itself can read or change the library.',
        }),
        c,
      );
    return next();
  };

/** Whether a request comes from a page of another origin; what no browser sent has neither header. */
function isForeign(origin: string | undefined, site: string | undefined, host: string): boolean {
  if (site !== undefined && site !== 'same-origin' && site !== 'none') return true;
  if (origin === undefined) return false;
  return !URL.canParse(origin) || new URL(origin).host !== host.toLowerCase();
}

/**
 * Refuses what comes once the server is told to stop, and changes and backups while a file of the library is gone; changes wait
 * while it is replaced. What was changed is said to be so once it is known where it stands.
 */
export const standing =
  (files: LookAtFiles, isStopping: () => boolean, settled: () => Promise<unknown>): MiddlewareHandler =>
  async (c, next) => {
    if (isStopping()) {
      c.header('Connection', 'close');
      return answered(
        new Refused(503, { code: 'stopping', message: 'Crow Ladder is being stopped; nothing was changed.' }),
        c,
      );
    }
    const changes = !READING.includes(c.req.method);
    if (!changes && c.req.path !== '/api/backup') return next();
    const before = await files();
    if (before) return answered(new Refused(503, before.error), c);
    if (changes) await settled();
    await next();
    const after = changes && c.res.ok ? await files() : null;
    if (after && !after.isKept) c.res = answered(new Refused(503, after.error), c);
  };

/** Headers of every answer: nothing from elsewhere runs in the page, and no other page holds it in a frame. */
export const headers = secureHeaders({
  strictTransportSecurity: false,
  xFrameOptions: 'DENY',
  contentSecurityPolicy: {
    defaultSrc: ["'self'"],
    scriptSrc: ["'self'"],
    styleSrc: ["'self'", "'unsafe-inline'"],
    imgSrc: ["'self'", 'data:', 'blob:'],
    objectSrc: ["'none'"],
    baseUri: ["'none'"],
    formAction: ["'self'"],
    frameAncestors: ["'none'"],
  },
});
