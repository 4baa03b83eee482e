import tailwind from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

const api = `http://127.0.0.1:${process.env['CROW_LADDER_PORT'] ?? 4780}`;

export default defineConfig({
  plugins: [react(), tailwind()],
  server: { host: '127.0.0.1', proxy: { '/api': api } },
  build: { target: 'es2022', chunkSizeWarningLimit: 700 },
});
