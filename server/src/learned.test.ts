import { beforeAll, describe, expect, it } from 'vitest';
import { seededNormals } from '@kevro/core';
import type { LearnedOfPlayer } from '@kevro/contract';
import type { Db } from './db/db';
import { onServer, startTestServer } from './test-server';

const server = onServer(() => startTestServer(() => '2026-11-23T09:00:00.000Z'));
const learnedOf = async (id: string): Promise<LearnedOfPlayer> =>
  (await server.get(`/players/${id}/learned?sport=tennis`)).body;

/** Players who each played several frames, and were better with the ones that swing heavier. */
async function play(db: Db, players: readonly number[]): Promise<void> {
  for (const p of players) {
    const normal = seededNormals(100 + p);
    await db.query(
      `insert into player (id, name, level, level_scale, style, sports, birth_year)
       values ($1, $2, 'club', 4, 'baseline', '["tennis"]', 1990)`,
      [`p${p}`, `Nobody-to-be-named ${p}`],
    );
    await db.query(`insert into fitting (id, player_id, opened_at) values ($1, $2, now())`, [
      `x${p}`,
      `p${p}`,
    ]);
    for (let f = 0; f < 5; f++) {
      const [own, swing] = [`${p}-${f}`, 300 + 8 * f + normal()];
      await db.query(
        `insert into frame (id, tag, maker, model, shape, pattern, grip_size, note)
         values ($1, $1, 'Velmond', 'Quarr', '{"sport":"tennis","lengthCm":68.58,"headAreaCm2":632}', '', '', '')`,
        [`f${own}`],
      );
      await db.query(`insert into fitting_frame (fitting_id, frame_id, position) values ($1, $2, $3)`, [
        `x${p}`,
        `f${own}`,
        f,
      ]);
      await db.query(
        `insert into measurement (id, key, frame_id, taken_at, dress, mass_g, balance_cm, swing_weight, twist_weight, axis_cm, parts, note, purpose)
         values ($1, $1, $2, now(), '{"strings":true}', 318, 32, $3, 13.5, 10.16,
           '{"massG":{"random":0.3,"common":0},"balanceCm":{"random":0.07,"common":0},"swingWeight":{"random":0.8,"common":0},"twistWeight":{"random":0.15,"common":0}}', '', 'found')`,
        [`m${own}`, `f${own}`, swing],
      );
      await db.query(
        `insert into round (id, fitting_id, frame_id, number, why, begun_at, start_id) values ($1, $2, $3, 1, 'first', now(), $4)`,
        [`r${own}`, `x${p}`, `f${own}`, `m${own}`],
      );
      for (let n = 0; n < 4; n++) {
        const feels = (swing - 316) / 10 + 0.5 * normal();
        const data = {
          energyLeft: feels > 0 ? 'plenty' : 'little',
          late: feels > -0.5 ? 'no' : 'often',
          spin: feels > 0.3 ? 'more' : 'less',
          arm: 'fine',
        };
        await db.query(
          `insert into session (id, key, round_id, played_on, at, data) values ($1, $1, $2, date '2026-01-01' + $3::int, now(), $4)`,
          [`s${own}-${n}`, `r${own}`, (7 * (n * 5 + f)) % 140, JSON.stringify(data)],
        );
      }
    }
  }
}

describe('what the shop has learned', () => {
  beforeAll(() => play(server.db, [1, 2, 3, 4, 5, 6, 7]), 60_000);

  it('says nothing of seven players', async () => {
    expect(await learnedOf('p1')).toMatchObject({
      on: true,
      players: 7,
      sessions: 140,
      told: [],
      among: [],
    });
  });

  it('says where players alike were happiest, of how many, and never a name', async () => {
    await play(server.db, [8, 9, 10, 11, 12]);
    const found = await learnedOf('p1');
    const [more] = found.told;
    expect(more).toMatchObject({ what: 'swingWeight', says: 'more', players: 12, sessions: 240 });
    expect(more?.happiest.from).toBeGreaterThan(316);
    expect(found.among.find(({ what }) => what === 'swingWeight')?.own).toBeGreaterThan(316);
    const { body } = await server.post('/players', {
      name: 'New here',
      sports: ['tennis'],
      birthYear: 1990,
      levelScale: 4,
      style: 'baseline',
    });
    const fresh = await learnedOf(body.id);
    expect(fresh).toMatchObject({ told: [{ what: 'swingWeight' }], among: [] });
    expect(JSON.stringify([found, fresh])).not.toContain('Nobody');
    expect((await server.get('/players/p1/learned?sport=padel')).body).toMatchObject({
      players: 0,
      told: [],
    });
  });

  it('sets the size of a first step, which stays with the programme', async () => {
    await server.post('/parts', {
      kind: 'tape',
      name: 'grey tape 6 mm',
      material: 'tungsten',
      widthMm: 6,
      gPerCm: 0.265,
      stepCm: 0.5,
    });
    await server.post('/fittings/x1/sessions', {
      key: 'a session of p1',
      roundId: 'r1-0',
      playedOn: '2026-11-22',
      energyLeft: 'plenty',
      arm: 'fine',
    });
    const begun = await server.post('/fittings/x1/programmes', {
      key: 'a climb of p1 or so',
      frameId: 'f1-0',
      name: 'find-ceiling',
      happiest: { from: 318, to: 330 },
    });
    expect(begun.status, JSON.stringify(begun.body)).toBe(200);
    const programme = begun.body.frames
      .find(({ frame }: { frame: { id: string } }) => frame.id === 'f1-0')
      .programmes.at(-1);
    expect(programme.happiest).toEqual({ from: 318, to: 330 });
    const { next } = (await server.get(`/programmes/${programme.id}/next`)).body;
    // From about 300 half-way to 324 is 12 kg·cm² or more: two usual steps of 2 g, of some 6 each, at the most.
    expect(next.change).toEqual([{ zone: 'tip', massG: expect.closeTo(3.5, 0) }]);
    expect(next.change[0].massG).toBeLessThanOrEqual(4);
  });

  it('can be switched off, and forgets a player who is erased', async () => {
    const shop = (await server.get('/shop')).body;
    expect(shop.learnsFromAll).toBe(true);
    const { demo: _, begun: __, ...said } = shop;
    expect((await server.put('/shop', { ...said, learnsFromAll: false })).status).toBe(200);
    expect(await learnedOf('p1')).toEqual({
      on: false,
      players: 0,
      sessions: 0,
      told: [],
      among: [],
    });
    const on = await server.put('/shop', { ...said, learnsFromAll: true });
    expect(on.status, JSON.stringify(on.body)).toBe(200);
    expect((await server.get('/shop')).body.learnsFromAll).toBe(true);
    const before = await learnedOf('p1');
    const erased = await server.post('/players/p2/erase', { name: 'Nobody-to-be-named 2' });
    expect(erased.status, JSON.stringify(erased.body)).toBe(200);
    const after = await learnedOf('p1');
    expect([before.players - after.players, before.sessions - after.sessions]).toEqual([1, 20]);
  });
});
