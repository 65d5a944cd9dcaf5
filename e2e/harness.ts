import { fork, spawn, type ChildProcess } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import {
  expect,
  test as plain,
  type Browser,
  type BrowserContext,
  type BrowserContextOptions,
  type Page,
  type Request,
} from '@playwright/test';
import { freePort } from '../server/src/db/test-cluster';
import type { Opened } from './shops';
import { WAIT_MS } from './waits';

export { expect, freePort };
/** Where the run's setup left a shop: each test starts from a copy of its own. */
export const demoShop = (): string => process.env.KEVRO_DEMO_SHOP ?? '';

const root = resolve(import.meta.dirname, '..');

/** To translate the database's code once more, into what runs quicker, is worth it for a server that runs for hours. */
const SHORT_LIVED = ['--liftoff-only'];

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

/** A shop that answers at an address. */
export class Shop {
  constructor(
    protected at = '',
    protected ownersKey = '',
  ) {}
  get url(): string {
    return this.at;
  }
  /** As the commands beside a server show themselves: whoever can read its folder is the owner. */
  private get owner(): { authorization: string } {
    return { authorization: `Bearer ${this.ownersKey}` };
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

/** The built application as a process of its own, with a port and a folder, and the demo shop in it: for what starts, ends or is killed. */
export class Application extends Shop {
  private child: ChildProcess | undefined;
  /** What it printed since it was started. */
  said = '';
  readonly folder = mkdtempSync(join(tmpdir(), 'kevro-e2e-'));
  private port = 0;

  /**
   * @param copyOf a folder that another application left: the shop is there already
   * @param shopFile the shop that a new folder begins with; none where it is empty
   * @param host where it listens
   * @param settings what else its start is told
   */
  constructor(
    copyOf?: string,
    private readonly shopFile = join(root, 'demo/shop.json'),
    private readonly host = '127.0.0.1',
    private readonly settings: Record<string, string> = {},
  ) {
    super();
    if (copyOf) cpSync(copyOf, this.data, { recursive: true });
  }

  get data(): string {
    return join(this.folder, 'data');
  }

  async start(): Promise<void> {
    this.port ||= await freePort();
    this.at = `http://127.0.0.1:${this.port}`;
    const child = spawn(process.execPath, [...SHORT_LIVED, join(root, 'server/dist/main.js')], {
      env: {
        ...process.env,
        PORT: String(this.port),
        HOST: this.host,
        KEVRO_DATA: this.data,
        KEVRO_SHOP_FILE: this.shopFile,
        ...this.settings,
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
    this.readOwnersKey();
  }
  /** Each start makes another key, one that the server makes by itself too. */
  readOwnersKey(): void {
    this.ownersKey = readFileSync(join(this.data, 'owners-key'), 'utf8');
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
}

/** Waits until nothing loads or moves any more. */
export async function settled(page: Page): Promise<void> {
  await page.waitForLoadState('load');
  // What a page loads begins when its own code has come, which may be after the page's.
  await page.locator('main h1:visible, main h2:visible, main svg:visible').first().waitFor();
  // Parts of a page load each by itself.
  const loading = page.getByText(/^(Loading|Opening|Looking (up|for)|Finding)|Calculating…/);
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

export const started = async (one: Application): Promise<Application> => {
  await one.start();
  return one;
};

const SIZE = { width: 1280, height: 800 };

/** A fresh profile on a shop, and a page in it that gathers every error. */
export async function openPage(
  browser: Browser,
  shop: Shop,
  options: BrowserContextOptions = {},
): Promise<{ page: Page; errors: string[] }> {
  const page = await newPage(await profile(browser, shop.url, options));
  return { page, errors: errorsOf(page) };
}

async function profile(
  browser: Browser,
  baseURL: string,
  options: BrowserContextOptions = {},
): Promise<BrowserContext> {
  const context = await browser.newContext({
    viewport: SIZE,
    // Nothing is learned from watching a dialog fade in a thousand times.
    reducedMotion: 'reduce',
    baseURL,
    ...options,
  });
  // The tour of the demo begins by itself once: here it has been.
  await context.addInitScript(() => {
    try {
      if (localStorage.getItem('kevro-tour') === null) localStorage.setItem('kevro-tour', 'done');
      // The tests type as quickly as a device: each is a person unless it says otherwise.
      if (localStorage.getItem('kevro-typing-devices') === null)
        localStorage.setItem('kevro-typing-devices', 'false');
    } catch {
      // Where nothing is kept it does not begin by itself.
    }
  });
  return context;
}

async function newPage(context: BrowserContext): Promise<Page> {
  const page = await context.newPage();
  page.setDefaultTimeout(WAIT_MS);
  return page;
}

/** Every error in a page from now on. */
function errorsOf(page: Page): string[] {
  const errors: string[] = [];
  page.on('pageerror', (error) => errors.push(error.stack ?? error.message));
  // A refused request is part of some tests; everything else said as an error is not.
  page.on('console', (message) => {
    if (message.type() === 'error' && !message.text().includes('Failed to load resource'))
      errors.push(message.text());
  });
  return errors;
}

/** The last calls of a page, each with when it was made and how it was answered. */
function heard(page: Page): string[] {
  const said: string[] = [];
  const isCall = (request: Request): boolean => request.url().includes('/api/');
  const say = (how: string, request: Request): void => {
    if (!isCall(request)) return;
    said.push(`${new Date().toISOString().slice(14, 23)} ${how} ${request.method()} ${request.url()}`);
    if (said.length > 60) said.shift();
  };
  page.on('request', (request) => say('asked   ', request));
  page.on('requestfinished', async (request) => {
    // A page that is closed meanwhile has no answer any more.
    const response = isCall(request) ? await request.response().catch(() => undefined) : undefined;
    say(`answered ${response?.status()}`, request);
  });
  page.on('requestfailed', (request) => say(`failed ${request.failure()?.errorText}`, request));
  return said;
}

/** What the harness and the tests listen to. */
const EVENTS = ['pageerror', 'console', 'request', 'requestfinished', 'requestfailed', 'dialog'];

/** The page that a worker's tests take over from one another: a new one would read the program anew. */
class KeptPage {
  /** What a test has it do before each load, until it is taken back. */
  private readonly told: Awaited<ReturnType<Page['addInitScript']>>[] = [];
  /** Whether it can be as new again: a clock that was put in cannot be taken out. */
  private spent = false;

  constructor(readonly page: Page) {
    const tell = page.addInitScript.bind(page);
    page.addInitScript = async (...given: Parameters<Page['addInitScript']>) => {
      const told = await tell(...given);
      this.told.push(told);
      return told;
    };
    const { clock } = page;
    const install = clock.install.bind(clock);
    clock.install = (...given) => {
      this.spent = true;
      return install(...given);
    };
  }

  /** Leaves nothing of a test but the program that was read, at an address where nothing runs. @returns whether another test may have it */
  async emptied(): Promise<boolean> {
    const { page } = this;
    const context = page.context();
    await page
      .evaluate(() => {
        localStorage.clear();
        sessionStorage.clear();
        indexedDB.deleteDatabase('kevro');
      })
      .catch(() => undefined);
    await context.clearCookies();
    await Promise.all(context.pages().map((one) => one !== page && one.close()));
    for (const event of EVENTS) page.removeAllListeners(event);
    // What was typed and not stored asks before it is left.
    page.on('dialog', (asked) => void asked.accept());
    await page.unrouteAll({ behavior: 'ignoreErrors' });
    await Promise.all(this.told.splice(0).map((one) => one.dispose()));
    const left = await page.goto('/api/v1/health').catch(() => undefined);
    page.removeAllListeners('dialog');
    if (this.spent || !left) return false;
    await page.setViewportSize(SIZE);
    await page.emulateMedia({ media: null, colorScheme: 'light' });
    await page.mouse.move(0, 0);
    return true;
  }
}

/** One server for all tests of a worker, in which each of them finds the demo shop as it was copied. */
class Bench {
  private readonly server = fork(
    join(root, 'node_modules/.kevro/shops.js'),
    [demoShop(), join(root, 'server/dist')],
    { execArgv: SHORT_LIVED },
  );
  async open(): Promise<Shop> {
    const answer = new Promise<Opened>((done, fail) => {
      this.server.once('message', (opened) => done(opened as Opened));
      this.server.once('exit', (code) => fail(new Error(`the server ended with ${code}`)));
    });
    this.server.send('open');
    const { url, ownersKey } = await answer;
    this.server.removeAllListeners('exit');
    return new Shop(url, ownersKey);
  }
  async close(): Promise<void> {
    const gone = new Promise((done) => this.server.once('exit', done));
    this.server.kill('SIGKILL');
    await gone;
  }
}

/** The shop and the page of the test that runs: a worker runs one after the other. */
let nowShop: Shop;
let nowPage: Page;

/**
 * The tests of the page: each with a shop of its own and a page on it, `shop` and `page`. A page that has read the program saves each test half a second: it is
 * the worker's, emptied between. A test fails on any error in its page. With `ownProcess` the shop is an `Application`, to be killed and started again.
 */
export const test = plain.extend<
  { ownProcess: boolean; shop: Shop; onThePage: null },
  { bench: Bench; kept: { page?: KeptPage } }
>({
  bench: [
    // eslint-disable-next-line no-empty-pattern -- Playwright reads the names from the braces.
    async ({}, use) => {
      const bench = new Bench();
      await use(bench);
      await bench.close();
    },
    { scope: 'worker' },
  ],
  // eslint-disable-next-line no-empty-pattern
  kept: [async ({}, use) => use({}), { scope: 'worker' }],
  ownProcess: [false, { option: true }],
  shop: async ({ bench, ownProcess }, use) => {
    if (!ownProcess) return use(await bench.open());
    const own = await started(new Application(demoShop()));
    await use(own);
    await own.remove();
  },
  page: async ({ browser, shop, ownProcess, kept }, use, info) => {
    const one =
      (ownProcess ? undefined : kept.page) ?? new KeptPage(await newPage(await profile(browser, shop.url)));
    const { page } = one;
    const errors = errorsOf(page);
    const asked = heard(page);
    await use(page);
    // What a failed test saw is kept before its page is left.
    if (info.status !== info.expectedStatus) {
      const saw = await page.locator('body').ariaSnapshot();
      for (const [name, text] of Object.entries({
        'page.txt': `${page.url()}\n${saw}`,
        'calls.txt': asked.join('\n'),
      })) {
        writeFileSync(info.outputPath(name), text);
        await info.attach(name, { path: info.outputPath(name) });
      }
    }
    const mayStay = !ownProcess && (await one.emptied());
    if (!mayStay) await page.context().close();
    if (!ownProcess) kept.page = mayStay ? one : undefined;
    expect(errors).toEqual([]);
  },
  onThePage: [
    async ({ shop, page }, use) => {
      [nowShop, nowPage] = [shop, page];
      await use(null);
    },
    { auto: true },
  ],
});

export { nowShop as shop, nowPage as page };
export const field = (name: RegExp | string) => nowPage.getByRole('textbox', { name });
export const button = (name: RegExp | string) => nowPage.getByRole('button', { name });
export const dialog = () => nowPage.getByRole('dialog');
export async function press(...keys: string[]): Promise<void> {
  for (const key of keys) await nowPage.keyboard.press(key);
}
