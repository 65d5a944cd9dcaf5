import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest';
import { startTestServer, type TestServer } from './test-server';

/** Far from Greenwich: the shop is a day ahead of the clock in the evening, and its year begins half a day early. */
const ZONE = 'Pacific/Auckland';
const NEW_YEAR_THERE = '2026-12-31T12:00:00.000Z';
let now = NEW_YEAR_THERE;
let server: TestServer;
let count = 0;
const key = (): string => `key number ${++count}`;
const made = async (path: string, body: object, method = 'POST') => {
  const { status, body: found } = await server.call(method, path, body);
  expect(status, JSON.stringify(found)).toBe(200);
  return found;
};
beforeAll(async () => {
  server = await startTestServer(() => now);
  await made('/shop', { name: 'Far South', town: '', calibrationHours: 72, timeZone: ZONE }, 'PUT');
});
afterAll(() => server.close());
beforeEach(() => {
  now = NEW_YEAR_THERE;
});

async function opened(birthYear: number | null = null) {
  const player = await made('/players', { name: `Player ${++count}`, sports: ['tennis'], birthYear });
  const frame = await made('/frames', {
    tag: `T-${count}`,
    maker: 'Velmond',
    model: 'Quarr 97',
    shape: { sport: 'tennis', lengthCm: 68.58, headAreaCm2: 645 },
  });
  const fitting = await made('/fittings', { playerId: player.id, frameIds: [frame.id] });
  const roundId = fitting.frames[0].rounds[0].id as string;
  await made(`/frames/${frame.id}/measurements`, {
    key: key(),
    dress: { strings: true },
    specs: { massG: 280, balanceCm: 32.5, swingWeight: 270, twistWeight: 12 },
    roundId,
  });
  return { at: `/fittings/${fitting.id}`, playerId: player.id as string, roundId };
}

it('a session was played on a day of the shop that has come, and not tomorrow', async () => {
  const { at, roundId } = await opened();
  const session = (playedOn: string) =>
    server.call('POST', `${at}/sessions`, {
      key: key(),
      roundId,
      playedOn,
      energyLeft: 'plenty',
      arm: 'fine',
    });
  // It is the first of January there, whatever Greenwich says.
  expect((await session('2027-01-01')).status).toBe(200);
  const tomorrow = await session('2027-01-02');
  expect([tomorrow.status, tomorrow.body.errors]).toEqual([
    422,
    [
      {
        path: 'playedOn',
        code: 'not-played-yet',
        message: 'This day has not come yet. Enter the day it was played.',
      },
    ],
  ]);
  const { code } = await made(`${at}/links`, { roundId });
  const byLink = await server.call('POST', `/played/${code}`, {
    key: key(),
    playedOn: '2027-01-02',
    energyLeft: 'plenty',
    arm: 'fine',
  });
  expect([byLink.status, byLink.body.code]).toEqual([422, 'not-played-yet']);
});

it('a note says the day that it was in the shop', async () => {
  const { at } = await opened();
  await made(`${at}/close`, { how: 'given-up', note: '' });
  await made(`${at}/reopen`, { newRound: true });
  const { rounds } = (await server.call('GET', at)).body.frames[0];
  expect(rounds.at(-1).note).toBe('closed on 2027-01-01: given-up');
});

it('whoever is to be looked at again is due on the day that it is in the shop', async () => {
  const { playerId } = await opened();
  await made('/look-again', { playerId, dueOn: '2027-01-15', why: 'asked' });
  // Fourteen days ahead of the shop's first of January; fifteen ahead of the thirty-first in Greenwich.
  const due = (await server.call('GET', '/day')).body.lookAgain.rows;
  expect(due.map((row: { dueOn: string }) => row.dueOn)).toEqual(['2027-01-15']);
});

it('who is growing is decided by the year that it is in the shop: lead is sealed for them', async () => {
  const lead = await made('/parts', {
    kind: 'tape',
    name: 'lead tape',
    material: 'lead',
    widthMm: 6,
    gPerCm: 0.4,
    stepCm: 0.5,
  });
  const stepsAt = async (time: string): Promise<string[]> => {
    now = time;
    // Seventeen in 2026, and grown from eighteen on.
    const { at, roundId } = await opened(2009);
    const target = { massG: { value: 282, tolerance: 2 } };
    const aim = await made(`${at}/aims`, { roundId, way: 'by-hand', target });
    const { startId } = (await server.call('GET', at)).body.frames[0].rounds[0];
    const piece = { id: 'p1', partId: lead.id, path: 'rim', startCm: -2, endCm: 2 };
    const plan = await made(`${at}/plans`, {
      roundId,
      startId,
      aimId: aim.id,
      school: 'free',
      placements: [{ ...piece, sides: 1, layers: 1, massG: 1.6 }],
    });
    return plan.steps.map(({ kind }: { kind: string }) => kind);
  };
  const grown = await stepsAt(NEW_YEAR_THERE);
  // Two hours earlier it is still the year before, there too.
  const growing = await stepsAt('2026-12-31T10:00:00.000Z');
  expect(growing.length).toBe(grown.length + 4);
});
