import { ratingsBy, RATING_KEYS } from '../spec';
import { Fault, type FaultCode } from '../fault';
import type { Frame } from '../frame';
import { recoilWeight, shiftAxis, type AxisSpecs } from '../mass';
import {
  PENDULUM_UNCERTAINTY,
  edgeOnCorrection,
  pendulum,
  repeats,
  threadsCorrection,
  twistByThreads,
  wholeOf,
  type Parted,
} from '../measure';
import {
  QUANTITIES,
  type Means,
  type PendulumSetting,
  type Quantity,
  type Reading,
  type ThreadsSetting,
} from './reading';

/** A quantity settled from its readings. */
export interface Settled {
  value: number;
  /** Standard uncertainty; the stated 95 % interval is twice this to either side. */
  uncertainty: number;
  /** Its two parts: what more readings would lessen, and what they would not. */
  parts: Parted;
  /** Readings that count. */
  count: number;
  means: Means[];
  /** No instrument, no method and no typed reading stands behind it. */
  estimated: boolean;
}

export interface SettledCapture {
  settled: Partial<Record<Quantity, Settled>>;
  /** What each reading comes to by itself, in its quantity's unit. */
  values: Record<string, number>;
  /** Readings that stand far from the others of their quantity and source. */
  outliers: string[];
  /** Readings that wait for others, or cannot be: with what is wrong. */
  waiting: Record<string, FaultCode>;
}

/** A reading with its own value worked out. */
interface Worked {
  reading: Reading;
  value: number;
  random: number;
  /** Scatter that all readings of this capture have from one other reading: repeats of these do not lessen it, another capture has its own. */
  shared?: number;
  common: number;
}

interface Group {
  mean: number;
  parts: Parted;
  count: number;
}

const root = (...parts: number[]): number => Math.hypot(...parts);
const rootMean = (values: readonly number[]): number => root(...values) / Math.sqrt(values.length);

/** The mean of readings that share a source: what repeats make smaller, and what they do not. */
function groupMean(group: readonly Worked[]): Group {
  const { mean, uncertainty } = repeats(
    group.map((w) => w.value),
    rootMean(group.map((w) => w.random)),
  );
  const shared = rootMean(group.map((w) => w.shared ?? 0));
  const common = rootMean(group.map((w) => w.common));
  return { mean, parts: { random: root(uncertainty, shared), common }, count: group.length };
}

function bySource(all: readonly Worked[]): Worked[][] {
  const groups = new Map<string, Worked[]>();
  for (const worked of all) {
    const group = groups.get(worked.reading.source);
    if (group) group.push(worked);
    else groups.set(worked.reading.source, [worked]);
  }
  return [...groups.values()];
}

/**
 * One value from several sources: the mean weighted by 1/u², and where the sources differ by more than they state, the uncertainty grows with
 * their spread (Birge ratio; from memory).
 */
function joined(groups: readonly Group[]): Group {
  const [only, ...others] = groups;
  if (only && others.length === 0) return only;
  const weights = groups.map((g) => 1 / wholeOf(g.parts) ** 2);
  const weight = weights.reduce((sum, w) => sum + w, 0);
  const mean = groups.reduce((sum, g, i) => sum + g.mean * (weights[i] ?? 0), 0) / weight;
  const misfit = groups.reduce((sum, g, i) => sum + (g.mean - mean) ** 2 * (weights[i] ?? 0), 0);
  const birge = groups.length > 1 ? Math.max(1, Math.sqrt(misfit / (groups.length - 1))) : 1;
  const part = (of: keyof Parted): number =>
    (birge * root(...groups.map((g, i) => (weights[i] ?? 0) * g.parts[of]))) / weight;
  return {
    mean,
    parts: { random: part('random'), common: part('common') },
    count: groups.reduce((sum, g) => sum + g.count, 0),
  };
}

class Capture {
  readonly result: SettledCapture = { settled: {}, values: {}, outliers: [], waiting: {} };

  constructor(
    private readonly frame: Frame,
    private readonly readings: readonly Reading[],
  ) {}

  private of(quantity: Quantity): Reading[] {
    return this.readings.filter((r) => r.quantity === quantity);
  }

