import { daysBetween } from '../units';
import { kindsOf } from './kinds';
import type { StringKind } from '../part';

/** What a bed was strung with: what is not known of its crosses is as of its mains. */
export interface Strung {
  mainsKg: number;
  crossesKg: number;
  mainsKind: StringKind;
  crossesKind: StringKind;
  preStretchPercent: number;
}
/** How long ago, and how long it was played. */
export interface Since {
  days: number;
  hours: number;
}
/** A tension that somebody measured, of the whole bed, and when after stringing. */
export interface TensionRead extends Since {
  kg: number;
}
export interface TensionNow {
  kg: number;
  /** One standard uncertainty, kg. */
  uncertainty: number;
  /** Share of what it was strung at, or measured at. */
  share: number;
  from: 'strung' | 'measured';
}

/**
 * Tension goes with the logarithm of time (Cross and Lindsey, Technical Tennis, 2005; the law is theirs, the numbers are from memory): share lost with each tenfold of
 * the minutes since, and with each hour of play.
 */
export const TENSION_LOSS: Record<StringKind, { perDecade: number; perHour: number }> = {
  polyester: { perDecade: 0.038, perHour: 0.007 },
  nylon: { perDecade: 0.03, perHour: 0.005 },
  gut: { perDecade: 0.022, perHour: 0.004 },
};
/** Pre-stretched by so many per cent half of what goes with time has gone before (from memory). */
const HALF_BY_PRESTRETCH = 10;
/** How uncertain a loss is, as a share of it, and a machine's pull as a share of it: one standard uncertainty (from memory). */
const LOSS_SHARE = 0.3;
const PULL_SHARE = 0.03;
/** How far a tester's number is off, as a share: one standard uncertainty (from memory). */
const READ_SHARE = 0.03;
/** No bed in play is below this share of what it was strung at. */
const LEAST_LEFT = 0.4;
const MINUTES_A_DAY = 1440;

function lossOf({ mainsKind, crossesKind, preStretchPercent }: Strung, { days, hours }: Since): number {
  const calmed = HALF_BY_PRESTRETCH / (HALF_BY_PRESTRETCH + preStretchPercent);
  const decades = Math.log10(1 + MINUTES_A_DAY * Math.max(0, days));
  const of = (kind: StringKind): number => {
    const { perDecade, perHour } = TENSION_LOSS[kind];
    return calmed * perDecade * decades + perHour * Math.max(0, hours);
  };
  return Math.min(1 - LEAST_LEFT, (of(mainsKind) + of(crossesKind)) / 2);
}

/**
 * What is left of a bed's tension: an estimate, never a measurement. From a tension that was measured on, it counts from there.
 * @param now since it was strung @param read the last that was measured, before now
 * @example tensionNow({ mainsKg: 24, crossesKg: 23, mainsKind: 'polyester', crossesKind: 'polyester', preStretchPercent: 0 }, { days: 30, hours: 10 }).kg // 17.7
 */
export function tensionNow(strung: Strung, now: Since, read?: TensionRead): TensionNow {
  const left = 1 - lossOf(strung, now);
  if (!read) {
    const full = (strung.mainsKg + strung.crossesKg) / 2;
    const uncertainty = full * Math.hypot(LOSS_SHARE * (1 - left), PULL_SHARE);
    return { kg: full * left, uncertainty, share: left, from: 'strung' };
  }
  const share = Math.min(1, left / (1 - lossOf(strung, read)));
  const uncertainty = read.kg * Math.hypot(LOSS_SHARE * (1 - share), READ_SHARE);
  return { kg: read.kg * share, uncertainty, share, from: 'measured' };
}

/** Strings as they are recorded. */
export type RecordedStrings = Parameters<typeof kindsOf>[0] &
  Pick<Strung, 'mainsKg' | 'crossesKg' | 'preStretchPercent'> & {
    strungOn: string;
    /** Tensions that were measured since, the last one last. */
    readings: readonly { on: string; kg: number }[];
  };
/**
 * What is left of the tension of recorded strings; undefined where nobody knows what they are made of. Of the hours until a reading nothing is known but that they came
 * evenly.
 * @example tensionOf(stringing, { days: 20, hours: 6 })?.kg
 */
export function tensionOf(recorded: RecordedStrings, now: Since): TensionNow | undefined {
  const { mains: mainsKind, crosses: crossesKind } = kindsOf(recorded);
  if (!mainsKind || !crossesKind) return undefined;
  const strung = { ...recorded, mainsKind, crossesKind };
  const read = recorded.readings.at(-1);
  if (!read) return tensionNow(strung, now);
  const days = Math.max(0, daysBetween(recorded.strungOn, read.on));
  const hours = now.days > 0 ? (now.hours * Math.min(days, now.days)) / now.days : now.hours;
  return tensionNow(strung, { ...now, days: Math.max(now.days, days) }, { kg: read.kg, days, hours });
}
