// Browser tests on Debian's Chromium: two servers over one database, every test in a house of its own.
import { defineConfig } from '@playwright/test';
import { chromiumPath } from '../scripts/lib/packages.mjs';

const quiet = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  outputDir: '../test-results',
  globalSetup: './globalSetup.ts',
  fullyParallel: true,
  workers: 2,
  // Generous: a machine of two shared cores can stand still for seconds.
  timeout: 240_000,
  expect: { timeout: 40_000 },
  reporter: [
    ['list'],
    ...(process.env['DELLUM_E2E_REPORT']
      ? [['json', { outputFile: process.env['DELLUM_E2E_REPORT'] }] as ['json', { outputFile: string }]]
      : []),
  ],
  use: {
    viewport: { width: 1280, height: 800 },
    screenshot: 'only-on-failure',
    launchOptions: { executablePath: chromiumPath(), args: quiet, timeout: 60_000 },
    permissions: ['clipboard-read', 'clipboard-write'],
  },
});
