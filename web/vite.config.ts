import { fileURLToPath } from 'node:url';
import tailwind from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

const source = (part: string) => fileURLToPath(new URL(`../${part}/src/index.ts`, import.meta.url));

export default defineConfig({
  plugins: [react(), tailwind()],
  resolve: { alias: { '@radiant/core': source('core'), '@radiant/contract': source('contract') } },
  worker: { format: 'es' },
  build: { target: 'es2022', chunkSizeWarningLimit: 1500, modulePreload: { polyfill: false } },
  server: {
    proxy: {
      '/api': {
        target: process.env.RADIANT_API ?? 'http://127.0.0.1:8481',
        changeOrigin: true,
        headers: { origin: process.env.RADIANT_API ?? '' },
      },
    },
  },
});