  /** Works out each reading of a quantity; one that cannot be worked out yet waits. */
  private work(quantity: Quantity, how: (reading: Reading) => Omit<Worked, 'reading'>): Worked[] {
    return this.of(quantity).flatMap((reading) => {
      try {
        const worked = { reading, ...how(reading) };
        this.result.values[reading.id] = worked.value;
        return [worked];
      } catch (fault) {
        if (!(fault instanceof Fault)) throw fault;
        this.result.waiting[reading.id] = fault.problems[0]?.code ?? 'not-a-number';
        return [];
      }
    });
  }

  private settle(quantity: Quantity, all: readonly Worked[]): void {
    for (const group of bySource(all)) {
      const typical = Math.max(...group.map((w) => w.random));
      const found = repeats(
        group.map((w) => w.value),
        typical,
      );
      this.result.outliers.push(...found.outliers.map((i) => (group[i] as Worked).reading.id));
    }
    const counted = all.filter((w) => !w.reading.setAside);
    const measured = counted.filter((w) => w.reading.means !== 'estimate');
    const used = measured.length > 0 ? measured : counted;
    if (used.length === 0) return;
    const { mean, parts, count } = joined(bySource(used).map(groupMean));
    this.result.settled[quantity] = {
      value: mean,
      uncertainty: wholeOf(parts),
      parts,
      count,
      means: [...new Set(used.map((w) => w.reading.means))],
      estimated: measured.length === 0,
    };
  }

  private known(): { massG: Settled; balanceCm: Settled } {
    const { massG, balanceCm } = this.result.settled;
    if (!massG || !balanceCm) throw new Fault({ code: 'needs-weight-and-balance', path: 'readings' });
    return { massG, balanceCm };
  }

  /** A swing weight about the sport's own axis, face-on or edge-on: both move by the same M [(B − a)² − (B − b)²]. */
  private aboutOwnAxis(reading: Reading): number {
    const value = reading.value ?? Number.NaN;
    const own = this.frame.sport.axisCm;
    if (reading.axisCm === undefined || reading.axisCm === own) return value;
    const { massG, balanceCm } = this.known();
    const read: AxisSpecs = {
      massG: massG.value,
      balanceCm: balanceCm.value,
      swingWeight: value,
      axisCm: reading.axisCm,
    };
    return shiftAxis(read, own).swingWeight;
  }

  private readonly direct = (r: Reading): Omit<Worked, 'reading'> => ({
    value: r.value ?? Number.NaN,
    random: r.random,
    common: r.common,
  });

  private readonly swing = (reading: Reading): Omit<Worked, 'reading'> => {
    if (!reading.timing) return { ...this.direct(reading), value: this.aboutOwnAxis(reading) };
    const { massG, balanceCm } = this.known();
    const timing = {
      ...(reading.timing as PendulumSetting),
      massG: massG.value,
      balanceCm: balanceCm.value,
      axisCm: this.frame.sport.axisCm,
    };
    const none = { massG: 0, balanceCm: 0, pivotCm: 0, seconds: 0 };
    const of = (uncertainty: Partial<typeof none>): number =>
      pendulum({ ...timing, uncertainty: { ...none, ...uncertainty } }).uncertainty;
    const { pivotCm } = PENDULUM_UNCERTAINTY;
    return {
      value: pendulum(timing).swingWeight,
      random: of({ seconds: reading.random }),
      // It is hung anew each time that a frame is measured, and weighed and balanced anew.
      shared: of({ massG: massG.parts.random, balanceCm: balanceCm.parts.random, pivotCm }),
      common: of({
        massG: massG.parts.common,
        balanceCm: balanceCm.parts.common,
        seconds: reading.common,
      }),
    };
  };

  private threads(reading: Reading): Omit<Worked, 'reading'> {
    const { massG } = this.result.settled;
    if (!massG) throw new Fault({ code: 'needs-weight-and-balance', path: 'readings' });
    const timing = { ...(reading.timing as ThreadsSetting), massG: massG.value };
    const none = { massG: 0, threadCm: 0, separationCm: 0, seconds: 0 };
    const of = (uncertainty: Partial<typeof none>): number =>
      twistByThreads({ ...timing, uncertainty: { ...none, ...uncertainty } }).uncertainty;
    const air = threadsCorrection(this.frame);
    return {
      value: twistByThreads(timing).twistWeight + air.add,
      random: of({ seconds: reading.random }),
      shared: of({ massG: massG.parts.random }),
      common: root(
        of({ massG: massG.parts.common, threadCm: 0.2, separationCm: 0.05, seconds: reading.common }),
        air.uncertainty,
      ),
    };
  }

