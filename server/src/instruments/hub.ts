import { randomUUID } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import { calibrateReads, calibrationState, coldError, readingByInstrument, readingMean } from '@kevro/core';
import {
  KINDS,
  sentence,
  type Asked,
  type CalibrationRecord,
  type ErrorCode,
  type FoundPort,
  type HeardLines,
  type Instrument,
  type InstrumentMessage,
  type OnStandIn,
  type ReadingRecord,
  type SerialPort,
} from '@kevro/contract';
import type { Changes } from '../changes';
import type { Clock } from '../clock';
import { lock } from '../act';
import type { Db, Queries } from '../db/db';
import { ApiProblem } from '../problem';
import {
  addCalibration,
  claimInstruments,
  lastCalibrations,
  listInstruments,
  type InstrumentRecord,
} from '../records/instrument';
import { theShop } from '../records/shop';
import { log } from '../safety/log';
import { Lost, type Driver } from './driver';
import { driversAt } from './drivers';
import { Hearings } from './hearing';
import { keepReading } from './keep';
import { systemPorts as portsOfSystem, usbOf, type Ports } from './ports';
import type { Pace } from './stand-in';
import { truthOf } from './truth';

interface UnderWay {
  key: string;
  asked: Asked;
  values: number[];
  stop: AbortController;
}

/** One instrument that is connected, with the reading under way. */
interface Connected {
  record: InstrumentRecord;
  driver: Driver;
  state: 'ready' | 'warming' | 'lost';
  warmInSeconds: number;
  underWay: UnderWay | null;
  on: OnStandIn | null;
  wake: Set<() => void>;
  trouble: ErrorCode | null;
}

/** A message with its number; what only shows how things stand has none, since the next one replaces it. */
export interface Told {
  id: string | undefined;
  message: InstrumentMessage;
}
type Listener = (told: Told) => void;
type Result = Extract<InstrumentMessage, { kind: 'taken' | 'failed' }>;
/** Results kept for a page whose stream broke in the middle. */
const KEPT_RESULTS = 50;

/** All instruments of the shop: what state they are in, the reading under way on each, and who listens. */
export class Hub {
  private readonly connected = new Map<string, Connected>();
  private readonly listeners = new Set<Listener>();
  private results: { number: number; message: Result }[] = [];
  private lastNumber = 0;
  /** Tells the numbers of this run of the server from those of an earlier one. */
  private readonly runId = randomUUID().slice(0, 8);
  private readonly drivers: ReturnType<typeof driversAt>;
  private readonly hearings: Hearings;
  /** Read once and again when they change: they are asked for with every value that an instrument shows. */
  private calibrations = new Map<string, CalibrationRecord>();
  private calibrationHours = 0;

  constructor(
    private readonly db: Db,
    private readonly now: Clock,
    pace: Pace,
    /** This bench machine among several at one database, and what tells their processes of each other; alone, every instrument is plugged in here. */
    private readonly among?: { bench: string; changes: Changes },
    private readonly systemPorts: Ports = portsOfSystem,
  ) {
    this.drivers = driversAt(pace, systemPorts);
    this.hearings = new Hearings(systemPorts, (path) => {
      const rests = this.atPort(path);
      if (rests) void this.speakAnew(rests.record);
    });
    among?.changes.listenElsewhere(({ kind }) => {
      if (kind === 'instrument' || kind === 'shop' || kind === 'everything')
        void this.readAnew().catch((error: unknown) =>
          log.error({ err: error }, 'instruments could not be read anew'),
        );
    });
  }

  async start(): Promise<void> {
    this.calibrations = await lastCalibrations(this.db);
    await this.settingsChanged();
    // Those that came from a shop with one bench are at the first of several that serves it.
    if (this.among) await claimInstruments(this.db, this.among.bench);
    for (const record of await listInstruments(this.db)) this.connect(record);
  }
  /** Another process changed instruments, calibrations or settings. */
  private async readAnew(): Promise<void> {
    this.calibrations = await lastCalibrations(this.db);
    for (const record of await listInstruments(this.db)) {
      const known = this.connected.get(record.id)?.record;
      if (!known) this.connect(record);
      else if (!isDeepStrictEqual(known, record)) await this.changed(record);
    }
    await this.settingsChanged();
  }

