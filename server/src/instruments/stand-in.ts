import {
  COLD_ERROR,
  LEFT_RIGHT,
  ROD_UNCERTAINTY,
  WARM_UP_FALLS,
  edgeOnCorrection,
  seededNormals,
  shiftAxis,
  type DataSheet,
} from '@kevro/core';
import { KINDS, type InstrumentKind } from '@kevro/contract';
import { Lost, type Driver, type DriverEvents, type Simulated, type ToRead, type Truth } from './driver';

const HOUR_MS = 3_600_000;
const DAY_HOURS = 24;

/**
 * How one stand-in errs. Its own errors are drawn once from the data sheet, by its seed: a slope and an offset (accuracy), a drift that follows the hours of the day,
 * a cold error that fades while it warms up, and the small errors of its own set of rods. Noise is drawn for every value.
 */
export class StandInModel {
  private readonly normal: () => number;
  private readonly slope: number;
  private readonly offset: number;
  private readonly cold: number;
  private readonly leftRightOff: number;
  private readonly driftAmplitude: number;
  private readonly driftPhase: number;
  private readonly rodErrors = new Map<number, number>();

  constructor(
    private readonly kind: InstrumentKind,
    private readonly sheet: DataSheet,
    seed: number,
  ) {
    this.normal = seededNormals(seed);
    // What is calibrated errs in scale and in zero, half of its accuracy each; a scale or a board in zero only.
    const { calibrates } = KINDS[kind];
    const part = calibrates ? sheet.accuracy * Math.SQRT1_2 : sheet.accuracy;
    this.offset = part * this.normal();
    this.slope = calibrates ? 1 + (part / 300) * this.normal() : 1;
    this.cold = COLD_ERROR * sheet.repeatability * this.normal();
    this.leftRightOff = LEFT_RIGHT.common * this.normal();
    this.driftAmplitude = (sheet.driftPerHour * DAY_HOURS) / (2 * Math.PI);
    this.driftPhase = 2 * Math.PI * this.normal();
  }

  private rod(rod: number): number {
    const error = this.rodErrors.get(rod) ?? ROD_UNCERTAINTY * this.normal();
    this.rodErrors.set(rod, error);
    return rod + error;
  }

  private true(truth: Truth, what: ToRead): number {
    if ('rod' in truth) return this.rod(truth.rod);
    const { specs, leftRightG } = truth;
    const asked = 'rod' in what ? 'swingWeight' : what.quantity;
    if (asked === 'leftRightG') return leftRightG;
    if (asked === 'massG' || asked === 'balanceCm') return specs[asked];
    const axisCm = this.sheet.axisCm ?? specs.axisCm;
    const about = shiftAxis(specs, axisCm).swingWeight;
    if (asked !== 'twistWeight') return about;
    // Edge-on, a real frame is no flat plate in still air.
    const { depth, air } = edgeOnCorrection(truth.frame, specs.massG, axisCm);
    const { deeper, airier } = truth.layup;
    return about + specs.twistWeight - depth * (1 + deeper) - air * (1 + airier);
  }

  /** What it shows, before rounding and noise. */
  shown(truth: Truth, what: ToRead, atMs: number, onForMs: number): number {
    const value = this.true(truth, what);
    // A left/right difference is read from one position to the other: slope, zero and drift fall out.
    if (!('rod' in what) && what.quantity === 'leftRightG') return value + this.leftRightOff;
    const warmMs = this.sheet.warmUpMinutes * 60_000;
    const cold = warmMs > 0 ? this.cold * Math.exp((-WARM_UP_FALLS * onForMs) / warmMs) : 0;
    const day = (2 * Math.PI * atMs) / (DAY_HOURS * HOUR_MS);
    const drift = this.driftAmplitude * Math.sin(day + this.driftPhase);
    return this.slope * value + this.offset + cold + drift;
  }

