import {
  TYPICAL_READING,
  benchSteps,
  planUncertainty,
  requireSpecs,
  settleFrame,
  specsWith,
  withAxis,
  type Frame,
  type Materials,
  type Plan,
} from '@kevro/core';
import {
  fieldErrors,
  sentence,
  shopFile,
  type AimRecord,
  type Measurement,
  type ShopFile,
} from '@kevro/contract';
import type { PlanRunner } from '../compute/plan-runner';
import type { Db, Queries } from '../db/db';
import { calibrateRods } from '../instruments/calibration';
import { badInput } from '../problem';
import { addAim } from '../records/aim';
import { openFitting, setReferences } from '../records/fitting';
import { addFrame, addStringing, archiveFrame, changeFrame } from '../records/frame';
import { addCalibration, addInstrument } from '../records/instrument';
import { addMeasurement } from '../records/measurement';
import { addPart } from '../records/part';
import { addPlan, markStep } from '../records/plan';
import { archivePlayer, putPlayer } from '../records/player';
import { addSetup } from '../records/setup';
import { setShop } from '../records/shop';

/** Reads a shop file, or throws bad input that names each field. */
export function readShopFile(data: unknown): ShopFile {
  const read = shopFile.safeParse(data, { reportInput: true });
  if (!read.success) throw badInput(fieldErrors(read.error.issues));
  return read.data;
}

async function storeFrame(
  db: Queries,
  { id, measurements, stringings, archived, ...frame }: ShopFile['frames'][number],
): Promise<Measurement | undefined> {
  await addFrame(db, frame, id);
  const { sport, lengthCm } = settleFrame(frame.shape);
  let newest: Measurement | undefined;
  for (const [i, { uncertainty = TYPICAL_READING, specs, ...rest }] of measurements.entries()) {
    newest = await addMeasurement(db, {
      ...rest,
      key: `${id} ${i}`,
      frameId: id,
      specs: requireSpecs(withAxis(specs, sport.axisCm), lengthCm, `frames.${id}.measurements.${i}.specs`),
      uncertainty,
    });
  }
  // What is on it is what the file says, also where that is not what was last measured.
  await changeFrame(db, id, frame);
  for (const stringing of stringings) await addStringing(db, id, stringing);
  if (archived) await archiveFrame(db, id, true);
  return newest;
}

/** Whether a shop has been loaded into this database before. */
export const isLoaded = async (db: Db): Promise<boolean> => (await db.query('select 1 from shop')).length > 0;

type Fitting = ShopFile['fittings'][number];

/** The materials of a fitting's plan, looked up among the file's parts. */
function materialsOf(file: ShopFile, { id, plan }: Fitting): Materials | undefined {
  if (!plan) return undefined;
  const named = (name: string) => file.parts.find((p) => p.id === name)?.part;
  const tape = named(plan.tape);
  const filling = named(plan.filling);
  if (tape?.kind !== 'tape' || filling?.kind !== 'filling') {
    throw badInput([{ path: `fittings.${id}.plan`, code: 'not-found', message: sentence('not-found') }]);
  }
  return { tape: tape.data, filling: filling.data };
}

/** Stores a whole shop in one transaction. Plans are computed before it, since they take longest. */
export async function loadShop(db: Db, file: ShopFile, runPlan: PlanRunner, now: string): Promise<void> {
  const frames = new Map(file.frames.map((frame) => [frame.id, frame]));
  const plans = new Map<string, Plan>();
  for (const fitting of file.fittings) {
    const frame = frames.get(fitting.frameId);
    const specs = frame?.measurements.at(-1)?.specs;
    const materials = materialsOf(file, fitting);
    if (!fitting.plan || !fitting.aim || !frame || !specs || !materials) continue;
    const request = {
      shape: frame.shape,
      specs,
      target: fitting.aim.target,
      schools: [fitting.plan.school],
      materials,
    };
    const [best] = await runPlan(request);
    if (best) plans.set(fitting.id, best);
  }

  await db.transaction(async (tx) => {
    await setShop(tx, file.shop);
    for (const { id, archived, ...player } of file.players) {
      await putPlayer(tx, player, id);
      if (archived) await archivePlayer(tx, id, true);
    }
    for (const instrument of file.instruments) await storeInstrument(tx, instrument, now);
    const newest = new Map<string, Measurement | undefined>();
    for (const frame of file.frames) newest.set(frame.id, await storeFrame(tx, frame));
    for (const { id, ...setup } of file.setups) await addSetup(tx, setup, id);
    for (const { id, part } of file.parts) await addPart(tx, part, id);
    for (const fitting of file.fittings) {
      const aim = await storeFitting(tx, fitting);
      const frame = frames.get(fitting.frameId);
      const measurement = newest.get(fitting.frameId);
      const materials = materialsOf(file, fitting);
      const best = plans.get(fitting.id);
      if (fitting.plan && aim && frame && measurement && materials && best) {
        const { createdAt, stepsDone } = fitting.plan;
        await storePlan(tx, fitting.id, settleFrame(frame.shape), {
          aim,
          measurement,
          materials,
          best,
          createdAt,
          stepsDone,
        });
      }
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
    const found = calibrateRods(rods);
    await addCalibration(tx, { key: `${id} ${takenAt}`, instrumentId: id, takenAt, rods, found });
  }
}

async function storeFitting(tx: Queries, fitting: Fitting): Promise<AimRecord | undefined> {
  await openFitting(tx, fitting, fitting.openedAt, fitting.id);
  await setReferences(tx, fitting.id, fitting.references);
  return fitting.aim && addAim(tx, fitting.id, fitting.aim, fitting.aim.createdAt);
}

interface PlanToStore {
  aim: AimRecord;
  measurement: Measurement;
  materials: Materials;
  best: Plan;
  createdAt: string;
  stepsDone: number;
}

async function storePlan(
  tx: Queries,
  fittingId: string,
  frame: Frame,
  { aim, measurement, materials, best, createdAt, stepsDone }: PlanToStore,
): Promise<void> {
  const { school, placements, withinTolerance } = best;
  const stored = await addPlan(tx, fittingId, {
    measurementId: measurement.id,
    aimId: aim.id,
    school,
    byHand: false,
    materials,
    placements,
    createdAt,
    specs: specsWith(frame, measurement.specs, placements),
    uncertainty: planUncertainty(frame, measurement.specs, measurement.uncertainty, placements),
    withinTolerance,
  });
  const steps = benchSteps(frame, placements, materials, measurement.dress);
  for (const { key } of steps.slice(0, stepsDone)) await markStep(tx, stored.id, key, true, createdAt);
}
