import {
  benchSteps,
  calibrateReads,
  changeOutcome,
  changeUncertainty,
  dayAfter,
  fromSpot,
  requireSpecs,
  settleFrame,
  withAxis,
  type Plan,
} from '@kevro/core';
import { fieldErrors, shopFile, type PartRecord, type ShopFile } from '@kevro/contract';
import type { Compute } from '../compute/compute';
import type { Db, Queries } from '../db/db';
import { badInput, notFoundAt } from '../problem';
import { aims } from '../records/aim';
import { doOver } from './happened';
import { fittings, openFitting, setReferences } from '../records/fitting';
import { addFrame, addStringing, archiveFrame, findFrame, setOnFrame } from '../records/frame';
import { newId } from '../records/id';
import { addCalibration, addInstrument } from '../records/instrument';
import { addMeasurement, findMeasurements, partsSaid } from '../records/measurement';
import { addPart } from '../records/part';
import { plans } from '../records/plan';
import { addPlayer, archivePlayer } from '../records/player';
import { addSetup } from '../records/setup';
import { seasonDates } from '../records/season';
import { KEPT, momentOf, setShop } from '../records/shop';
import { stepMarks } from '../records/step-mark';

/** Reads a shop file, or throws bad input that names each field. */
export function readShopFile(data: unknown): ShopFile {
  const read = shopFile.safeParse(data, { reportInput: true });
  if (!read.success) throw badInput(fieldErrors(read.error.issues));
  return read.data;
}

/** A frame of the file as it is stored: its weights stand along its lines. */
function frameToStore({
  id: _,
  measurements: __,
  stringings: ___,
  archived: ____,
  ...frame
}: ShopFile['frames'][number]) {
  const settled = settleFrame(frame.shape);
  const weights = frame.weights.map(({ what, ...weight }, i) => ({
    ...fromSpot(settled, { ...weight, mirrored: weight.mirrored ?? false }, { id: `w${i + 1}`, partId: '' }),
    what,
  }));
  return { ...frame, weights };
}

async function storeFrame(db: Queries, file: ShopFile['frames'][number]): Promise<void> {
  const { id, measurements, stringings, archived } = file;
  const frame = frameToStore(file);
  await addFrame(db, frame, id);
  const { sport, lengthCm } = settleFrame(frame.shape);
  for (const [i, { uncertainty = sport.typicalReading, specs, ...rest }] of measurements.entries()) {
    await addMeasurement(
      db,
      {
        ...rest,
        frameId: id,
        roundId: null,
        specs: requireSpecs(withAxis(specs, sport.axisCm), lengthCm, `frames.${id}.measurements.${i}.specs`),
        parts: partsSaid(uncertainty, specs, rest.estimated),
        how: {},
      },
      `${id} ${i}`,
    );
  }
  // What is on it is what the file says, also where that is not what was last measured.
  await setOnFrame(db, id, { onIt: frame.onIt, weights: frame.weights });
  for (const stringing of stringings) await addStringing(db, id, stringing);
  if (archived) await archiveFrame(db, id, true);
}

type Fitting = ShopFile['fittings'][number];

/** The parts of a fitting's plan, looked up among the file's. */
function partsOf(file: ShopFile, { id, plan }: Fitting): PartRecord[] {
  const names = plan?.parts ?? [];
  return names.map((name, i) => {
    const part = file.parts.find((p) => p.id === name);
    if (!part) throw badInput([notFoundAt(`fittings.${id}.plan.parts.${i}`)]);
    return part;
  });
}

