import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { chromium, type Browser, type Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, beforeEach, expect } from 'vitest';
import { CHROMIUM_ARGS, findChromium } from '../scripts/chromium.mjs';

const root = resolve(import.meta.dirname, '..');

export const freePort = (): Promise<number> =>
  new Promise((done, fail) => {
    const probe = createServer();
    probe.once('error', fail);
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() => done(typeof address === 'object' && address ? address.port : 0));
    });
  });

/** Waits until something holds, and gives it back; what takes longer than a minute is taken to never come. */
export async function until<T>(look: () => Promise<T> | T): Promise<NonNullable<T>> {
  const end = Date.now() + 60_000;
  for (;;) {
    const found = await look();
    if (found) return found;
    if (Date.now() > end) throw new Error('waited a minute in vain');
    await new Promise((again) => setTimeout(again, 50));
  }
}

/** The built application on a port and a folder of its own, with the demo shop in it. */
export class Application {
  private child: ChildProcess | undefined;
  private readonly folder = mkdtempSync(join(tmpdir(), 'kevro-e2e-'));
  private port = 0;

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  async start(): Promise<void> {
    this.port ||= await freePort();
    const child = spawn(process.execPath, [join(root, 'server/dist/main.js')], {
      env: {
        ...process.env,
        PORT: String(this.port),
        KEVRO_DATA: join(this.folder, 'data'),
        KEVRO_SHOP_FILE: join(root, 'demo/shop.json'),
      },
      stdio: ['ignore', 'ignore', 'inherit'],
    });
    this.child = child;
    await until(() => {
      if (child.exitCode !== null) throw new Error(`the server ended with ${child.exitCode}`);
      return fetch(`${this.url}/api/v1/health`).then(
        (r) => r.ok,
        () => false,
      );
    });
  }

  /** Ends the server as a power cut would. */
  async kill(): Promise<void> {
    const { child } = this;
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const gone = new Promise((done) => child.once('exit', done));
    child.kill('SIGKILL');
    await gone;
  }

  async remove(): Promise<void> {
    await this.kill();
    rmSync(this.folder, { recursive: true, force: true });
  }

  async get<T>(path: string): Promise<T> {
    return (await fetch(`${this.url}/api/v1${path}`)).json() as Promise<T>;
  }
}

export function launch(): Promise<Browser> {
  const executablePath = findChromium();
  if (!executablePath) throw new Error('Chromium is not installed');
  return chromium.launch({
    executablePath,
    args: CHROMIUM_ARGS,
  });
}

/** A page in a fresh profile that fails the test on any error in the page. */
export async function openPage(
  browser: Browser,
  app: Application,
): Promise<{ page: Page; errors: string[] }> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL: app.url });
  const page = await context.newPage();
  const errors: string[] = [];
  page.on('pageerror', (error) => errors.push(error.message));
  // A refused request is part of some tests; everything else said as an error is not.
  page.on('console', (message) => {
    if (message.type() === 'error' && !message.text().includes('Failed to load resource'))
      errors.push(message.text());
  });
  return { page, errors };
}

/** The application for all tests of a file, and a fresh page for each, which fails the test on any error in it. */
export function withPages(app: Application, opened: (page: Page, errors: string[]) => void): void {
  let browser: Browser;
  let page: Page;
  let errors: string[];
  beforeAll(async () => {
    [browser] = await Promise.all([launch(), app.start()]);
  });
  afterAll(async () => {
    await browser.close();
    await app.remove();
  });
  beforeEach(async () => {
    ({ page, errors } = await openPage(browser, app));
    opened(page, errors);
  });
  afterEach(async () => {
    await page.context().close();
    expect(errors).toEqual([]);
  });
}
