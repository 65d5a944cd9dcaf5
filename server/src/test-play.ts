import { beforeAll, expect } from 'vitest';
import { onServer, startTestServer } from './test-server';

export const SPECS = { massG: 318, balanceCm: 32.2, swingWeight: 302, twistWeight: 13.4 };

/** A shop with tape and putty, whose fittings are opened, built and played. @param now what its clock says */
export function onPlayingShop(now: () => string) {
  const server = onServer(() =>
    startTestServer(now, undefined, { addresses: () => ['http://192.0.2.7:4700'] }),
  );
  beforeAll(async () => {
    await made('/parts', {
      kind: 'tape',
      name: 'grey tape 6 mm',
      material: 'tungsten',
      widthMm: 6,
      gPerCm: 0.265,
      stepCm: 0.5,
    });
    await made('/parts', { kind: 'filling', name: 'putty', material: 'putty', dabG: 0.5, gPerCm: 1.6 });
  });
  const made = async (path: string, body: object, method = 'POST') => {
    const { status, body: found } = await server.call(method, path, body);
    expect(status, JSON.stringify(found)).toBe(200);
    return found;
  };
  let count = 0;
  const key = (): string => `key number ${++count}`;

  /** A fitting of a player and a frame that is measured. */
  async function opened(specs: object = SPECS, player: object = {}) {
    const { id: playerId } = await made('/players', {
      name: `Player ${++count}`,
      sports: ['tennis'],
      ...player,
    });
    const { id: frameId } = await made('/frames', {
      tag: `T-${count}`,
      maker: 'Velmond',
      model: 'Quarr 97',
      shape: { sport: 'tennis', lengthCm: 68.58, headAreaCm2: 645 },
    });
    const fitting = await made('/fittings', { playerId, frameIds: [frameId] });
    const id = fitting.id as string;
    const at = `/fittings/${id}`;
    await made(`/frames/${frameId}/measurements`, {
      key: key(),
      dress: { strings: true },
      specs,
      purpose: 'found',
      roundId: fitting.frames[0].rounds[0].id,
    });
    const view = async () => (await server.call('GET', at)).body;
    const entry = async () => (await view()).frames[0];
    const round = async () => (await entry()).rounds.at(-1);
    /** The programme as it stands, with its next step. */
    const programme = async () => {
      const own = (await entry()).programmes.at(-1);
      return { ...own, ...(await server.call('GET', `/programmes/${own.id}/next`)).body };
    };
    const play = async (felt: object = {}) =>
      made(`${at}/sessions`, {
        key: key(),
        roundId: (await round()).id,
        playedOn: '2026-11-22',
        energyLeft: 'plenty',
        arm: 'fine',
        ...felt,
      });
    const begin = (name: string, more: object = {}) =>
      made(`${at}/programmes`, { key: key(), frameId, name, ...more });
    const take = async (more: object = {}) => {
      const { id: programmeId, sessions } = await programme();
      return server.call('POST', `${at}/programmes/step`, { key: key(), programmeId, sessions, ...more });
    };
    /** Builds what is planned, measures what was predicted, and signs it off. */
    const build = async (off: object = {}) => {
      const { plans, id: roundId } = await round();
      const plan = plans.at(-1);
      for (const { key: step } of plan.steps)
        await made(`${at}/marks`, { planId: plan.id, step, mark: 'done' });
      const { axisCm: _, ...specs } = plan.specs;
      const check = await made(`/frames/${frameId}/measurements`, {
        key: key(),
        dress: { strings: true },
        specs: { ...specs, ...off },
        purpose: 'check',
        roundId,
      });
      return made(`${at}/sign-offs`, { key: key(), planId: plan.id, measurementId: check.id });
    };
    const step = async () => {
      const { status, body } = await take();
      expect(status, JSON.stringify(body)).toBe(200);
      await build();
    };
    return { id, at, playerId, frameId, view, entry, round, programme, play, begin, take, build, step };
  }
  return { server, made, key, opened };
}