  /** The bench machine at which new instruments are plugged in. */
  get bench(): string {
    return this.among?.bench ?? '';
  }
  private isHere({ bench }: InstrumentRecord): boolean {
    return !this.among || bench === this.among.bench;
  }
  private requireHere({ record }: Connected): void {
    if (!this.isHere(record))
      throw new ApiProblem('instrument-elsewhere', [], { name: record.name, bench: record.bench });
  }

  stop(): void {
    for (const { driver, underWay } of this.connected.values()) {
      underWay?.stop.abort();
      void driver.close();
    }
    void this.hearings.stop();
  }

  /** The ports of this bench machine, and whose each is. */
  async ports(): Promise<FoundPort[]> {
    const all = await this.systemPorts.list().catch((error: unknown) => {
      log.warn({ err: error }, 'ports could not be listed');
      return [];
    });
    return all.map((port) => {
      const whose = this.atPort(port.path);
      return {
        path: port.path,
        usb: usbOf(port),
        says: [port.manufacturer, port.serialNumber].filter(Boolean).join(' '),
        instrument: whose?.record.name ?? '',
      };
    });
  }
  private atPort(path: string): Connected | undefined {
    return [...this.connected.values()].find(
      ({ record, driver }) =>
        !record.retired && this.isHere(record) && record.link && (driver.path ?? record.link.path) === path,
    );
  }

  /** What comes from a port. The instrument that has it rests meanwhile, unless it is read. */
  async hearPort(port: SerialPort): Promise<HeardLines> {
    if (!(await this.systemPorts.isPort(port.path)))
      throw new ApiProblem('not-a-port', [
        { path: 'path', code: 'not-a-port', message: sentence('not-a-port') },
      ]);
    const whose = this.hearings.has(port.path) ? undefined : this.atPort(port.path);
    if (whose?.underWay) throw new ApiProblem('instrument-busy', [], { name: whose.record.name });
    await whose?.driver.close();
    return this.hearings.hear(port);
  }

  /** The shop's settings have changed. */
  async settingsChanged(): Promise<void> {
    this.calibrationHours = (await theShop(this.db)).calibrationHours;
    await this.tellAll();
  }

  connect(record: InstrumentRecord): void {
    const driver = this.drivers[record.driver](record);
    const one: Connected = {
      record,
      driver,
      state: 'lost',
      warmInSeconds: 0,
      underWay: null,
      on: null,
      wake: new Set(),
      trouble: null,
    };
    this.connected.set(record.id, one);
    // One that is retired, or plugged in at another bench, is known, and not spoken with.
    if (record.retired || !this.isHere(record)) return;
    // It was set up by listening to its port: it is spoken with once that is let go.
    if (record.link && this.hearings.has(record.link.path)) {
      void this.hearings.close(record.link.path);
      return;
    }
    driver.open({
      state: (state, warmInSeconds) => {
        one.state = state;
        one.warmInSeconds = warmInSeconds;
        if (state !== 'lost') for (const wake of one.wake) wake();
        void this.tellAll();
      },
      sample: (value, steady, tared = false) =>
        this.tell({ kind: 'sample', instrumentId: record.id, value, steady, tared }),
      trouble: (why) => {
        one.trouble = why;
        void this.tellAll();
      },
    });
  }

  /** It was changed: called otherwise, it is read on; changed in anything else, it is spoken with anew. */
  async changed(record: InstrumentRecord): Promise<void> {
    const one = this.one(record.id);
    const { name, note } = record;
    if (!isDeepStrictEqual({ ...one.record, name, note }, record)) return this.speakAnew(record);
    one.record = record;
    await this.tellAll();
  }
  /** What lies on it stays there. */
  private async speakAnew(record: InstrumentRecord): Promise<void> {
    const { driver, underWay, on } = this.one(record.id);
    underWay?.stop.abort();
    await driver.close();
    this.connect(record);
    if (on && !record.retired && this.isHere(record)) await this.setStandIn(record.id, { on });
    await this.tellAll();
  }

  private one(id: string | undefined): Connected {
    const found = this.connected.get(id ?? '');
    if (!found) throw new ApiProblem('not-found');
    return found;
  }

  private idOf(number: number): string {
    return `${this.runId}.${number}`;
  }

  private tell(message: InstrumentMessage, id?: string): void {
    for (const listener of this.listeners) listener({ id, message });
  }

