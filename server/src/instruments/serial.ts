import { readLine, restingAt, type DataSheet } from '@kevro/core';
import { KINDS, type ErrorCode, type InstrumentKind, type SerialLink } from '@kevro/contract';
import { Lost, type Driver, type DriverEvents, type ToRead } from './driver';
import { PortWatch, type Ports } from './ports';

/** How often a device is asked, and after how long without a word it does not answer, ms. */
const ASK_EVERY_MS = 400;
const NO_ANSWER_MS = 3000;
/** A page need not see more of a display in a second than this. */
const SHOWN_EVERY_MS = 100;
/** A good line says that all is well; what is wrong is said when none came for so long, ms. */
const DOUBT_MS = 1500;
/** No frame is as light as this, g: the device has nothing on it. */
const NOTHING_ON_G = 20;
const KEPT_VALUES = 60;

interface Shown {
  value: number;
  at: number;
  steady: boolean | undefined;
}

/** A device at a serial port that sends lines: all the time, when it is asked, or when its print key is pressed. */
export class SerialDevice implements Driver {
  private readonly watch: PortWatch;
  private events: DriverEvents | undefined;
  private there = false;
  private values: Shown[] = [];
  private waiting = new Set<{ came: () => void; lost: () => void }>();
  private trouble: ErrorCode | null = null;
  private goodAt = -Infinity;
  private shownAt = -Infinity;
  private askedAt: number | undefined;
  private asking: NodeJS.Timeout | undefined;

  constructor(
    private readonly kind: InstrumentKind,
    private readonly sheet: DataSheet,
    private readonly link: SerialLink,
    ports: Ports,
  ) {
    this.watch = new PortWatch(ports, link, link.ends, {
      there: () => this.came(),
      away: (why) => this.went(why),
      line: (line) => this.heard(line),
      half: () => this.doubt('half-lines'),
    });
  }

  /** The name of the port that it has now. */
  get path(): string {
    return this.watch.path || this.link.path;
  }

  open(events: DriverEvents): void {
    this.events = events;
    events.state('lost', 0);
    this.watch.start();
    const asks = this.link.output === 'request';
    if (asks) this.asking = setInterval(() => this.ask(), ASK_EVERY_MS);
  }

  private came(): void {
    this.there = true;
    this.values = [];
    this.askedAt = undefined;
    this.say(null);
    // Whether it is warm it cannot tell.
    this.events?.state('ready', 0);
  }

  private went(why: ErrorCode): void {
    const was = this.there;
    this.there = false;
    this.say(why);
    if (!was) return;
    this.events?.state('lost', 0);
    for (const { lost } of this.waiting) lost();
  }

  private say(trouble: ErrorCode | null): void {
    if (trouble === this.trouble) return;
    this.trouble = trouble;
    this.events?.trouble(trouble);
  }
  /** Something came that is no reading: said where nothing good came lately. */
  private doubt(why: ErrorCode): void {
    if (performance.now() - this.goodAt > DOUBT_MS) this.say(why);
  }

  private ask(): void {
    // What shows nothing by itself is asked only where somebody waits for it.
    if (!this.there || (!KINDS[this.kind].shows && this.waiting.size === 0)) {
      this.askedAt = undefined;
      return;
    }
    const now = performance.now();
    this.askedAt ??= now;
    if (now - this.askedAt > NO_ANSWER_MS) this.say('no-answer');
    this.watch.ask(this.link.ask);
  }

  private heard(line: string): void {
    const at = performance.now();
    this.askedAt = undefined;
    const read = readLine(this.link.pattern, KINDS[this.kind].measure, line);
    if (read.kind === 'unread') {
      if (read.why !== 'useless' && read.why !== 'empty') this.doubt('line-unread');
      return;
    }
    this.goodAt = at;
    if (read.kind !== 'value') {
      // What rested before the overload does not rest any more.
      this.values = [];
      return this.say(read.kind === 'over' ? 'over-load' : 'under-load');
    }
    this.say(null);
    const { value, steady, tared } = read;
    this.values = [...this.values, { value, at, steady }].slice(-KEPT_VALUES);
    if (at - this.shownAt >= SHOWN_EVERY_MS || this.link.output === 'key') {
      this.shownAt = at;
      const rests =
        this.link.output === 'key' ? steady !== false : this.restingSince(-Infinity) !== undefined;
      this.events?.sample(value, rests, tared);
    }
    for (const { came } of this.waiting) came();
  }

  private restingSince(since: number): number | undefined {
    const values = this.values.filter(({ at }) => at > since);
    if (this.link.output !== 'key') return restingAt(values, this.sheet.resolution);
    // It prints what rests, once.
    return values.findLast(({ steady }) => steady !== false)?.value;
  }

  read(what: ToRead, signal: AbortSignal): Promise<number> {
    return new Promise((resolve, reject) => {
      if (!this.there) {
        reject(new Lost());
        return;
      }
      const since = performance.now();
      const isWeight = 'quantity' in what && what.quantity === 'massG';
      const done = (): void => {
        this.waiting.delete(one);
        signal.removeEventListener('abort', abort);
      };
      const one = {
        came: (): void => {
          const value = this.restingSince(since);
          if (value === undefined || (isWeight && value < NOTHING_ON_G)) return;
          done();
          resolve(value);
        },
        lost: (): void => {
          done();
          reject(new Lost());
        },
      };
      const abort = (): void => {
        done();
        reject(signal.reason as Error);
      };
      this.waiting.add(one);
      signal.addEventListener('abort', abort);
      if (this.link.output === 'request') this.ask();
    });
  }

  async close(): Promise<void> {
    clearInterval(this.asking);
    // Whoever asks for a reading meanwhile waits.
    if (this.there) this.events?.state('lost', 0);
    this.events = undefined;
    this.there = false;
    for (const { lost } of this.waiting) lost();
    await this.watch.stop();
  }
}
