import type { AimRecord, FittingView, FrameRecord, Measurement, Player } from '@kevro/contract';
import type { Application } from './harness';

let count = 0;
export const key = (): string => `made-for-a-test-${++count}`;

const created = async <T>(answer: Promise<Response>): Promise<T> => {
  const response = await answer;
  if (!response.ok) throw new Error(`${response.status}: ${await response.text()}`);
  return (await response.json()) as T;
};
export const post = <T>(app: Application, path: string, body: unknown): Promise<T> =>
  created<T>(app.send('POST', path, body));

export interface Made {
  player: Player;
  frame: FrameRecord;
  fitting: FittingView;
  measurement: Measurement;
  roundId: string;
}
/** A player with a frame that is measured, and their fitting: a test's own. */
export async function makeFitting(
  app: Application,
  { name = `Ottilie Vance ${++count}`, frame: more = {} }: { name?: string; frame?: object } = {},
): Promise<Made> {
  const player = await post<Player>(app, '/players', { name, sports: ['tennis'] });
  const frame = await post<FrameRecord>(app, '/frames', {
    tag: `MT-${++count}`,
    maker: 'Velmond',
    model: 'Quarr 97',
    ownerId: player.id,
    shape: { sport: 'tennis', lengthCm: 68.58, headAreaCm2: 645 },
    onIt: { strings: true, overgrips: 1 },
    ...more,
  });
  const fitting = await post<FittingView>(app, '/fittings', { playerId: player.id, frameIds: [frame.id] });
  const roundId = fitting.frames[0]?.rounds[0]?.id ?? '';
  const measurement = await post<Measurement>(app, `/frames/${frame.id}/measurements`, {
    key: key(),
    dress: { strings: true, overgrips: 1 },
    specs: { massG: 320, balanceCm: 32.5, swingWeight: 315, twistWeight: 13.5 },
    purpose: 'found',
    roundId,
  });
  return { player, frame, fitting, measurement, roundId };
}

export const setAim = (app: Application, { fitting, roundId }: Made, target: object): Promise<AimRecord> =>
  post<AimRecord>(app, `/fittings/${fitting.id}/aims`, { roundId, way: 'by-hand', target });