/** Stores a whole shop in one transaction. Plans are computed before it, since they take longest. */
export async function loadShop(db: Db, file: ShopFile, compute: Compute, now: string): Promise<void> {
  const frames = new Map(file.frames.map((frame) => [frame.id, frame]));
  const best = new Map<string, Plan>();
  for (const fitting of file.fittings) {
    const frame = frames.get(fitting.frameIds[0] ?? '');
    const specs = frame?.measurements.at(-1)?.specs;
    if (!fitting.plan || !fitting.aim || !frame || !specs) continue;
    const [plan] = await compute('makePlans', {
      shape: frame.shape,
      specs,
      target: fitting.aim.target,
      schools: [fitting.plan.school],
      parts: partsOf(file, fitting),
    });
    if (plan) best.set(fitting.id, plan);
  }

  await db.transaction(async (tx) => {
    await setShop(tx, { ...KEPT, ...file.shop, timeZone: file.shop.timeZone ?? '' });
    const { day } = await momentOf(tx, now);
    for (const { id, archived, season, ...player } of file.players) {
      await addPlayer(tx, player, id);
      for (const [place, { inDays, days, ...date }] of season.entries())
        await seasonDates.insert(tx, {
          id: newId(),
          key: `${id} season ${place}`,
          playerId: id,
          uid: '',
          ...date,
          fromDay: dayAfter(day, inDays),
          toDay: dayAfter(day, inDays + days - 1),
        });
      if (archived) await archivePlayer(tx, id, true);
    }
    for (const instrument of file.instruments) await storeInstrument(tx, instrument, now);
    for (const frame of file.frames) await storeFrame(tx, frame);
    for (const { id, ...setup } of file.setups) await addSetup(tx, setup, id);
    for (const part of file.parts) await addPart(tx, part);
    for (const fitting of file.fittings) {
      await storeFitting(tx, file, fitting, best.get(fitting.id));
      await doOver(tx, fitting);
    }
  });
}

async function storeInstrument(
  tx: Queries,
  { id, calibrations, ...instrument }: ShopFile['instruments'][number],
  now: string,
): Promise<void> {
  await addInstrument(tx, instrument, id);
  for (const { hoursBefore, rods } of calibrations) {
    const takenAt = new Date(Date.parse(now) - hoursBefore * 3_600_000).toISOString();
    const found = calibrateReads(rods);
    await addCalibration(tx, { key: `${id} ${takenAt}`, instrumentId: id, takenAt, rods, found });
  }
}

/** A fitting with the aim and the plan of its first frame. */
async function storeFitting(
  tx: Queries,
  file: ShopFile,
  fitting: Fitting,
  best: Plan | undefined,
): Promise<void> {
  const { id, aim, plan, closed, references } = fitting;
  const [round] = await openFitting(tx, fitting, fitting.openedAt, id);
  await setReferences(tx, id, references);
  if (closed) {
    await fittings.change(
      tx,
      { closedAt: closed.at, closedHow: closed.how, closedNote: closed.note },
      'id = $1',
      id,
    );
  }
  if (!round || !aim) return;
  const stored = await aims.insert(tx, { id: newId(), roundId: round.id, ...aim });
  const [start] = await findMeasurements(tx, round.startId === null ? [] : [round.startId]);
  const frame = await findFrame(tx, round.frameId);
  if (!plan || !best || !stored || !start || !frame) return;
  const settled = settleFrame(frame.shape);
  const { school, placements, swaps, removals, withinTolerance } = best;
  const change = { placements, swaps, removals, parts: partsOf(file, fitting) };
  const steps = benchSteps(change, start.dress);
  const planId = newId();
  await plans.insert(tx, {
    id: planId,
    createdAt: plan.createdAt,
    roundId: round.id,
    startId: start.id,
    aimId: stored.id,
    school,
    byHand: false,
    ...change,
    steps,
    specs: changeOutcome(settled, start.specs, start.dress, change).specs,
    uncertainty: changeUncertainty(settled, start.specs, start.uncertainty, start.dress, change),
    chance: null,
    truly: null,
    readings: null,
    withinTolerance,
  });
  for (const { key } of steps.slice(0, plan.stepsDone)) {
    await stepMarks.insert(tx, { planId, step: key, mark: 'done', at: plan.createdAt });
  }
}
