import { onServer, type Answer } from './test-server';

// What the tests of a job begin with: a player, a frame that is measured, an aim, a plan.
let server: ReturnType<typeof onServer>;
/** Starts the server of a file of tests, and ends it with them. */
export function withServer(): void {
  server = onServer();
}
export const call = (method: string, path: string, body?: unknown): Promise<Answer> =>
  server.call(method, path, body);
export const post = (path: string, body: unknown): Promise<Answer> => call('POST', path, body);

export const shape = { sport: 'tennis', lengthCm: 68.58 };

export const strung = { strings: true, baseGrip: 'synthetic', overgrips: 1 };
export const measured = { massG: 327, balanceCm: 32.2, swingWeight: 320, twistWeight: 13.6 };
let n = 0;
/** A number that no other has had. */
export const another = (): number => ++n;
export const person = () => post('/players', { name: `Ilka Morrow ${++n}`, sports: ['tennis'] });
export const racket = (ownerId: string | null = null) =>
  post('/frames', { tag: `OT-${++n}`, maker: 'Oskerra', model: 'Tide 98', ownerId, shape });

export async function fittingWithAim() {
  const player = (await person()).body;
  const frame = (await racket(player.id)).body;
  const measurement = (
    await post(`/frames/${frame.id}/measurements`, {
      key: `key-${++n}-0000`,
      dress: strung,
      specs: measured,
    })
  ).body;
  const fitting = (await post('/fittings', { playerId: player.id, frameIds: [frame.id] })).body;
  const roundId = fitting.frames[0].rounds[0].id as string;
  const aim = (
    await post(`/fittings/${fitting.id}/aims`, {
      roundId,
      way: 'by-hand',
      target: { massG: { value: 333, tolerance: 1 }, swingWeight: { value: 326, tolerance: 1.5 } },
    })
  ).body;
  return { player, frame, measurement, fitting, aim, roundId };
}

export const partId = async (): Promise<string> =>
  (await post('/parts', { kind: 'filling', name: 'putty', material: 'putty', dabG: 0.5, gPerCm: 1.6 })).body
    .id;
export const inButt = (part: string, massG = 6) => ({
  id: 'p1',
  partId: part,
  path: 'handle',
  startCm: 0,
  endCm: 3,
  sides: 1,
  layers: 1,
  massG,
});
export const roundOf = async (fittingId: string) =>
  (await call('GET', `/fittings/${fittingId}`)).body.frames[0].rounds.at(-1);

export async function fittingWithPlan() {
  const made = await fittingWithAim();
  const body = {
    roundId: made.roundId,
    startId: made.measurement.id,
    aimId: made.aim.id,
    school: 'free',
    placements: [inButt(await partId())],
  };
  const plan = (await post(`/fittings/${made.fitting.id}/plans`, body)).body;
  const mark = (step: string, more: object = {}) =>
    post(`/fittings/${made.fitting.id}/marks`, { planId: plan.id, step, mark: 'done', ...more });
  const measure = async (purpose: string, specs: object = measured) =>
    (
      await post(`/frames/${made.frame.id}/measurements`, {
        key: `key-${++n}-0000`,
        dress: strung,
        specs,
        purpose,
        roundId: made.roundId,
      })
    ).body;
  return { ...made, body, plan, mark, measure };
}
