import { createHash } from 'node:crypto';
import { type AnySpecKey, byAnySpec, bareOf, dressSums, type MassSums, type Sport } from '@kevro/core';
import { plainDress, type SetupToStore } from '@kevro/contract';

/** A setup as it is stored: what was reported, in short, and the sums of its bare frame. */
export interface StoredSetup extends Omit<SetupToStore, 'specs'>, Record<AnySpecKey, number | null> {
  axisCm: number | null;
  sport: Sport;
  shapeKey: string;
  bareMass: number | null;
  bareMoment: number | null;
  bareSwing: number | null;
  bareTwist: number | null;
  bareAxis: number;
  fingerprint: string;
}

/** A value with its keys in order, so that what says the same is written the same. */
function inOrder(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(inOrder);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .filter(([, of]) => of !== undefined)
      .toSorted(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, of]) => [key, inOrder(of)]),
  );
}
const written = (value: unknown): string => JSON.stringify(inOrder(value));

/** What of a setup was reported, in short: two that say the same have the same. */
export const fingerprintOf = (setup: SetupToStore): string =>
  createHash('sha256')
    .update(written({ ...setup, dress: plainDress(setup.dress) }))
    .digest('base64url')
    .slice(0, 27);

/** What each dress adds to each shape, as far as it was worked out: a library has few of them. */
const worked = new Map<string, MassSums>();
const MOST_WORKED = 2000;
function sumsOn(shapeKey: string, { shape, dress }: Pick<SetupToStore, 'shape' | 'dress'>): MassSums {
  const key = `${shapeKey} ${written(plainDress(dress))}`;
  const known = worked.get(key);
  if (known) return known;
  if (worked.size >= MOST_WORKED) worked.clear();
  const sums = dressSums(shape, dress);
  worked.set(key, sums);
  return sums;
}

/** A setup with all that is stored of it beside what was reported. */
export function rowOfSetup({ specs, ...setup }: SetupToStore): StoredSetup {
  const { shape, dress } = setup;
  const shapeKey = written(shape);
  const bare = bareOf({ shape, dress, specs }, sumsOn(shapeKey, setup));
  return {
    ...setup,
    ...byAnySpec((key) => specs[key] ?? null),
    axisCm: specs.axisCm ?? null,
    sport: shape.sport,
    shapeKey,
    bareMass: bare.massG ?? null,
    bareMoment: bare.momentGCm ?? null,
    bareSwing: bare.swingWeight ?? null,
    bareTwist: bare.twistWeight ?? null,
    bareAxis: bare.axisCm,
    fingerprint: fingerprintOf({ ...setup, specs }),
  };
}
export const rowsOfSetups = (setups: readonly SetupToStore[]): StoredSetup[] => setups.map(rowOfSetup);
