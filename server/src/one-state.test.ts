import fc from 'fast-check';
import { afterAll, beforeAll, expect, inject, it } from 'vitest';
import { startTestServer, type TestServer } from './test-server';

let now = '2026-11-23T09:00:00.000Z';
let server: TestServer;
let partId = '';
beforeAll(async () => {
  server = await startTestServer(() => now);
  const tape = { kind: 'tape', name: 'tape', material: 'lead', widthMm: 6, gPerCm: 0.4, stepCm: 0.5 };
  partId = (await server.call('POST', '/parts', tape)).body.id;
});
afterAll(() => server.close());

let count = 0;
const key = (): string => `key number ${++count}`;
const SPECS = { massG: 318, balanceCm: 32.2, swingWeight: 302, twistWeight: 13.4 };

/** Things that happen to a frame of a fitting. Each is sent as a page would send it; what the server refuses has not happened. */
const DOINGS = [
  'found',
  'trial',
  'check',
  'later',
  'aim',
  'plan',
  'mark all',
  'open a step',
  'sign off',
  'session',
  'discard a session',
  'correct the last',
  'discard the last',
  'count the last again',
  'round',
  'programme',
  'once more',
  'pause',
  'resume',
  'end',
  'step',
  'close',
  'reopen',
  'compare',
] as const;
type Doing = (typeof DOINGS)[number];

// The answers are read as they come.
// eslint-disable-next-line @typescript-eslint/no-explicit-any
type Any = any;

async function open() {
  const { body: player } = await server.call('POST', '/players', {
    name: `Player ${++count}`,
    sports: ['tennis'],
  });
  const frame = async (): Promise<string> =>
    (
      await server.call('POST', '/frames', {
        tag: `T-${++count}`,
        maker: 'Velmond',
        model: 'Quarr 97',
        shape: { sport: 'tennis', lengthCm: 68.58, headAreaCm2: 645 },
      })
    ).body.id;
  const frameIds = [await frame(), await frame()];
  const { body } = await server.call('POST', '/fittings', { playerId: player.id, frameIds });
  return { id: body.id as string, playerId: player.id as string };
}

async function does(id: string, doing: Doing, of: 0 | 1): Promise<void> {
  const at = `/fittings/${id}`;
  const view: Any = (await server.call('GET', at)).body;
  const { frame, rounds, programmes } = view.frames[of];
  const round = rounds.at(-1);
  const plan = round.plans.find((p: Any) => p.id === round.state.planId);
  const programme = programmes.find((p: Any) => p.state !== 'ended');
  const last = round.measurements.at(-1);
  const post = (path: string, body: object) => server.call('POST', path, body);
  switch (doing) {
    case 'found':
    case 'trial':
    case 'check':
    case 'later':
      await post(`/frames/${frame.id}/measurements`, {
        key: key(),
        dress: {},
        specs: { ...SPECS, massG: 318 + (count % 7) },
        purpose: doing,
        roundId: round.id,
      });
      return;
    case 'aim':
      await post(`${at}/aims`, {
        roundId: round.id,
        way: 'by-hand',
        target: { massG: { value: 320, tolerance: 3 } },
      });
      return;
    case 'plan': {
      const placement = { id: `p${++count}`, partId, path: 'rim', startCm: -2, endCm: 2 };
      await post(`${at}/plans`, {
        roundId: round.id,
        startId: round.startId ?? '',
        aimId: round.state.aimId ?? '',
        school: 'free',
        placements: [{ ...placement, sides: 1, layers: 1, massG: 1.6 }],
      });
      return;
    }
    case 'mark all':
      for (const { key: step } of plan?.steps ?? [])
        await post(`${at}/marks`, { planId: plan.id, step, mark: 'done' });
      return;
    case 'open a step':
      if (plan) await post(`${at}/marks`, { planId: plan.id, step: plan.steps[0].key, mark: 'open' });
      return;
    case 'sign off': {
      const check = round.measurements.findLast((m: Any) => m.purpose === 'check' && m.counts);
      if (plan && check)
        await post(`${at}/sign-offs`, {
          key: key(),
          planId: plan.id,
          measurementId: check.id,
          note: 'as it is',
        });
      return;
    }
    case 'session':
      await post(`${at}/sessions`, {
        key: key(),
        roundId: round.id,
        playedOn: '2026-11-22',
        energyLeft: 'plenty',
        arm: 'fine',
      });
      return;
    case 'discard a session': {
      const session = round.sessions.at(-1);
      if (session)
        await server.call('PUT', `/sessions/${session.id}/counts`, {
          counts: !session.counts,
          reason: 'a mistake',
        });
      return;
    }
    case 'correct the last':
      if (last)
        await post(`/measurements/${last.id}/correct`, {
          key: key(),
          dress: {},
          specs: SPECS,
          reason: 'misread',
        });
      return;
    case 'discard the last':
    case 'count the last again':
      if (last)
        await server.call('PUT', `/measurements/${last.id}/counts`, {
          counts: doing === 'count the last again',
          reason: 'a mistake',
        });
      return;
    case 'round':
      await post(`${at}/rounds`, { frameId: frame.id, why: 'complaint' });
      return;
    case 'programme':
      await post(`${at}/programmes`, { key: key(), frameId: frame.id, name: 'find-ceiling' });
      return;
    case 'once more':
    case 'pause':
    case 'resume':
    case 'end':
      if (programme)
        await post(`${at}/programmes/act`, {
          programmeId: programme.id,
          act: doing === 'once more' ? 'once-more' : doing,
        });
      return;
    case 'step':
      if (programme)
        await post(`${at}/programmes/step`, {
          key: key(),
          programmeId: programme.id,
          sessions: programme.sessions,
        });
      return;
    case 'close':
      await post(`${at}/close`, { how: 'given-up', note: '' });
      return;
    case 'reopen':
      await post(`${at}/reopen`, {});
      return;
    case 'compare':
      await server.call('PUT', `${at}/beside`, [{ kind: 'guide', name: 'advanced' }]);
  }
}

