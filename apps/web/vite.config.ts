import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { compression } from 'vite-plugin-compression2';
import { firstVisit, parts } from './firstVisit.js';

/** Smaller parts gain nothing; bytes. */
const leastSize = 1024;

export default defineConfig({
  // Parts are compressed once, as far as can be; the server sends what the browser takes.
  plugins: [react(), compression({ algorithms: ['gzip', 'brotliCompress'], threshold: leastSize }), firstVisit()],
  build: {
    chunkSizeWarningLimit: 1500,
    // Chakra's whole theme is given to a function that does nothing but check its type; what is not used of it can go.
    rolldownOptions: { treeshake: { manualPureFunctions: ['defineConfig'] }, output: { codeSplitting: { groups: parts } } },
  },
  server: { proxy: { '/api': `http://127.0.0.1:${process.env['DELLUM_API_PORT'] ?? 4170}` } },
});
