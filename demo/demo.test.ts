import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { requireSpecs, settleFrame, withAxis } from '@kevro/core';
import { computeHere } from '../server/src/compute/compute';
import type { Db } from '../server/src/db/db';
import { loadShop, readShopFile } from '../server/src/exchange/shop-file';
import { Hub } from '../server/src/instruments/hub';
import { BENCH_PACE } from '../server/src/instruments/stand-in';
import { outlookCase } from '../server/src/fitting/outlook';
import { programmeOutlook } from '../server/src/fitting/programmes';
import { findFitting } from '../server/src/records/fitting';
import { lookAgainBy } from '../server/src/records/look-again';
import { listFittings } from '../server/src/records/today';
import { emptyShop } from '../server/src/test-server';
import data from './shop.json';

const NOW = '2026-11-24T10:00:00.000Z';

describe('the demo shop', () => {
  const file = readShopFile(data);
  let db: Db;
  beforeAll(async () => {
    db = await emptyShop();
    await loadShop(db, file, computeHere, NOW);
  });
  afterAll(() => db.close());

  it('is as large as a shop is: players, frames, setups and fittings of all four sports', () => {
    expect(file.players.length).toBeGreaterThanOrEqual(12);
    expect(file.frames.length).toBeGreaterThanOrEqual(20);
    expect(file.setups.length).toBeGreaterThanOrEqual(60);
    expect(file.fittings.length).toBeGreaterThanOrEqual(8);
    const sports = ['badminton', 'padel', 'pickleball', 'tennis'];
    const of = (shapes: { shape: { sport: string } }[]) =>
      [...new Set(shapes.map((f) => f.shape.sport))].toSorted();
    expect(of(file.frames)).toEqual(sports);
    expect(of(file.setups)).toEqual(sports);
    expect([...new Set(file.players.flatMap((p) => p.sports))].toSorted()).toEqual(sports);
  });

  it('has frames with histories, and one measured only in part', () => {
    expect(file.frames.filter((f) => f.measurements.length > 1).length).toBeGreaterThanOrEqual(5);
    expect(file.frames.some((f) => f.measurements.some((m) => m.estimated.length > 0))).toBe(true);
  });

  it('has a calibrated machine and a stale one', async () => {
    const hub = new Hub(db, () => NOW, BENCH_PACE);
    await hub.start();
    const states = (await hub.all()).map((i) => i.calibrationState);
    hub.stop();
    expect(states.toSorted()).toEqual(['fresh', 'not-needed', 'not-needed', 'stale']);
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
    const { rows } = await listFittings(db, { closed: false, limit: 100, offset: 0 }, NOW);
    const next = rows.flatMap(({ frames }) => frames.map((frame) => frame.next?.station ?? 'all done'));
    expect(next.toSorted()).toEqual(
      [
        'aim',
        'aim',
        'aim',
        'aim',
        'build',
        'build',
        'check',
        'compare',
        'measure',
        'plan',
        'play',
        'play',
        'play',
      ].toSorted(),
    );
  });

  it('shows every station in use: in mid-programme, a set of two, half-way, coming back, a beginner', async () => {
    const programmes = async (id: string) => {
      const fitting = await findFitting(db, id, NOW);
      const list = fitting?.frames.flatMap((entry) => entry.programmes) ?? [];
      return Promise.all(
        list.map(async (p) => {
          const found = fitting && (await outlookCase(db, fitting, p.id));
          return [p.name, found && programmeOutlook(found).next?.reason];
        }),
      );
    };
    expect(await programmes('f-liv')).toEqual([['find-ceiling', 'tired']]);
    expect(await programmes('f-corin')).toEqual([['half-way', 'half-way']]);
    expect(await programmes('f-hedda')).toEqual([['after-sore-arm', 'not-yet']]);
    expect((await findFitting(db, 'f-ines', NOW))?.frames).toHaveLength(2);
    const beginner = await findFitting(db, 'f-pim', NOW);
    expect(beginner?.frames[0]?.rounds[0]?.sessions).toHaveLength(1);
    expect((await lookAgainBy(db, NOW.slice(0, 10))).rows).toHaveLength(1);
  });
});
