import { copyFileSync, mkdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import tailwind from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';

const source = (part: string) => fileURLToPath(new URL(`../${part}/src/index.ts`, import.meta.url));

/** The face model, as its package brings it; loaded only by the frame that asks for it. */
const FACE_MODEL = [
  'face_mesh.js',
  'face_mesh.binarypb',
  'face_mesh_solution_packed_assets.data',
  'face_mesh_solution_packed_assets_loader.js',
  'face_mesh_solution_simd_wasm_bin.js',
  'face_mesh_solution_simd_wasm_bin.wasm',
];

/** Lays the face model beside its frame. */
function faceModel(): Plugin {
  const from = dirname(createRequire(import.meta.url).resolve('@mediapipe/face_mesh/package.json'));
  return {
    name: 'face-model',
    writeBundle({ dir }) {
      const to = join(dir as string, 'face-mesh');
      mkdirSync(to, { recursive: true });
      for (const f of FACE_MODEL) copyFileSync(join(from, f), join(to, f));
    },
    configureServer(server) {
      server.middlewares.use('/face-mesh', (request, response, next) => {
        const name = (request.url ?? '').replace(/^\/|\?.*$/g, '');
        if (!FACE_MODEL.includes(name)) return next();
        response.setHeader('Access-Control-Allow-Origin', '*');
        response.end(readFileSync(join(from, name)));
      });
    },
  };
}

export default defineConfig({
  plugins: [react(), tailwind(), faceModel()],
  resolve: {
    alias: [
      {
        find: /^@radiant\/contract\/treat-record$/,
        replacement: source('contract').replace('index', 'treat-record'),
      },
      { find: /^@radiant\/contract\/chair$/, replacement: source('contract').replace('index', 'chair') },
      { find: /^@radiant\/contract\/course$/, replacement: source('contract').replace('index', 'course') },
      { find: '@radiant/core', replacement: source('core') },
      { find: '@radiant/contract', replacement: source('contract') },
    ],
  },
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