  private async tellAll(): Promise<void> {
    if (this.listeners.size === 0) return;
    const instruments = await this.all().catch(() => undefined);
    if (instruments) this.tell({ kind: 'instruments', instruments });
  }

  /**
   * What stands now, and then whatever happens. @param after the number of the last result that the listener heard: those that it missed since come first. Who
   * listens for the first time has missed nothing. @returns ends it
   */
  async subscribe(listener: Listener, after?: string): Promise<() => void> {
    listener({ id: undefined, message: { kind: 'instruments', instruments: await this.all() } });
    if (after !== undefined) {
      const [run, number] = after.split('.');
      // What was heard of an earlier run of the server is none of these.
      const heard = run === this.runId ? Number(number) : 0;
      for (const missed of this.results) {
        if (missed.number > heard) listener({ id: this.idOf(missed.number), message: missed.message });
      }
    }
    this.listeners.add(listener);
    // What changed while the first look was on its way is said too.
    void this.tellAll();
    return () => this.listeners.delete(listener);
  }

  async all(): Promise<Instrument[]> {
    return Promise.all([...this.connected.keys()].map((id) => this.view(id)));
  }

  async view(id: string): Promise<Instrument> {
    const one = this.one(id);
    const { record, driver, state, warmInSeconds, underWay, on } = one;
    const calibration = this.calibrations.get(id);
    return {
      ...record,
      bench: this.isHere(record) ? null : record.bench,
      state,
      warmInSeconds: Math.ceil(warmInSeconds),
      on,
      plugged: state !== 'lost',
      simulated: driver.simulated !== undefined,
      trouble: one.trouble ? sentence(one.trouble) : '',
      reading: underWay && { key: underWay.key, asked: underWay.asked, swings: underWay.values },
      calibration: calibration ?? null,
      calibrationState: KINDS[record.kind].calibrates
        ? calibrationState(calibration, this.calibrationHours, this.now())
        : 'not-needed',
    };
  }

  /** Puts something on a stand-in, or pulls its cable. */
  async setStandIn(
    id: string,
    { on, plugged }: { on?: OnStandIn | null | undefined; plugged?: boolean | undefined },
  ): Promise<Instrument> {
    const one = this.one(id);
    this.requireHere(one);
    const { simulated } = one.driver;
    if (!simulated) throw new ApiProblem('not-found');
    if (on !== undefined) {
      simulated.put(on && (await truthOf(this.db, on)));
      one.on = on;
    }
    if (plugged !== undefined) simulated.plug(plugged);
    await this.tellAll();
    return this.view(id);
  }

  /** What is said to be on a frame has changed: a stand-in on which it lies shows it so. */
  async redress(frameId: string): Promise<void> {
    for (const { driver, on } of this.connected.values()) {
      if (driver.simulated && on && 'frameId' in on && on.frameId === frameId) {
        driver.simulated.put(await truthOf(this.db, on));
      }
    }
  }

  /** Begins a reading. The same key again, or one that is done, begins nothing new. */
  async take(id: string, key: string, asked: Asked): Promise<Instrument> {
    const one = this.one(id);
    const { name, kind } = one.record;
    const done = this.results.some(({ message: r }) => r.kind === 'taken' && r.key === key);
    const already = () => done || one.underWay?.key === key;
    if (already()) return this.view(id);
    if (one.record.retired) throw new ApiProblem('instrument-retired', [], { name });
    this.requireHere(one);
    const { calibrates, reads } = KINDS[kind];
    if ('rod' in asked ? !calibrates : !reads.includes(asked.quantity)) {
      throw new ApiProblem('not-what-it-reads', [], { name });
    }
    this.requireOn(one, asked);
    const refused = !('rod' in asked) && this.calibrations.get(id)?.refused;
    if (refused) throw new ApiProblem('calibration-refused', [], { name });
    if (one.underWay) throw new ApiProblem('instrument-busy', [], { name });
    one.underWay = { key, asked, values: [], stop: new AbortController() };
    void this.run(one, one.underWay);
    await this.tellAll();
    return this.view(id);
  }

  /** A stand-in knows what lies on it; a real device does not and reads what is there. */
  private requireOn({ driver, on, record }: Connected, asked: Asked): void {
    if (!driver.simulated) return;
    const fits = on && ('rod' in asked ? 'rod' in on : 'frameId' in on && on.frameId === asked.frameId);
    if (!fits) throw new ApiProblem('nothing-on-it', [], { name: record.name });
  }

