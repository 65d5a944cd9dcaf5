import { defineConfig } from '@playwright/test';
import { WAIT_MS } from './e2e/waits';
import { CHROMIUM_ARGS, findChromium } from './scripts/chromium.mjs';

export default defineConfig({
  testDir: 'e2e',
  globalSetup: './e2e/setup.ts',
  fullyParallel: true,
  workers: 2,
  timeout: 120_000,
  retries: 1,
  expect: { timeout: WAIT_MS },
  outputDir: 'test-results',
  use: {
    // What a page keeps of itself would be fetched anew in every test: one asks for it.
    serviceWorkers: 'block',
    // To keep what the page held at each act makes the run longer: it is kept of a test that failed, which is tried once more for it.
    trace: { mode: 'on-first-retry', snapshots: true, screenshots: false, sources: false },
    launchOptions: {
      ...(findChromium() ? { executablePath: findChromium() } : {}),
      args: CHROMIUM_ARGS,
    },
  },
});
