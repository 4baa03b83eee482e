import { serveStatic } from '@hono/node-server/serve-static';
import { Hono } from 'hono';
import { compress } from 'hono/compress';
import { apiOn } from './api.ts';
import { type Library } from './library.ts';

/** The whole application on one port: the API, and the built interface with its addresses. */
export function appOn(library: Library, webRoot: string): Hono {
  const app = new Hono();
  app.route('/api', apiOn(library));
  app.use(compress());
  app.use(async (c, next) => {
    await next();
    c.header(
      'Content-Security-Policy',
      "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:",
    );
    c.header('X-Content-Type-Options', 'nosniff');
    if (c.req.path.startsWith('/assets/')) c.header('Cache-Control', 'public, max-age=31536000, immutable');
  });
  app.use(serveStatic({ root: webRoot }));
  app.get('*', serveStatic({ root: webRoot, path: 'index.html' }));
  return app;
}
