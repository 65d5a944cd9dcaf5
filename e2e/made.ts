import {
  NO_CHANGE,
  changeOutcome,
  settleFrame,
  type AxisSpecs,
  type Part,
  type Placement,
} from '@kevro/core';
import type { AimRecord, FittingView, FrameRecord, Measurement, PlanRecord, Player } from '@kevro/contract';
import type { Shop } from './harness';

let count = 0;
export const key = (): string => `made-for-a-test-${++count}`;

const created = async <T>(answer: Promise<Response>): Promise<T> => {
  const response = await answer;
  if (!response.ok) throw new Error(`${response.status}: ${await response.text()}`);
  return (await response.json()) as T;
};
export const post = <T>(shop: Shop, path: string, body: unknown): Promise<T> =>
  created<T>(shop.send('POST', path, body));

export interface Made {
  player: Player;
  frame: FrameRecord;
  fitting: FittingView;
  measurement: Measurement;
  roundId: string;
}
/** A player with a frame that is measured, and their fitting: a test's own. */
export async function makeFitting(
  shop: Shop,
  {
    name = `Ottilie Vance ${++count}`,
    frame: more = {},
    player: who = {},
    measured = {},
  }: { name?: string; frame?: object; player?: object; measured?: object } = {},
): Promise<Made> {
  const player = await post<Player>(shop, '/players', { name, sports: ['tennis'], ...who });
  const frame = await post<FrameRecord>(shop, '/frames', {
    tag: `MT-${++count}`,
    maker: 'Velmond',
    model: 'Quarr 97',
    ownerId: player.id,
    shape: { sport: 'tennis', lengthCm: 68.58, headAreaCm2: 645 },
    onIt: { strings: true, overgrips: 1 },
    ...more,
  });
  const fitting = await post<FittingView>(shop, '/fittings', { playerId: player.id, frameIds: [frame.id] });
  const roundId = fitting.frames[0]?.rounds[0]?.id ?? '';
  const measurement = await post<Measurement>(shop, `/frames/${frame.id}/measurements`, {
    key: key(),
    dress: { strings: true, overgrips: 1 },
    specs: { massG: 320, balanceCm: 32.5, swingWeight: 315, twistWeight: 13.5 },
    purpose: 'found',
    roundId,
    ...measured,
  });
  return { player, frame, fitting, measurement, roundId };
}

export const setAim = (shop: Shop, { fitting, roundId }: Made, target: object): Promise<AimRecord> =>
  post<AimRecord>(shop, `/fittings/${fitting.id}/aims`, { roundId, way: 'by-hand', target });

/** A stored plan of a strip pair at the shoulders and a filling in the handle, for an aim that it meets. */
export async function makePlan(
  shop: Shop,
  made: Made,
  tolerance = { massG: 1, swingWeight: 1.5 },
): Promise<PlanRecord> {
  const { fitting, roundId, measurement } = made;
  const tape = await post<Part>(shop, '/parts', {
    kind: 'tape',
    name: `lead tape 9 mm ${++count}`,
    material: 'lead',
    widthMm: 9,
    gPerCm: 0.36,
    stepCm: 0.5,
  });
  const silicone = await post<Part>(shop, '/parts', {
    kind: 'filling',
    name: `silicone ${++count}`,
    material: 'silicone',
    dabG: 0.5,
    gPerCm: 1.6,
    setMinutes: 720,
  });
  const placements = [
    { id: 'p1', partId: tape.id, path: 'rim', startCm: 8, endCm: 16, sides: 2, layers: 1, massG: 5.76 },
    { id: 'p2', partId: silicone.id, path: 'handle', startCm: 1, endCm: 3.5, sides: 1, layers: 1, massG: 4 },
  ];
  const { specs } = changeOutcome(settleFrame(made.frame.shape), measurement.specs, measurement.dress, {
    ...NO_CHANGE,
    placements: placements as Placement[],
    parts: [tape, silicone],
  });
  const aim = await setAim(shop, made, {
    massG: { value: specs.massG, tolerance: tolerance.massG },
    swingWeight: { value: specs.swingWeight, tolerance: tolerance.swingWeight },
  });
  return post<PlanRecord>(shop, `/fittings/${fitting.id}/plans`, {
    roundId,
    startId: measurement.id,
    aimId: aim.id,
    school: 'free',
    placements,
  });
}
/** Marks steps of a plan as done. */
export async function markSteps(
  shop: Shop,
  { fitting }: Made,
  plan: PlanRecord,
  steps: readonly string[],
): Promise<void> {
  for (const step of steps)
    await post(shop, `/fittings/${fitting.id}/marks`, { planId: plan.id, step, mark: 'done' });
}
/** Measures the frame of a fitting for a purpose. */
export const measureFor = (
  shop: Shop,
  { frame, roundId }: Made,
  purpose: string,
  { axisCm: _, ...specs }: AxisSpecs,
  dress: object = { strings: true, overgrips: 1 },
): Promise<Measurement> =>
  post<Measurement>(shop, `/frames/${frame.id}/measurements`, { key: key(), dress, specs, purpose, roundId });