  /** One raw value with its noise, rounded as the display rounds. */
  value(truth: Truth, what: ToRead, atMs: number, onForMs: number): number {
    const leftRight = !('rod' in what) && what.quantity === 'leftRightG';
    const oneReading = leftRight ? LEFT_RIGHT.random : this.sheet.repeatability;
    const noise = oneReading * Math.sqrt(KINDS[this.kind].valuesAReading) * this.normal();
    const step = leftRight ? 0.1 : this.sheet.resolution;
    return Math.round((this.shown(truth, what, atMs, onForMs) + noise) / step) * step;
  }
}

/** How long a stand-in takes, ms. */
export interface Pace {
  aValue: number;
  aSample: number;
}
export const BENCH_PACE: Pace = { aValue: 700, aSample: 250 };

/** A simulated instrument that ships with Kevro: anything of the shop can be put on it, and its cable can be pulled. */
export class StandIn implements Driver, Simulated {
  readonly simulated: Simulated = this;
  private events?: DriverEvents;
  private truth: Truth | null = null;
  private putOnAt = 0;
  private onSince = Number.NEGATIVE_INFINITY;
  private plugged = true;
  private ticking?: NodeJS.Timeout;
  private readonly pulled = new Set<() => void>();
  private readonly model: StandInModel;

  constructor(
    private readonly kind: InstrumentKind,
    private readonly sheet: DataSheet,
    seed: number,
    private readonly pace: Pace,
  ) {
    this.model = new StandInModel(kind, sheet, seed);
  }

  open(events: DriverEvents): void {
    this.events = events;
    this.tell();
    this.ticking = setInterval(() => this.tick(), this.pace.aSample);
    this.ticking.unref();
  }

  close(): void {
    clearInterval(this.ticking);
    for (const stop of this.pulled) stop();
  }

  put(truth: Truth | null): void {
    this.truth = truth;
    this.putOnAt = Date.now();
  }

  /** Plugged in again, it warms up again. */
  plug(plugged: boolean): void {
    if (plugged === this.plugged) return;
    this.plugged = plugged;
    if (plugged) this.onSince = Date.now();
    else for (const stop of this.pulled) stop();
    this.tell();
  }

  private get warmInSeconds(): number {
    return Math.max(0, this.sheet.warmUpMinutes * 60 - (Date.now() - this.onSince) / 1000);
  }

  private tell(): void {
    const warm = this.warmInSeconds;
    this.events?.state(this.plugged ? (warm > 0 ? 'warming' : 'ready') : 'lost', warm);
  }

  private wasWarming = false;
  private tick(): void {
    const warming = this.plugged && this.warmInSeconds > 0;
    if (warming || this.wasWarming) this.tell();
    this.wasWarming = warming;
    const quantity = KINDS[this.kind].shows;
    if (!this.plugged || !quantity) return;
    if (!this.truth || 'rod' in this.truth) return void this.events?.sample(0, true);
    // The display runs up to the value within a second of putting the frame on.
    const lying = Date.now() - this.putOnAt;
    const share = 1 - Math.exp(-lying / 200);
    const { resolution } = this.sheet;
    const value = share * this.model.value(this.truth, { quantity }, Date.now(), Date.now() - this.onSince);
    this.events?.sample(Math.round(value / resolution) * resolution, lying > 1200);
  }

  async read(what: ToRead, signal: AbortSignal): Promise<number> {
    await this.wait(signal);
    if (!this.truth) throw new Lost();
    const now = Date.now();
    return this.model.value(this.truth, what, now, now - this.onSince);
  }

  private wait(signal: AbortSignal): Promise<void> {
    return new Promise((resolve, reject) => {
      if (!this.plugged) {
        reject(new Lost());
        return;
      }
      const stop = (error?: Error): void => {
        clearTimeout(timer);
        this.pulled.delete(pull);
        signal.removeEventListener('abort', abort);
        if (error) reject(error);
        else resolve();
      };
      const pull = (): void => stop(new Lost());
      const abort = (): void => stop(signal.reason as Error);
      const timer = setTimeout(() => stop(), this.pace.aValue);
      this.pulled.add(pull);
      signal.addEventListener('abort', abort);
    });
  }
}
