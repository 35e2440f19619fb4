import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    // Server tests wait for their server and its database more than they compute.
    maxWorkers: 2,
    projects: [
      { test: { name: 'core', include: ['packages/*/test/**/*.test.ts'], testTimeout: 30_000 } },
      { test: { name: 'web', include: ['apps/web/test/**/*.test.ts'] } },
      {
        test: {
          name: 'server',
          include: ['apps/server/test/**/*.test.ts'],
          globalSetup: 'apps/server/test/globalSetup.ts',
          // Generous: a machine of two shared cores can stand still for seconds.
          testTimeout: 120_000,
          hookTimeout: 120_000,
          isolate: false,
        },
      },
    ],
  },
});
