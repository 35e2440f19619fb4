import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { compression } from 'vite-plugin-compression2';

/** Smaller parts gain nothing; bytes. */
const leastSize = 1024;

export default defineConfig({
  // Parts are compressed once, as far as can be; the server sends what the browser takes.
  plugins: [react(), compression({ algorithms: ['gzip', 'brotliCompress'], threshold: leastSize })],
  build: { chunkSizeWarningLimit: 1500 },
  server: { proxy: { '/api': `http://127.0.0.1:${process.env['DELLUM_API_PORT'] ?? 4170}` } },
});
