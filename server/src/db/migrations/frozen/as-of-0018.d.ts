/** What migrations compute with: frozen, so that a later Kevro brings an old shop over just as an earlier one did. */
export const SPORTS: Record<string, { usual: { swingWeight: number } }>;
export function settleFrame(shape: unknown): { handleLengthCm: number };
export function fromSpot<At extends { id: string; partId: string }>(
  frame: unknown,
  weight: unknown,
  at: At,
): At;
export function benchSteps(change: unknown, dress: unknown): unknown[];
export const newSetup: { parse: (given: unknown) => unknown };
export function rowOfSetup(setup: unknown): {
  sport: string;
  shapeKey: string;
  shape: unknown;
  bareMass: number | null;
  bareMoment: number | null;
  bareSwing: number | null;
  bareTwist: number | null;
  bareAxis: number;
  fingerprint: string;
};