/** What Today says of a fitting, and what its page says of the same frames. */
async function bothOf(id: string) {
  const view: Any = (await server.call('GET', `/fittings/${id}`)).body;
  const rows: Any[] = (await server.call('GET', `/today?closed=${view.closed ? 'yes' : 'no'}&limit=1000`))
    .body.rows;
  const row = rows.find((one) => one.id === id);
  const page = view.frames.map(({ frame, rounds, programmes }: Any) => ({
    id: frame.id,
    round: rounds.at(-1).number,
    programme: programmes.find((p: Any) => p.state !== 'ended')?.name ?? null,
    next: rounds.at(-1).state.next,
  }));
  const today = row?.frames.map(({ id: frameId, round, programme, next }: Any) => ({
    id: frameId,
    round,
    programme,
    next,
  }));
  return { page, today };
}

it('Today says of every frame what its page says, whatever has happened (property)', async () => {
  const anything = fc.tuple(fc.constantFrom<Doing>(...DOINGS), fc.constantFrom<0 | 1>(0, 0, 0, 1));
  // As most fittings go, so far; and then anything.
  const USUAL = ['found', 'aim', 'plan', 'mark all', 'check', 'sign off', 'session'] as const;
  const history = fc
    .tuple(fc.nat(USUAL.length), fc.array(anything, { minLength: 5, maxLength: 14 }))
    .map(([far, rest]) => [...USUAL.slice(0, far).map((doing): [Doing, 0 | 1] => [doing, 0]), ...rest]);
  const seen = new Set<string>();
  await fc.assert(
    fc.asyncProperty(history, async (doings) => {
      const { id } = await open();
      for (const [doing, of] of doings) {
        await does(id, doing, of);
        const { page, today } = await bothOf(id);
        expect(today, doing).toEqual(page);
        for (const { next } of page) if (next) seen.add(next.because);
      }
      now = new Date(Date.parse(now) + 3_600_000).toISOString();
    }),
    // Another engine is asked for the same: fewer histories show that it answers so.
    { numRuns: inject('emptyShop').server ? 6 : 12 },
  );
  // The histories reach far enough to say something.
  expect(seen.size).toBeGreaterThanOrEqual(7);
}, 120_000);

it('a check that was corrected after it was signed off is to be signed off again, on both', async () => {
  const { id } = await open();
  for (const doing of ['found', 'aim', 'plan', 'mark all', 'check', 'sign off'] as const)
    await does(id, doing, 0);
  expect((await bothOf(id)).today[0].next.station).toBe('play');
  await does(id, 'correct the last', 0);
  const { page, today } = await bothOf(id);
  expect(today).toEqual(page);
  expect(today[0].next).toEqual({ station: 'check', because: 'built' });
});
