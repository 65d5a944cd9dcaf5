import { realpath, stat } from 'node:fs/promises';
import type { SerialPort as SystemPort, SerialPortMock } from 'serialport';
import { LineCutter } from '@kevro/core';
import type { ErrorCode, SerialPort } from '@kevro/contract';
import { log } from '../safety/log';

/** A port of the machine, or of the tests. */
type Stream = SystemPort | SerialPortMock;
type Settings = ConstructorParameters<typeof SystemPort>[0];
type PortInfo = Awaited<ReturnType<typeof SystemPort.list>>[number];

/** The serial ports of this machine. The package that opens them is loaded where the first is asked for. */
export interface Ports {
  list: () => Promise<PortInfo[]>;
  /** @throws where the settings are none */
  make: (settings: Settings) => Stream | Promise<Stream>;
  /** Whether a path is a port's: nothing else of the machine is opened. */
  isPort: (path: string) => Promise<boolean>;
  /** What tells a port from another one that gets its name later; undefined where it is gone. */
  mark: (path: string) => Promise<string | undefined>;
}

/** Ports that are no files tell by themselves when they go. */
const NO_FILE = 'no file';

export const systemPorts: Ports = {
  list: async () => (await import('serialport')).SerialPort.list(),
  make: async (settings) => new (await import('serialport')).SerialPort(settings),
  // A name elsewhere may stand for a device; what it stands for counts. One that is not plugged in stands for nothing yet.
  isPort: async (path) => {
    if (/^COM\d{1,3}$/i.test(path)) return true;
    const stands = await realpath(path).catch(() => path);
    return /^\/dev\/[\w./-]+$/.test(stands) && !stands.includes('..');
  },
  mark: (path) =>
    path.startsWith('/')
      ? stat(path).then(
          ({ ino, rdev }) => `${ino} ${rdev}`,
          () => undefined,
        )
      : Promise.resolve(NO_FILE),
};

/** A server of several shops is nobody's bench: its ports are no shop's. */
export const noPorts: Ports = {
  list: () => Promise.resolve([]),
  make: () => Promise.reject(new Error('no ports here')),
  isPort: () => Promise.resolve(false),
  mark: () => Promise.resolve(undefined),
};

export const usbOf = ({ vendorId, productId, serialNumber }: PortInfo): SerialPort['usb'] =>
  vendorId && productId ? { vendor: vendorId, product: productId, serial: serialNumber ?? '' } : null;
const sameUsb = (a: SerialPort['usb'], b: SerialPort['usb']): boolean =>
  a !== null && b !== null && a.vendor === b.vendor && a.product === b.product && a.serial === b.serial;

/** Where a device is now: at its port, or at the one that has another name since it was plugged in again. */
async function pathNow(ports: Ports, { path, usb }: SerialPort): Promise<string> {
  if (!usb) return path;
  const all = await ports.list().catch(() => []);
  const own = all.filter((one) => sameUsb(usbOf(one), usb));
  // Two of one kind without numbers of their own cannot be told apart: then the name counts.
  return own.some((one) => one.path === path) || own.length !== 1 ? path : (own[0]?.path ?? path);
}

function whyClosed(error: unknown): ErrorCode {
  const said = error instanceof Error ? error.message : String(error);
  if (/lock|busy|temporarily unavailable|access is denied/i.test(said)) return 'port-held';
  if (/permission|EACCES|EPERM/i.test(said)) return 'port-forbidden';
  if (/no such|not found|does not exist|ENOENT|ENXIO|ENODEV/i.test(said)) return 'port-missing';
  return 'port-unusable';
}

/** What is sent to ask a device, with \r, \n and \x05 as they are written in a form. @example sentAs('W\\r') // 'W' and a carriage return */
export const sentAs = (ask: string): string =>
  ask.replace(/\\(r|n|t|\\|x[0-9a-f]{2})/gi, (_, what: string) => {
    if (what === '\\') return what;
    const plain = { r: '\r', n: '\n', t: '\t' }[what.toLowerCase()];
    return plain ?? String.fromCharCode(parseInt(what.slice(1), 16));
  });

