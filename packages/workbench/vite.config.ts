import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react()],
  base: './',
  resolve: { conditions: ['@dot-hop/source', 'module', 'browser', 'development|production'] },
  server: { port: 5190, fs: { allow: ['../..'] } },
  worker: { format: 'es' },
  // The demo's drawings are files of their own, so that they are fetched when the demo is opened and not before.
  build: { outDir: 'dist', assetsInlineLimit: 0, target: 'es2022' },
});
