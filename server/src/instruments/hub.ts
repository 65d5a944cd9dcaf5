import {
  READS,
  VALUES_A_READING,
  sentence,
  type Asked,
  type CalibrationRecord,
  type ErrorCode,
  type Instrument,
  type InstrumentMessage,
  type OnStandIn,
} from '@kevro/contract';
import type { Clock } from '../clock';
import type { Db } from '../db/db';
import { ApiProblem } from '../problem';
import {
  addCalibration,
  listInstruments,
  newestCalibration,
  type InstrumentRecord,
} from '../records/instrument';
import { calibrateRods, calibrationState } from './calibration';
import { Lost, type Driver } from './driver';
import { seedOf } from './seed';
import { StandIn, type Pace } from './stand-in';
import { truthOf } from './truth';
import { coldError, readingByInstrument } from './uncertainty';
import { keepReading } from './keep';

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
}

type Listener = (message: InstrumentMessage) => void;
/** Results kept for a page that comes back in the middle. */
const KEPT_RESULTS = 20;

/** All instruments of the shop: what state they are in, the reading under way on each, and who listens. */
export class Hub {
  private readonly connected = new Map<string, Connected>();
  private readonly listeners = new Set<Listener>();
  private results: InstrumentMessage[] = [];

  constructor(
    private readonly db: Db,
    private readonly now: Clock,
    private readonly pace: Pace,
  ) {}

  async start(): Promise<void> {
    for (const record of await listInstruments(this.db)) this.connect(record);
  }

  stop(): void {
    for (const { driver, underWay } of this.connected.values()) {
      underWay?.stop.abort();
      driver.close();
    }
  }

  connect(record: InstrumentRecord): void {
    const driver = new StandIn(record.kind, record.sheet, seedOf(record.id), this.pace);
    const one: Connected = {
      record,
      driver,
      state: 'lost',
      warmInSeconds: 0,
      underWay: null,
      on: null,
      wake: new Set(),
    };
    this.connected.set(record.id, one);
    driver.open({
      state: (state, warmInSeconds) => {
        one.state = state;
        one.warmInSeconds = warmInSeconds;
        if (state !== 'lost') for (const wake of one.wake) wake();
        void this.tellAll();
      },
      sample: (value, steady) => this.tell({ kind: 'sample', instrumentId: record.id, value, steady }),
    });
  }

  private one(id: string | undefined): Connected {
    const found = this.connected.get(id ?? '');
    if (!found) throw new ApiProblem('not-found');
    return found;
  }

  private tell(message: InstrumentMessage): void {
    for (const listener of this.listeners) listener(message);
  }

  private async tellAll(): Promise<void> {
    if (this.listeners.size === 0) return;
    const instruments = await this.all().catch(() => undefined);
    if (instruments) this.tell({ kind: 'instruments', instruments });
  }

  /** What stands now and the last results, and then whatever happens. @returns ends it */
  async subscribe(listener: Listener): Promise<() => void> {
    listener({ kind: 'instruments', instruments: await this.all() });
    for (const result of this.results) listener(result);
    this.listeners.add(listener);
    // What changed while the first look was on its way is said too.
    void this.tellAll();
    return () => this.listeners.delete(listener);
  }

  async all(): Promise<Instrument[]> {
    return Promise.all([...this.connected.keys()].map((id) => this.view(id)));
  }

  async view(id: string): Promise<Instrument> {
    const { record, state, warmInSeconds, underWay, on } = this.one(id);
    const calibration = await newestCalibration(this.db, id);
    return {
      ...record,
      state,
      warmInSeconds: Math.ceil(warmInSeconds),
      on,
      plugged: state !== 'lost',
      reading: underWay && { key: underWay.key, asked: underWay.asked, swings: underWay.values },
      calibration: calibration ?? null,
      calibrationState: await calibrationState(this.db, record.kind, calibration, this.now()),
    };
  }

  /** Puts something on a stand-in, or pulls its cable. */
  async setStandIn(
    id: string,
    { on, plugged }: { on?: OnStandIn | null | undefined; plugged?: boolean | undefined },
  ): Promise<Instrument> {
    const one = this.one(id);
    if (!(one.driver instanceof StandIn)) throw new ApiProblem('not-found');
    if (on !== undefined) {
      one.driver.put(on && (await truthOf(this.db, on)));
      one.on = on;
    }
    if (plugged !== undefined) one.driver.plug(plugged);
    await this.tellAll();
    return this.view(id);
  }

