import { serveStatic } from '@hono/node-server/serve-static';
import { Hono } from 'hono';
import parseRange from 'range-parser';
import { answered, noSuchMethod, Refused } from './refused.ts';

const READ = ['GET', 'HEAD'];

/** The built interface: its files, and its page at every address that is none of them. They are read, and nothing else. */
export function pagesOf(webRoot: string): Hono {
  const pages = new Hono();
  pages.use(async (c, next) => {
    if (!READ.includes(c.req.method)) return noSuchMethod(c, READ);
    const range = c.req.header('range');
    // No file is so large that parts of it are given: what can be meant gets the whole.
    if (range !== undefined) c.req.raw.headers.delete('range');
    await next();
    const bytes = Number(c.res.headers.get('content-length'));
    if (range !== undefined && c.res.ok && typeof parseRange(bytes, range) === 'number') {
      await c.res.body?.cancel();
      c.res = answered(
        new Refused(416, { code: 'no-such-part', message: 'There is no such part of this file.' }),
        c,
      );
      c.header('Content-Range', `bytes */${bytes}`);
    }
    // What is found under a name with a hash never changes; the page that names them is asked for anew.
    const hashed = c.req.path.startsWith('/assets/') && c.res.ok;
    c.header('Cache-Control', hashed ? 'public, max-age=31536000, immutable' : 'no-cache');
  });
  const files = { root: webRoot, precompressed: true };
  const page = serveStatic({ ...files, path: 'index.html' });
  pages.use(serveStatic(files));
  // A missing file is missing: only an address of the application leads to its page.
  pages.get('*', (c, next) =>
    /\.[a-z0-9]+$/i.test(c.req.path) || c.req.path.startsWith('/assets/') ? next() : page(c, next),
  );
  return pages;
}
