import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { compression } from 'vite-plugin-compression2';

export default defineConfig({
  // Text is compressed once, when it is built, as far as it goes.
  plugins: [
    react(),
    compression({ algorithms: ['gzip', 'brotliCompress'], include: /\.(js|css|svg|wasm)$/u, threshold: 500 }),
  ],
  resolve: { conditions: ['@fettle/source', 'module', 'browser', 'development|production'] },
  html: { cspNonce: '__FETTLE_NONCE__' },
  worker: { format: 'es' },
  build: { outDir: 'dist/page', target: 'es2023', emptyOutDir: true, chunkSizeWarningLimit: 900 },
  server: {
    host: '127.0.0.1',
    proxy: process.env.FETTLE_API ? { '/api': process.env.FETTLE_API } : {},
  },
});
