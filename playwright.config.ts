import { defineConfig } from '@playwright/test';
import { CHROMIUM_ARGS, findChromium } from './scripts/chromium.mjs';

/** How long anything on a page is waited for, ms: a wrong selector is told in seconds, and a busy machine is no fault of the page. */
const WAIT_MS = 15_000;

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
    // A film of every test would make the run a third longer; what the page held at each act shows enough.
    trace: { mode: 'on-first-retry', snapshots: true, screenshots: false, sources: false },
    launchOptions: {
      ...(findChromium() ? { executablePath: findChromium() } : {}),
      args: [...CHROMIUM_ARGS, '--process-per-site'],
    },
  },
});
