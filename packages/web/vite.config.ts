import tailwind from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { defineConfig, type Plugin } from 'vite';

const api = `http://127.0.0.1:${process.env['CROW_LADDER_PORT'] ?? 4780}`;

/** The router without what it says to those who build with it: its package offers that to nobody by name. */
const router = join(
  dirname(createRequire(import.meta.url).resolve('react-router/package.json')),
  'dist/production/index.mjs',
);

/** Beside each text that is served, the same compressed, once and for all. */
const compressed: Plugin = {
  name: 'compressed',
  apply: 'build',
  generateBundle: {
    order: 'post',
    handler(_, bundle) {
      for (const it of Object.values(bundle)) {
        if (!/\.(js|css|html|svg)$/.test(it.fileName)) continue;
        const source = gzipSync(it.type === 'chunk' ? it.code : it.source, { level: 9 });
        this.emitFile({ type: 'asset', fileName: `${it.fileName}.gz`, source });
      }
    },
  },
};

/** What every page needs, in the pieces in which it begins (main.ts). What belongs to several belongs to the first of them. */
const PIECES = [
  {
    name: 'drawing',
    test: /node_modules\/(react|react-dom|scheduler|react-router)\/|src\/begin\/drawing\.ts$/,
  },
  {
    name: 'keeping',
    test: /node_modules\/(@reduxjs|immer|redux|redux-thunk|reselect|react-redux|use-sync-external-store|idb)\/|src\/begin\/keeping\.ts$/,
  },
  { name: 'counting', test: /src\/begin\/counting\.ts$/ },
  {
    name: 'first',
    test: /packages\/web\/src\/(begin|compose|frame\/pages|frame\/ChartFrame|app\/(Shell|Stops)|features\/waiting\/Waits)\.tsx?$/,
  },
];
/** What fetches them belongs to none: the way in needs it before. */
const FETCHING = { name: 'fetching', test: /vite\/preload-helper/ };
/** The pieces, and the way into the last of them, which is loaded as the others are. */
const PRELOADED = new Set([...PIECES.map(({ name }) => name), 'begin']);

/** They are all fetched at once. */
const preloaded: Plugin = {
  name: 'preloaded',
  apply: 'build',
  transformIndexHtml: {
    order: 'post',
    handler: (_, { bundle = {} }) =>
      Object.values(bundle)
        .filter((it) => it.type === 'chunk' && PRELOADED.has(it.name))
        .map(({ fileName }) => ({
          tag: 'link',
          attrs: { rel: 'modulepreload', crossorigin: true, href: `/${fileName}` },
          injectTo: 'head',
        })),
  },
};

export default defineConfig({
  resolve: { alias: [{ find: /^react-router$/, replacement: router }] },
  plugins: [react(), tailwind(), preloaded, compressed],
  server: { host: '127.0.0.1', proxy: { '/api': api } },
  // What the PDF library would load to draw pages of HTML, which is never asked of it.
  worker: { format: 'es', rolldownOptions: { external: ['canvg', 'html2canvas', 'dompurify'] } },
  // Fonts stay files: the page's security policy admits nothing written into its styles.
  build: {
    target: 'es2022',
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 700,
    rolldownOptions: {
      output: {
        // What every page needs first is loaded in one piece, not in twenty small ones.
        codeSplitting: { groups: [FETCHING, ...PIECES] },
      },
    },
  },
});
