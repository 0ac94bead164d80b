import { dotHop } from '@dot-hop/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [dotHop({ names: true }), react()],
  base: './',
  resolve: { conditions: ['@dot-hop/source', 'module', 'browser', 'development|production'] },
  server: { port: 5184, fs: { allow: ['../..'] } },
  preview: { port: 5184 },
  build: { outDir: 'dist', assetsInlineLimit: 0 },
});
