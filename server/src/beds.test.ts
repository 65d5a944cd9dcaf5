import { expect, it } from 'vitest';
import type { FittingView, StringBed } from '@kevro/contract';
import { onBench } from './test-capture';

let time = Date.parse('2026-11-23T09:00:00.000Z');
const { server, addFrame, key } = onBench(() => time);
const { get, post, put } = server;
const DAY = 86_400_000;

const strings = { strungOn: '2026-11-23', mains: 'round poly', mainsKg: 24, crossesKg: 23, unit: 'kg' };
const bedOf = async (frameId: string): Promise<StringBed | null> =>
  (await get(`/frames/${frameId}`)).body.bed;
async function fittingOf(frameId: string, playerId: string): Promise<FittingView> {
  return (await post('/fittings', { key: key(), playerId, frameIds: [frameId] })).body;
}

it('the strings that are in a frame are the last that count, with what is known of them', async () => {
  const frameId = await addFrame();
  expect(await bedOf(frameId)).toBeNull();
  const first = (await post(`/frames/${frameId}/stringings`, { ...strings, key: key() })).body;
  expect(first).toMatchObject({ mainsKind: null, readings: [], hoursPlayed: null, by: '' });
  const second = (
    await post(`/frames/${frameId}/stringings`, {
      ...strings,
      key: key(),
      mainsKind: 'polyester',
      crossesKind: 'gut',
      by: 'Tamsin',
    })
  ).body;
  expect(await bedOf(frameId)).toMatchObject({
    stringing: { id: second.id, by: 'Tamsin' },
    days: 0,
    sessions: 0,
    due: [],
  });
  await put(`/stringings/${second.id}/retired`, { retired: true });
  expect((await bedOf(frameId))?.stringing.id).toBe(first.id);
  // A tension that was measured stays with its strings.
  const { id: _, retired: __, ...body } = first;
  const readings = [{ on: '2026-11-25', kg: 21.2, with: 'clamp' }];
  expect((await put(`/stringings/${first.id}`, { ...body, readings })).body.readings).toEqual(readings);
  expect(
    (await put(`/stringings/${first.id}`, { ...body, readings: [{ on: 'soon', kg: 0, with: '' }] })).status,
  ).toBe(422);
});

it('is due by days, by hours and by what is felt, as the shop says; on Today and on the player’s page', async () => {
  const ownerId = (await post('/players', { name: 'Oda Fennick', sports: ['tennis'], sessionsAWeek: 3 })).body
    .id;
  const frameId = await addFrame({ ownerId });
  await post(`/frames/${frameId}/stringings`, { ...strings, key: key() });
  const fitting = await fittingOf(frameId, ownerId);
  const roundId = fitting.frames[0]?.rounds[0]?.id;
  const dueToday = async () => (await get('/today?search=oda')).body.rows[0].frames[0].stringsDue;
  // Found by a word of the player and one of the frame, and not by a third of neither.
  const { tag } = fitting.frames[0]?.frame ?? { tag: '' };
  const found = async (words: string) => (await get(`/today?search=${words}`)).body.total;
  expect([await found(`fennick+${tag}`), await found(`fennick+${tag}+nobody`)]).toEqual([1, 0]);
  expect(fitting.frames[0]?.bed?.due).toEqual([]);
  expect(await dueToday()).toEqual([]);

  // Three times a week: three times a year and a third of it.
  time += 122 * DAY;
  expect((await bedOf(frameId))?.due).toEqual(['days']);
  expect(await dueToday()).toEqual(['days']);
  expect((await get(`/players/${ownerId}/page`)).body.beds).toMatchObject([
    { frameId, due: ['days'], days: 122 },
  ]);
  const { name, town, calibrationHours } = (await get('/shop')).body;
  const setRule = (rule: object) =>
    put('/shop', { name, town, calibrationHours, sports: { tennis: { strings: rule } } });
  await setRule({ days: 200, hours: 5 });
  expect((await bedOf(frameId))?.due).toEqual([]);

  const play = (depth: string, minutes: number) =>
    post(`/fittings/${fitting.id}/sessions`, {
      key: key(),
      roundId,
      playedOn: '2027-03-20',
      energyLeft: 'enough',
      arm: 'fine',
      depth,
      minutes,
    });
  await play('good', 120);
  await play('long', 90);
  expect(await bedOf(frameId)).toMatchObject({ due: [], notedHours: 3.5, hours: 3.5, sessions: 2 });
  const last = (await play('long', 100)).body;
  expect((await bedOf(frameId))?.due).toEqual(['hours', 'felt']);
  await setRule({ days: 200, hours: 50, felt: false });
  expect((await bedOf(frameId))?.due).toEqual([]);
  expect(last).toBeDefined();
  // Somebody says that more was played than is noted.
  const { id, retired: _, ...body } = (await bedOf(frameId))?.stringing as StringBed['stringing'];
  await put(`/stringings/${id}`, { ...body, hoursPlayed: 60 });
  expect(await bedOf(frameId)).toMatchObject({ due: ['hours'], hours: 60 });
  // New strings begin anew.
  await post(`/frames/${frameId}/stringings`, { ...strings, strungOn: '2027-03-25', key: key() });
  expect(await bedOf(frameId)).toMatchObject({ due: [], days: 0, hours: 0, sessions: 0 });
  expect(await dueToday()).toEqual([]);
});

it('frames without strings have no bed', async () => {
  const frameId = await addFrame({ shape: { sport: 'padel', lengthCm: 45.5 } });
  expect(await bedOf(frameId)).toBeNull();
});
