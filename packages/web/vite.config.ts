import tailwind from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

const api = `http://127.0.0.1:${process.env['CROW_LADDER_PORT'] ?? 4780}`;

export default defineConfig({
  plugins: [react(), tailwind()],
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
        codeSplitting: {
          groups: [
            {
              name: 'first',
              test: /packages\/core\/src\/(run\/(fingers|alike|groups|grips|costs|run|signature|articulate)|note|result|scale|said|instrument|numbering|ownScale)\.ts$/,
            },
          ],
        },
      },
    },
  },
});
