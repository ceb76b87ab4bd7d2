import optimizeLocales from '@react-aria/optimize-locales-plugin';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { precompress } from './precompress.js';

const server = process.env['JIGSAW_API'] ?? 'http://127.0.0.1:3000';

export default defineConfig({
  plugins: [
    react(),
    { ...optimizeLocales.vite({ locales: ['en-US', 'en-GB'] }), enforce: 'pre' },
    precompress(),
  ],
  resolve: {
    conditions: ['@jigsaw/source', 'module', 'browser', 'development|production'],
    dedupe: ['react', 'react-dom'],
    // The same parser without what only Node.js has.
    alias: { 'csv-parse/sync': 'csv-parse/browser/esm/sync' },
  },
  worker: { format: 'es' },
  server: { proxy: { '/api': server } },
  // Nothing is inlined: the content security policy loads fonts from the server alone.
  build: {
    target: 'es2022',
    chunkSizeWarningLimit: 700,
    assetsInlineLimit: 0,
    // Browsers that cannot load ahead load when it is needed.
    modulePreload: { polyfill: false },
  },
});
