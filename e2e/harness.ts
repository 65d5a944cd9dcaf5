import { spawn, type ChildProcess } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import {
  chromium,
  type Browser,
  type BrowserContext,
  type BrowserContextOptions,
  type Page,
} from 'playwright-core';
import { afterAll, afterEach, beforeAll, beforeEach, expect, inject } from 'vitest';
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

/** Waits until something holds, and gives it back; what takes longer than three minutes is taken to never come. */
export async function until<T>(look: () => Promise<T> | T): Promise<NonNullable<T>> {
  const end = Date.now() + 180_000;
  for (;;) {
    const found = await look();
    if (found) return found;
    if (Date.now() > end) throw new Error('waited three minutes in vain');
    await new Promise((again) => setTimeout(again, 50));
  }
}

/** The built application on a port and a folder of its own, with the demo shop in it. */
export class Application {
  private child: ChildProcess | undefined;
  /** What it printed since it was started. */
  said = '';
  readonly folder = mkdtempSync(join(tmpdir(), 'kevro-e2e-'));
  private port = 0;

  /**
   * @param copyOf a folder that another application left: the shop is there already
   * @param shopFile the shop that a new folder begins with; none where it is empty
   * @param host where it listens
   */
  constructor(
    copyOf?: string,
    private readonly shopFile = join(root, 'demo/shop.json'),
    private readonly host = '127.0.0.1',
  ) {
    if (copyOf) cpSync(copyOf, this.data, { recursive: true });
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }
  get data(): string {
    return join(this.folder, 'data');
  }

  async start(): Promise<void> {
    this.port ||= await freePort();
    const child = spawn(process.execPath, [join(root, 'server/dist/main.js')], {
      env: {
        ...process.env,
        PORT: String(this.port),
        HOST: this.host,
        KEVRO_DATA: this.data,
        KEVRO_SHOP_FILE: this.shopFile,
      },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    this.child = child;
    this.said = '';
    child.stdout?.on('data', (text: Buffer) => (this.said += text.toString()));
    await until(() => {
      if (child.exitCode !== null) throw new Error(`the server ended with ${child.exitCode}`);
      return fetch(`${this.url}/api/v1/health`).then(
        (r) => r.ok,
        () => false,
      );
    });
  }

  /** Ends the server as it ends itself, or at once, as when the process is killed. */
  async stop(signal: 'SIGTERM' | 'SIGKILL' = 'SIGTERM'): Promise<void> {
    const { child } = this;
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const gone = new Promise((done) => child.once('exit', done));
    child.kill(signal);
    await gone;
  }
  kill(): Promise<void> {
    return this.stop('SIGKILL');
  }

  async remove(): Promise<void> {
    await this.kill();
    rmSync(this.folder, { recursive: true, force: true });
  }

  /** As the commands beside a server show themselves: whoever can read its folder is the owner. */
  private get owner(): { authorization: string } {
    return { authorization: `Bearer ${readFileSync(join(this.data, 'owners-key'), 'utf8')}` };
  }
  async get<T>(path: string): Promise<T> {
    return (await fetch(`${this.url}/api/v1${path}`, { headers: this.owner })).json() as Promise<T>;
  }
  send(method: string, path: string, body: unknown): Promise<Response> {
    return fetch(`${this.url}/api/v1${path}`, {
      method,
      headers: { 'content-type': 'application/json', ...this.owner },
      body: JSON.stringify(body),
    });
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

/** A fresh profile on the application, and a page in it that gathers every error. */
export async function openPage(
  browser: Browser,
  app: Application,
  options: BrowserContextOptions = {},
): Promise<{ page: Page; errors: string[] }> {
  return pageIn(await profile(browser, app, options));
}

async function profile(
  browser: Browser,
  app: Application,
  options: BrowserContextOptions = {},
): Promise<BrowserContext> {
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    baseURL: app.url,
    ...options,
  });
  // The tour of the demo begins by itself once: here it has been.
  await context.addInitScript(() => {
    try {
      if (localStorage.getItem('kevro-tour') === null) localStorage.setItem('kevro-tour', 'done');
    } catch {
      // Where nothing is kept it does not begin by itself.
    }
  });
  return context;
}

/** How long an act on a page may take, ms: far more than any should, since a busy machine is no fault of the page. */
const ACT_MS = 60_000;

async function pageIn(context: BrowserContext): Promise<{ page: Page; errors: string[] }> {
  const page = await context.newPage();
  page.setDefaultTimeout(ACT_MS);
  const errors: string[] = [];
  page.on('pageerror', (error) => errors.push(error.stack ?? error.message));
  // A refused request is part of some tests; everything else said as an error is not.
  page.on('console', (message) => {
    if (message.type() === 'error' && !message.text().includes('Failed to load resource'))
      errors.push(message.text());
  });
  return { page, errors };
}

/** Leaves nothing of a test in its profile but the program that was read. */
async function emptied(page: Page): Promise<void> {
  await page.evaluate(() => localStorage.clear()).catch(() => undefined);
  const context = page.context();
  await context.clearCookies();
  await Promise.all(context.pages().map((one) => one.close()));
}

/** Waits until nothing loads or moves any more. */
export async function settled(page: Page): Promise<void> {
  await page.waitForLoadState('load');
  // What a page loads begins when its own code has come, which may be after the page's.
  await page.locator('main h1:visible, main h2:visible, main svg:visible').first().waitFor();
  // Parts of a page load each by itself.
  const loading = page.getByText(/^(Loading|Opening|Looking (up|for))|working out the ways/);
  await until(async () => (await loading.count()) === 0);
  await still(page);
}

/** Waits for two frames to be painted and for every movement on the page to end; what goes on for ever is not waited for. */
export const still = (page: Page): Promise<void> =>
  page.evaluate(async () => {
    const painted = () => new Promise((done) => requestAnimationFrame(done));
    await painted();
    await painted();
    const ending = document
      .getAnimations()
      .filter((a) => a.effect?.getComputedTiming().iterations !== Infinity)
      // What is folded away does not move, and does not come to an end either.
      .filter((a) => (a.effect as KeyframeEffect | null)?.target?.checkVisibility() === true);
    await Promise.all(ending.map((a) => a.finished.catch(() => undefined)));
  });

export interface Opened {
  app: Application;
  page: Page;
}

/**
 * A fresh page for each test on one application: tests of a file keep to their own records. The test fails on any error in the page; one that fails leaves a
 * trace in `test-results` where `KEVRO_TRACE` is set, to be looked at with Playwright's trace viewer.
 */
export function withOneShop(opened: (fresh: Opened) => void): void {
  const app = new Application(inject('demoShop'));
  const traced = Boolean(process.env.KEVRO_TRACE);
  let browser: Browser;
  let context: BrowserContext | undefined;
  let page: Page;
  let errors: string[];
  beforeAll(async () => {
    await app.start();
    browser = await launch();
  });
  afterAll(async () => {
    await browser.close();
    await app.remove();
  });
  beforeEach(async () => {
    // A profile that has read the program saves each test a second.
    context ??= await profile(browser, app);
    ({ page, errors } = await pageIn(context));
    if (traced) await context.tracing.start({ snapshots: true });
    opened({ app, page });
  });
  afterEach(async ({ task }) => {
    const failed = task.result?.state === 'fail' || errors.length > 0;
    const name = task.name.replace(/[^\w]+/g, '-').slice(0, 80);
    if (traced) await context?.tracing.stop(failed ? { path: join(root, `test-results/${name}.zip`) } : {});
    await emptied(page);
    expect(errors).toEqual([]);
  });
}
