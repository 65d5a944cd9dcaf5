import { defineConfig } from '@playwright/test';
import { WAIT_MS } from './e2e/waits';
import { CHROMIUM_ARGS, findChromium } from './scripts/chromium.mjs';

export default defineConfig({
  testDir: 'e2e',
  globalSetup: './e2e/setup.ts',
  fullyParallel: true,
  workers: 2,
  timeout: 120_000,
  expect: { timeout: WAIT_MS },
  outputDir: 'test-results',
  use: {
    // What a page keeps of itself would be fetched anew in every test: one asks for it.
    serviceWorkers: 'block',
    // A film of every test would make the run a third longer; what the page held at each act shows enough.
    trace: { mode: 'retain-on-failure', snapshots: true, screenshots: false, sources: false },
    launchOptions: {
      ...(findChromium() ? { executablePath: findChromium() } : {}),
      // A page that was left keeps the program read for the next one.
      args: [...CHROMIUM_ARGS, '--process-per-site'],
    },
  },
});
