import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    projects: [
      { test: { name: 'core', include: ['packages/*/test/**/*.test.ts'] } },
      { test: { name: 'web', include: ['apps/web/test/**/*.test.ts'] } },
      { test: { name: 'server', include: ['apps/server/test/**/*.test.ts'], globalSetup: 'apps/server/test/globalSetup.ts', testTimeout: 60_000, hookTimeout: 60_000 } },
    ],
  },
});