  /** What is said to be on a frame has changed: a stand-in on which it lies shows it so. */
  async redress(frameId: string): Promise<void> {
    for (const { driver, on } of this.connected.values()) {
      if (driver instanceof StandIn && on && 'frameId' in on && on.frameId === frameId) {
        driver.put(await truthOf(this.db, on));
      }
    }
  }

  /** Begins a reading. The same key again, or one that is done, begins nothing new. */
  async take(id: string, key: string, asked: Asked): Promise<Instrument> {
    const one = this.one(id);
    const { name, kind } = one.record;
    const done = this.results.some((r) => r.kind === 'taken' && r.key === key);
    const already = () => done || one.underWay?.key === key;
    if (already()) return this.view(id);
    if ('rod' in asked ? kind !== 'machine' : !READS[kind].includes(asked.quantity)) {
      throw new ApiProblem('not-what-it-reads', [], { name });
    }
    this.requireOn(one, asked);
    const newest = 'rod' in asked ? undefined : await newestCalibration(this.db, id);
    if (newest?.refused) throw new ApiProblem('calibration-refused', [], { name });
    // Asked again: while the newest calibration was read, another request may have begun.
    if (already()) return this.view(id);
    if (one.underWay) throw new ApiProblem('instrument-busy', [], { name });
    one.underWay = { key, asked, values: [], stop: new AbortController() };
    void this.run(one, one.underWay);
    await this.tellAll();
    return this.view(id);
  }

  /** A stand-in knows what lies on it; a real device does not and reads what is there. */
  private requireOn({ driver, on, record }: Connected, asked: Asked): void {
    if (!(driver instanceof StandIn)) return;
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
      while (values.length < VALUES_A_READING[record.kind]) {
        await this.back(one, stop.signal);
        const what = 'rod' in asked ? asked : { quantity: asked.quantity };
        const value = await one.driver.read(what, stop.signal).catch((error: unknown) => {
          // What was read before stays; the rest is read when the instrument is back.
          if (error instanceof Lost) return undefined;
          throw error;
        });
        if (value === undefined) continue;
        values.push(value);
        if (record.kind === 'machine') this.tell({ kind: 'sample', instrumentId, value, steady: true });
        await this.tellAll();
      }
      const raw = values.reduce((sum, v) => sum + v, 0) / values.length;
      const value = 'rod' in asked ? raw : await this.keep(one, key, asked, raw);
      this.finish(one, underWay, { kind: 'taken', instrumentId, key, asked, value });
    } catch (error) {
      if (stop.signal.aborted) return;
      const code: ErrorCode = error instanceof ApiProblem ? error.code : 'internal';
      if (code === 'internal') console.error(error);
      this.finish(one, underWay, { kind: 'failed', instrumentId, key, code, message: sentence(code) });
    }
  }

  private finish(one: Connected, underWay: UnderWay, result: InstrumentMessage): void {
    if (one.underWay === underWay) one.underWay = null;
    this.results = [...this.results, result].slice(-KEPT_RESULTS);
    this.tell(result);
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
    raw: number,
  ): Promise<number> {
    const { id, kind, sheet } = record;
    const calibration = await newestCalibration(this.db, id);
    const takenAt = this.now();
    const reading = readingByInstrument({
      id,
      kind,
      sheet,
      calibration: calibration?.refused ? undefined : calibration,
      quantity: asked.quantity,
      raw,
      takenAt,
      coldError: coldError(sheet, warmInSeconds),
    });
    await keepReading(this.db, asked.frameId, {
      ...reading,
      id: key,
      takenAt,
      instrumentId: id,
      calibrationId: kind === 'machine' ? (calibration?.id ?? null) : null,
      setAside: false,
    });
    return reading.value ?? raw;
  }

  async calibrate(id: string, key: string, rods: CalibrationRecord['rods']): Promise<CalibrationRecord> {
    const { record } = this.one(id);
    if (record.kind !== 'machine') throw new ApiProblem('not-a-machine');
    const found = calibrateRods(rods);
    const takenAt = this.now();
    const stored = await addCalibration(this.db, { key, instrumentId: id, takenAt, rods, found });
    await this.tellAll();
    return stored;
  }
}