  /** Edge-on minus face-on, and what depth and air take off it: the face-on readings of the same machine, or of any where that has none. */
  private edgeOn(reading: Reading, faceOn: readonly Worked[]): Omit<Worked, 'reading'> {
    const usable = faceOn.filter((w) => !w.reading.setAside && w.reading.means !== 'estimate');
    const own = usable.filter((w) => w.reading.source === reading.source);
    const beside = own.length > 0 ? own : usable;
    if (beside.length === 0) throw new Fault({ code: 'needs-face-on', path: 'readings' });
    const face = groupMean(beside.map((w) => ({ ...w, common: 0 })));
    const flat = this.aboutOwnAxis(reading) - face.mean;
    const massG = this.result.settled.massG?.value ?? this.frame.sport.usual.massG;
    const more = edgeOnCorrection(this.frame, massG, reading.axisCm ?? this.frame.sport.axisCm);
    const value = flat + more.add;
    // A light paddle's difference may come out at nothing or less: what depth and air hide of it is more than that.
    if (!(value > 0)) throw new Fault({ code: 'twist-weight-impossible', path: 'readings' });
    const between =
      own.length > 0
        ? (reading.scale ?? 0) * Math.abs(flat)
        : root(reading.common, ...beside.slice(0, 1).map((w) => w.common));
    // The face-on mean is the same in every difference, so repeats of the edge-on reading do not lessen its share.
    return {
      value,
      random: reading.random,
      shared: face.parts.random,
      common: root(more.uncertainty, between),
    };
  }

  private readonly twist =
    (faceOn: readonly Worked[]) =>
    (reading: Reading): Omit<Worked, 'reading'> => {
      if (reading.timing) return this.threads(reading);
      return reading.means === 'edge-on' ? this.edgeOn(reading, faceOn) : this.direct(reading);
    };

  settleAll(): SettledCapture {
    this.settle('massG', this.work('massG', this.direct));
    this.settle('balanceCm', this.work('balanceCm', this.direct));
    const faceOn = this.work('swingWeight', this.swing);
    this.settle('swingWeight', faceOn);
    this.settle('twistWeight', this.work('twistWeight', this.twist(faceOn)));
    for (const quantity of [...RATING_KEYS, 'leftRightG'] as const)
      this.settle(quantity, this.work(quantity, this.direct));
    return this.result;
  }
}

/**
 * Settles a capture: repeats of one source are averaged, u² = r²/n + common², r the readings' own
 * scatter where that is more than the instrument says; sources are joined by weights 1/u² (JCGM 100:2008, 4.2, 4.3
 * and 5.1). Timings are worked out with the weight and balance of the capture itself; a swing weight read about another axis is moved to the sport's
 * own. An estimate counts only where nothing else stands.
 * @param readings in any order; those set aside do not count @returns values in g, cm and kg·cm²; left/right in g
 * @example settleCapture(frame, readings).settled.massG // { value: 327.4, uncertainty: 0.2, count: 3, … }
 */
export const settleCapture = (frame: Frame, readings: readonly Reading[]): SettledCapture =>
  new Capture(frame, readings).settleAll();

/** The specs of a settled capture, where weight, balance and swing weight stand and can go together. */
export function specsOfCapture(frame: Frame, { settled }: SettledCapture): AxisSpecs | undefined {
  const { massG, balanceCm, swingWeight, twistWeight } = settled;
  if (!massG || !balanceCm || !swingWeight) return undefined;
  const specs: AxisSpecs = {
    massG: massG.value,
    balanceCm: balanceCm.value,
    swingWeight: swingWeight.value,
    axisCm: frame.sport.axisCm,
    ...(twistWeight ? { twistWeight: twistWeight.value } : {}),
    ...ratingsBy((key) => settled[key]?.value),
  };
  return recoilWeight(specs) > 0 ? specs : undefined;
}

/** The quantities of a settled capture that are estimates. */
export const estimatedOf = ({ settled }: SettledCapture): Quantity[] =>
  QUANTITIES.filter((quantity) => settled[quantity]?.estimated);
