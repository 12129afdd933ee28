import { defineConfig } from '@playwright/test';
import { chromiumPath } from '../scripts/lib.mjs';

export default defineConfig({
  testDir: '.',
  outputDir: '../test-results',
  globalSetup: './seed-template.ts',
  // Every test has a server and data of its own.
  fullyParallel: true,
  workers: 3,
  timeout: 60_000,
  // Two processors carry three browsers, their servers and layouts in workers.
  expect: { timeout: 15_000 },
  reporter: [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: { executablePath: chromiumPath },
    screenshot: 'only-on-failure',
  },
});