  async cancel(id: string): Promise<Instrument> {
    const one = this.one(id);
    one.underWay?.stop.abort();
    one.underWay = null;
    await this.tellAll();
    return this.view(id);
  }

  private async run(one: Connected, underWay: UnderWay): Promise<void> {
    const { record } = one;
    const { key, asked, values, stop } = underWay;
    const instrumentId = record.id;
    try {
      while (values.length < KINDS[record.kind].valuesAReading) {
        await this.back(one, stop.signal);
        const what = 'rod' in asked ? asked : { quantity: asked.quantity };
        const value = await one.driver.read(what, stop.signal).catch((error: unknown) => {
          // What was read before stays; the rest is read when the instrument is back.
          if (error instanceof Lost) return undefined;
          throw error;
        });
        if (value === undefined) continue;
        values.push(value);
        // What shows nothing by itself shows each swing.
        if (!KINDS[record.kind].shows)
          this.tell({ kind: 'sample', instrumentId, value, steady: true, tared: false });
        await this.tellAll();
      }
      const value = 'rod' in asked ? readingMean(values) : await this.keep(one, key, asked, values);
      this.finish(one, underWay, { kind: 'taken', instrumentId, key, asked, value });
    } catch (error) {
      if (stop.signal.aborted) return;
      const known = error instanceof ApiProblem ? error : undefined;
      if (!known) log.error({ err: error }, 'a reading failed');
      const code: ErrorCode = known?.code ?? 'internal';
      const message = known?.message ?? sentence(code);
      this.finish(one, underWay, { kind: 'failed', instrumentId, key, asked, code, message });
    }
  }

  private finish(one: Connected, underWay: UnderWay, message: Result): void {
    if (one.underWay === underWay) one.underWay = null;
    const number = ++this.lastNumber;
    this.results = [...this.results, { number, message }].slice(-KEPT_RESULTS);
    this.tell(message, this.idOf(number));
    void this.tellAll();
  }

  /** Waits until the instrument is there. */
  private async back(one: Connected, signal: AbortSignal): Promise<void> {
    while (one.state === 'lost') {
      await new Promise<void>((resolve, reject) => {
        const abort = (): void => reject(signal.reason as Error);
        const wake = (): void => {
          one.wake.delete(wake);
          signal.removeEventListener('abort', abort);
          resolve();
        };
        one.wake.add(wake);
        signal.addEventListener('abort', abort);
      });
    }
  }

  private async keep(
    { record, warmInSeconds }: Connected,
    key: string,
    asked: Extract<Asked, { frameId: string }>,
    raw: readonly number[],
  ): Promise<number> {
    const { id, kind, sheet } = record;
    const { calibrates } = KINDS[kind];
    const calibration = this.calibrations.get(id);
    const takenAt = this.now();
    const reading = readingByInstrument({
      source: id,
      sheet,
      calibrates,
      calibration: calibration?.refused ? undefined : calibration,
      quantity: asked.quantity,
      raw,
      takenAt,
      coldError: coldError(sheet, warmInSeconds),
    });
    const kept: ReadingRecord = {
      ...reading,
      id: key,
      takenAt,
      instrumentId: id,
      calibrationId: calibrates ? (calibration?.id ?? null) : null,
      setAside: false,
    };
    await this.db.transaction(async (tx) => {
      await lock(tx, 'reading', asked.frameId);
      await keepReading(tx, asked.frameId, kept);
    });
    // Pages of this process hear it of the instrument.
    this.among?.changes.tellElsewhere({ kind: 'reading', id: asked.frameId, page: '' });
    return reading.value ?? readingMean(raw);
  }

  /** Stores a calibration of an instrument that reads. @returns its id */
  async calibrate(tx: Queries, id: string, key: string, rods: CalibrationRecord['rods']): Promise<string> {
    const { record } = this.one(id);
    if (!KINDS[record.kind].calibrates) throw new ApiProblem('not-a-machine');
    const found = calibrateReads(rods);
    return (await addCalibration(tx, { key, instrumentId: id, takenAt: this.now(), rods, found })).id;
  }
  /** A calibration was stored. */
  async calibrated(): Promise<void> {
    this.calibrations = await lastCalibrations(this.db);
    await this.tellAll();
  }
}
