import type { StringKind } from './string';

/** What is done with strings. */
export const STRING_CHANGES = [
  'tighter',
  'looser',
  'softer',
  'thinner',
  'thicker',
  'opener',
  'newer',
] as const;
export type StringChange = (typeof STRING_CHANGES)[number];

/** Which kind is softer than one; the softest stays (common practice). */
export const SOFTER: Record<StringKind, StringKind | undefined> = {
  polyester: 'nylon',
  nylon: 'gut',
  gut: undefined,
};

/** One change of strings, as a programme proposes it. */
export interface StringStep {
  change: StringChange;
  /** Of a change of tension, kg. */
  byKg?: number | undefined;
  /** Of a change of kind. */
  to?: StringKind | undefined;
}

/** How new strings are to go in, as far as somebody said. */
export interface StringingJob {
  mains?: string | undefined;
  crosses?: string | undefined;
  mainsKind?: StringKind | undefined;
  crossesKind?: StringKind | undefined;
  mainsMm?: number | undefined;
  crossesMm?: number | undefined;
  mainsKg?: number | undefined;
  crossesKg?: number | undefined;
  /** How its tension is said. */
  unit?: 'kg' | 'lb' | undefined;
  preStretchPercent?: number | undefined;
  /** What it changes of the strings before, where a programme asked for it. */
  step?: StringStep | undefined;
}

/** The next thinner or thicker string, mm: strings come in steps of 0.05 (common practice). */
const GAUGE_STEP_MM = 0.05;

/**
 * The job that a change makes of the strings that are in. Of another kind or gauge no name is said: that is for the fitter to choose.
 * @param now the strings that are in, as far as they are known
 * @example jobAfter({ mains: 'nylon 1.30', mainsKg: 24, crossesKg: 23, unit: 'kg' }, { change: 'tighter', byKg: 1 }).mainsKg // 25
 */
export function jobAfter(now: Omit<StringingJob, 'step'>, step: StringStep): StringingJob {
  const job: StringingJob = { ...now, step };
  const tighter = step.byKg === undefined ? 0 : step.change === 'looser' ? -step.byKg : step.byKg;
  if (now.mainsKg !== undefined) job.mainsKg = now.mainsKg + tighter;
  if (now.crossesKg !== undefined) job.crossesKg = now.crossesKg + tighter;
  const { mains: _, crosses: __, ...unnamed } = job;
  const gauge = (mm: number | undefined, by: number): number | undefined => mm && mm + by;
  switch (step.change) {
    case 'softer':
      return { ...unnamed, mainsKind: step.to, crossesKind: step.to };
    case 'thinner':
    case 'thicker': {
      const by = step.change === 'thinner' ? -GAUGE_STEP_MM : GAUGE_STEP_MM;
      return { ...unnamed, mainsMm: gauge(now.mainsMm, by), crossesMm: gauge(now.crossesMm, by) };
    }
    default:
      return job;
  }
}
