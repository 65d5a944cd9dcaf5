import { ALL_SPEC_KEYS, type KnownSpecs, type AnySpecKey } from '../spec';
import type { Dress } from '../sport';
import { bringTo, type SetupReport } from './setup';

/** How far a fitter trusts a report. */
export const CONFIDENCES = ['high', 'medium', 'low'] as const;
export type Confidence = (typeof CONFIDENCES)[number];

/** What a report counts for in an average, by how far it is trusted (a convention: a doubtful one does not pull a sure one far). */
const WEIGHT: Record<Confidence, number> = { high: 1, medium: 0.5, low: 0.2 };

export interface Report extends SetupReport {
  confidence: Confidence;
}

/** What reports of one frame say of a spec, once all are in one dress and about one axis. */
export interface ReportedSpec {
  /** Each report's value, in the order given; undefined where it says none, or none that can be brought over. */
  values: (number | undefined)[];
  /** Largest less smallest of those that say it; 0 for one. */
  spread: number;
  /** Weighted by confidence. */
  average: number;
  /** Whether they lie further apart than their own 95 % intervals allow. */
  disagree: boolean;
}

/**
 * Several reports of one frame side by side: brought to one dress and axis, with their spread and their average by confidence, x̄ = Σ wᵢxᵢ / Σ wᵢ. Two
 * disagree where they differ by more than twice the root of their summed variances. A spec that none says is left out.
 * @param axisCm about which swing weights are to stand
 * @example compareReports(reports, { strings: true }, 10.16).massG?.spread
 */
export function compareReports(
  reports: readonly Report[],
  dress: Dress,
  axisCm: number,
): Partial<Record<AnySpecKey, ReportedSpec>> {
  const brought = reports.map((report) => bringTo(report, dress, axisCm));
  const found: Partial<Record<AnySpecKey, ReportedSpec>> = {};
  for (const key of ALL_SPEC_KEYS) {
    const said = brought.flatMap(({ specs, uncertainty }, i) => {
      const value = specs[key];
      if (value === undefined) return [];
      return [{ value, u: uncertainty[key] ?? 0, weight: WEIGHT[reports[i]?.confidence ?? 'medium'] }];
    });
    if (said.length === 0) continue;
    const values = said.map(({ value }) => value);
    const weights = said.reduce((sum, { weight }) => sum + weight, 0);
    found[key] = {
      values: brought.map(({ specs }) => specs[key]),
      spread: Math.max(...values) - Math.min(...values),
      average: said.reduce((sum, { value, weight }) => sum + value * weight, 0) / weights,
      disagree: said.some((a, i) =>
        said.slice(i + 1).some((b) => Math.abs(a.value - b.value) > 2 * Math.hypot(a.u, b.u)),
      ),
    };
  }
  return found;
}

/** The average of each spec that any report says. @example averageOf(compareReports(reports, dress, 10.16)).massG */
export const averageOf = (found: Partial<Record<AnySpecKey, ReportedSpec>>): KnownSpecs =>
  Object.fromEntries(ALL_SPEC_KEYS.flatMap((key) => (found[key] ? [[key, found[key].average]] : [])));
