import { cutAtEnds, proposeEnd } from '@kevro/core';
import { sentence, type ErrorCode, type HeardLines, type SerialPort } from '@kevro/contract';
import { PortWatch, type Ports } from './ports';

/** A port that nobody asked about for so long is let go, ms. */
const LET_GO_MS = 4000;
const ASK_EVERY_MS = 500;
const KEPT_CHARACTERS = 4000;
const KEPT_LINES = 10;

interface Hearing {
  watch: PortWatch;
  port: string;
  raw: string;
  ends: string;
  lines: string[];
  trouble: ErrorCode | null;
  letGo: NodeJS.Timeout;
  asking: NodeJS.Timeout | undefined;
}

/** Ports that are listened to while a device is set up by showing what it sends. */
export class Hearings {
  private readonly open = new Map<string, Hearing>();
  /** @param onLetGo told the path of a port that is free again */
  constructor(
    private readonly ports: Ports,
    private readonly onLetGo: (path: string) => void,
  ) {}

  has(path: string): boolean {
    return this.open.has(path);
  }

  /** What came from a port since it was first asked about with these settings. */
  async hear(port: SerialPort): Promise<HeardLines> {
    const settings = JSON.stringify(port);
    let one = this.open.get(port.path);
    if (one && one.port !== settings) {
      await this.close(port.path);
      one = undefined;
    }
    one ??= this.begin(port, settings);
    one.letGo.refresh();
    return {
      lines: one.lines.slice(-KEPT_LINES),
      ends: one.ends,
      trouble: one.trouble ? sentence(one.trouble) : '',
    };
  }

  private begin(port: SerialPort, settings: string): Hearing {
    const watchWith = (ends: string): PortWatch =>
      new PortWatch(this.ports, port, ends, {
        there: () => {
          one.trouble = null;
        },
        away: (why) => {
          one.trouble = why;
        },
        line: (line) => {
          one.lines = [...one.lines, line].slice(-KEPT_LINES);
        },
        heard: (text) => {
          one.raw = (one.raw + text).slice(-KEPT_CHARACTERS);
          const found = proposeEnd(one.raw);
          if (found === one.ends) return;
          // It ends its lines otherwise: what came is cut anew, and what comes too.
          one.ends = found;
          one.lines = cutAtEnds(one.raw, found).filter(Boolean).slice(1, -1);
          void one.watch.stop().then(() => {
            if (this.open.get(port.path) !== one) return;
            one.watch = watchWith(found);
            one.watch.start();
          });
        },
      });
    const one: Hearing = {
      watch: watchWith(''),
      port: settings,
      raw: '',
      ends: '',
      lines: [],
      trouble: null,
      letGo: setTimeout(() => void this.close(port.path), LET_GO_MS),
      asking: port.ask ? setInterval(() => one.watch.ask(port.ask), ASK_EVERY_MS) : undefined,
    };
    this.open.set(port.path, one);
    one.watch.start();
    return one;
  }

  async close(path: string): Promise<void> {
    if (await this.end(path)) this.onLetGo(path);
  }
  private async end(path: string): Promise<boolean> {
    const one = this.open.get(path);
    if (!one) return false;
    this.open.delete(path);
    clearTimeout(one.letGo);
    clearInterval(one.asking);
    await one.watch.stop();
    return true;
  }

  /** The end of the server: nobody has the ports after it. */
  async stop(): Promise<void> {
    for (const path of [...this.open.keys()]) await this.end(path);
  }
}
