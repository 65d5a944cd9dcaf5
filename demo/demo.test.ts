import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { requireSpecs, settleFrame, withAxis } from '@kevro/core';
import { planHere } from '../server/src/compute/plan-runner';
import type { Db } from '../server/src/db/db';
import { openPglite } from '../server/src/db/pglite';
import { loadShop, readShopFile } from '../server/src/exchange/shop-file';
import { listFittings } from '../server/src/records/fitting';
import data from './shop.json';

describe('the demo shop', () => {
  const file = readShopFile(data);
  let db: Db;
  beforeAll(async () => {
    db = await openPglite();
    await loadShop(db, file, planHere);
  });
  afterAll(() => db.close());

  it('has six players, eight frames, 25 setups and three fittings', () => {
    expect([file.players.length, file.frames.length, file.setups.length, file.fittings.length]).toEqual([
      6, 8, 25, 3,
    ]);
  });

  it('has setups unstrung, with missing values, and reports that disagree', () => {
    expect(file.setups.some((s) => !s.dress.strings)).toBe(true);
    expect(file.setups.some((s) => s.specs.massG === undefined)).toBe(true);
    const names = file.setups.map((s) => s.name);
    expect(new Set(names).size).toBeLessThan(names.length);
  });

  it('holds only setups that can be, where they are complete', () => {
    for (const { specs, shape } of file.setups) {
      const { massG, balanceCm, swingWeight } = specs;
      if (massG === undefined || balanceCm === undefined || swingWeight === undefined) continue;
      const frame = settleFrame(shape);
      requireSpecs(withAxis({ ...specs, massG, balanceCm, swingWeight }, frame.sport.axisCm), frame.lengthCm);
    }
  });

  it('stands with its fittings at different stations', async () => {
    const rows = await listFittings(db);
    expect(rows.map((row) => row.next).toSorted()).toEqual(['aim', 'build', 'plan']);
  });
});