export interface PortEvents {
  there: () => void;
  away: (why: ErrorCode) => void;
  line: (text: string) => void;
  /** Everything, as it came. */
  heard?: (text: string) => void;
  /** A line whose beginning or end was missing. */
  half?: () => void;
}

/** How soon a port that is not there is looked for again, and after a flood, ms. */
const AGAIN_MS = 700;
const AFTER_FLOOD_MS = 4000;
/** How often it is looked whether an open port is there: one that is pulled in the middle of a reading does not always say so. */
const LOOK_EVERY_MS = 1000;

/** Watches one port: opens it, cuts what comes into lines, says when it goes away, and looks for it again. */
export class PortWatch {
  private stream: Stream | undefined;
  private timer: NodeJS.Timeout | undefined;
  private looking: NodeJS.Timeout | undefined;
  private stopped = false;
  private opening = Promise.resolve();
  /** The name under which it is open. */
  path = '';

  constructor(
    private readonly ports: Ports,
    private readonly port: SerialPort,
    private readonly ends: string,
    private readonly events: PortEvents,
  ) {}

  start(): void {
    this.opening = this.tryToOpen().catch((error: unknown) => this.lose(whyClosed(error)));
  }

  private lose(why: ErrorCode, againMs = AGAIN_MS): void {
    const { stream } = this;
    this.stream = undefined;
    clearInterval(this.looking);
    stream?.removeAllListeners();
    // Whoever closes what is gone already is told so; nobody asks.
    stream?.on('error', () => undefined);
    if (stream?.isOpen) stream.close();
    if (this.stopped) return;
    this.events.away(why);
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.start(), againMs);
  }

  private async tryToOpen(): Promise<void> {
    const { speed, bits, parity, stopBits } = this.port;
    this.path = await pathNow(this.ports, this.port);
    if (!(await this.ports.isPort(this.path))) return this.lose('not-a-port');
    const stream = await this.ports.make({
      path: this.path,
      baudRate: speed,
      dataBits: bits,
      parity,
      stopBits,
      autoOpen: false,
    });
    await new Promise<void>((resolve, reject) => stream.open((error) => (error ? reject(error) : resolve())));
    if (this.stopped) return void stream.close();
    this.stream = stream;
    this.lookAfter(stream, await this.ports.mark(this.path));
    const cutter = new LineCutter(this.ends, performance.now());
    stream.on('data', (bytes: Buffer) => {
      // Each byte is one character: what is no text is seen as such.
      const text = bytes.toString('latin1');
      this.events.heard?.(text);
      const { lines, half, flood } = cutter.push(text, performance.now());
      if (half) this.events.half?.();
      for (const line of lines) this.events.line(line);
      if (flood) this.lose('port-floods', AFTER_FLOOD_MS);
    });
    stream.on('close', () => this.lose('port-missing'));
    stream.on('error', (error) => {
      log.warn({ err: error, port: this.path }, 'a port failed');
      this.lose(whyClosed(error));
    });
    this.events.there();
  }

  /** A port that is gone, or that is another one by now, is lost whether it says so or not. */
  private lookAfter(stream: Stream, mark: string | undefined): void {
    clearInterval(this.looking);
    this.looking = setInterval(() => {
      void this.ports.mark(this.path).then((now) => {
        if (this.stream === stream && now !== mark) this.lose('port-missing');
      });
    }, LOOK_EVERY_MS);
  }

  /** Sends what asks for a value. */
  ask(ask: string): void {
    this.stream?.write(Buffer.from(sentAs(ask), 'latin1'), () => undefined);
  }

  /** Lets the port go; done once another may have it. */
  async stop(): Promise<void> {
    this.stopped = true;
    clearTimeout(this.timer);
    clearInterval(this.looking);
    await this.opening;
    const { stream } = this;
    this.stream = undefined;
    stream?.removeAllListeners();
    stream?.on('error', () => undefined);
    if (stream?.isOpen) await new Promise<void>((done) => stream.close(() => done()));
  }
}
