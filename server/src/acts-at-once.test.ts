import { describe, expect, it } from 'vitest';
import { calls } from '@kevro/contract';
import type { Answer } from './test-server';
import {
  withServer,
  NOW,
  next,
  made,
  SPECS,
  world,
  type World,
  plan,
  felt,
  added,
  begins,
  serverNow,
} from './test-acts';

withServer();

describe('two acts at once end in one of the two orders', () => {
  const both = async (a: Promise<Answer>, b: Promise<Answer>) => {
    const [first, second] = await Promise.all([a, b]);
    expect(first.status, JSON.stringify(first.body)).toBeLessThan(500);
    expect(second.status, JSON.stringify(second.body)).toBeLessThan(500);
    return [first.status, second.status];
  };

  it('closing beside a session', async () => {
    for (let i = 0; i < 5; i++) {
      const w = await world();
      const session = { key: next('session key'), roundId: w.roundId, ...felt };
      const statuses = await both(
        serverNow().call('POST', `${w.at}/close`, { how: 'given-up', note: '' }),
        serverNow().call('POST', `${w.at}/sessions`, session),
      );
      const { closed, frames } = (await serverNow().call('GET', w.at)).body;
      expect(closed).not.toBeNull();
      expect(frames[0].rounds[0].sessions).toHaveLength(statuses[1] === 200 ? 1 : 0);
      expect([200, 409]).toContain(statuses[1]);
    }
  });

  it('removing beside measuring', async () => {
    for (let i = 0; i < 5; i++) {
      const { playerId, frameId } = await world();
      const fitting = await made('/fittings', { playerId, frameIds: [frameId], evenIfOpen: true });
      const roundId = fitting.frames[0].rounds[0].id;
      const measurement = { key: next('measurement key'), dress: {}, specs: SPECS, roundId };
      const [removed] = await both(
        serverNow().call('POST', `/fittings/${fitting.id}/remove`, {}),
        serverNow().call('POST', `/frames/${frameId}/measurements`, measurement),
      );
      const left = await serverNow().call('GET', `/fittings/${fitting.id}`);
      expect(left.status).toBe(removed === 200 ? 404 : 200);
    }
  });

  it('changing the frames beside planning', async () => {
    for (let i = 0; i < 5; i++) {
      const w = await world('aimed');
      const other = await world();
      const [edited, planned] = await both(
        serverNow().call('PUT', w.at, { playerId: w.playerId, frameIds: [other.frameId] }),
        serverNow().call('POST', `${w.at}/plans`, plan(w)),
      );
      // There is an aim already, so that the frame stays in either order.
      expect([edited, planned]).toEqual([409, 200]);
    }
  });

  it('correcting a check beside signing it off', async () => {
    const w = await world('checked');
    const correction = { key: next('correction key'), dress: {}, specs: SPECS, reason: 'another frame' };
    const statuses = await both(
      serverNow().call('POST', `/measurements/${w.checkId}/correct`, correction),
      serverNow().call('POST', `${w.at}/sign-offs`, {
        key: next('sign-off key'),
        planId: w.planId,
        measurementId: w.checkId,
        note: 'as it is',
      }),
    );
    expect(statuses[0]).toBe(200);
    const [round] = (await serverNow().call('GET', w.at)).body.frames[0].rounds;
    // Signed off before or not, what counts now is the corrected check, which nobody has signed.
    expect(round.state.next).toEqual({ station: 'check', because: 'built' });
  });
});

describe('the change log', () => {
  it('that cannot be written leaves nothing changed: no act without its line', async () => {
    const worlds = new Map<string, { w: World; at: string }>();
    for (const [name, [far, path]] of begins) {
      const w = await world(far);
      worlds.set(name, { w, at: await path(w) });
    }
    const [player] = (await serverNow().call('GET', '/players')).body.rows;
    await serverNow().db.run(`
      create function no_line() returns trigger language plpgsql as $$ begin raise exception 'no line'; end $$;
      create trigger no_line before insert on public.change_log for each row execute function no_line();`);
    try {
      const all = await added(async () => {
        for (const [name, [, , body]] of begins) {
          const { w, at } = worlds.get(name) as { w: World; at: string };
          const { status } = await serverNow().call(calls[name].method.toUpperCase(), at, {
            ...body(w),
            key: next('lost key'),
          });
          expect([name, status]).toEqual([name, 500]);
        }
        for (const [method, path, body] of [
          ['PUT', `/players/${player.id}`, { name: 'Renamed', sports: ['tennis'] }],
          ['PUT', `/players/${player.id}/archived`, { archived: true }],
          ['POST', `/players/${player.id}/erase`, { name: player.name }],
          ['PUT', '/shop', { name: 'Renamed', town: '', calibrationHours: 72 }],
        ] as const)
          expect([path, (await serverNow().call(method, path, body)).status]).toEqual([path, 500]);
      });
      expect(all).toEqual({});
      expect((await serverNow().call('GET', `/players/${player.id}`)).body).toEqual(player);
      expect((await serverNow().call('GET', '/shop')).body.name).not.toBe('Renamed');
    } finally {
      await serverNow().db.run('drop trigger no_line on public.change_log; drop function no_line');
    }
  });

  it('names device, act and record', async () => {
    const w = await world();
    await made(`${w.at}/close`, { how: 'given-up', note: '' });
    const [line] = (await serverNow().call('GET', '/changes?limit=1')).body.rows;
    expect(line).toMatchObject({
      who: 'bench',
      call: 'closeFitting',
      record: 'fitting',
      recordId: w.id,
      at: NOW,
    });
  });
});

describe('a fitting that something hangs on', () => {
  const ways: [
    string,
    (w: { at: string; id: string; frameId: string; playerId: string; roundId: string }) => Promise<unknown>,
  ][] = [
    [
      'a programme',
      (w) => made(`${w.at}/programmes`, { key: next('programme key'), frameId: w.frameId, name: 'climb' }),
    ],
    ['a link for the player', (w) => made(`${w.at}/links`, { roundId: w.roundId })],
    [
      'a follow-up',
      (w) =>
        made('/look-again', { playerId: w.playerId, fittingId: w.id, dueOn: '2027-01-01', why: 'asked' }),
    ],
  ];
  it.each(ways)('is not removed with %s', async (name, hang) => {
    const { playerId, frameId } = await world();
    const fitting = await made('/fittings', { playerId, frameIds: [frameId], evenIfOpen: true });
    const roundId = fitting.frames[0].rounds[0].id;
    const at = `/fittings/${fitting.id}`;
    await hang({ at, id: fitting.id, frameId, playerId, roundId });
    const removed = await serverNow().call('POST', `${at}/remove`, {});
    expect([removed.status, removed.body.code]).toEqual([409, 'fitting-not-empty']);
    const other = await world();
    const edited = await serverNow().call('PUT', at, { playerId, frameIds: [other.frameId] });
    // A follow-up is the player's and the fitting's, whichever frames it has.
    const stays = name === 'a follow-up' ? [200, undefined] : [409, 'frame-has-work'];
    expect([edited.status, edited.body.code]).toEqual(stays);
  });
});
