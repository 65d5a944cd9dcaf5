import { z } from 'zod';
import { STATIONS } from '@kevro/core';
import { aimTarget, placement, school, specUncertainty, specs } from '../shapes';
import { frame } from './frame';
import { measurement } from './measurement';
import { materials } from './part';
import { player } from './player';

export const station = z.enum(STATIONS);
export const stationState = z.enum(['done', 'due', 'blocked', 'later']);

export const newFitting = z.strictObject({ playerId: z.string(), frameId: z.string() });
export type NewFitting = z.input<typeof newFitting>;

export const newAim = z.strictObject({
  way: z.enum(['copy', 'part-way', 'by-hand']),
  setupId: z.string().nullable().default(null),
  target: aimTarget,
});
export const aim = newAim.extend({ id: z.string(), createdAt: z.string() });
export type AimRecord = z.output<typeof aim>;

export const newPlan = z.strictObject({
  measurementId: z.string(),
  aimId: z.string(),
  school,
  /** Whether the fitter moved or changed a weight after the solver. */
  byHand: z.boolean().default(false),
  materials,
  placements: z.array(placement).max(40),
});
export const plan = newPlan.extend({
  id: z.string(),
  createdAt: z.string(),
  specs: specs.extend({ axisCm: z.number() }),
  uncertainty: specUncertainty,
  withinTolerance: z.boolean(),
});
export type PlanRecord = z.output<typeof plan>;

export const fittingView = z.strictObject({
  id: z.string(),
  openedAt: z.string(),
  player,
  frame,
  measurement: measurement.nullable(),
  references: z.array(z.string()).describe('setups set beside the frame'),
  aim: aim.nullable(),
  plan: plan.nullable(),
  stepsDone: z.array(z.string()),
  states: z.record(station, stationState),
  next: station.nullable(),
});
export type FittingView = z.output<typeof fittingView>;

export const fittingRow = z.strictObject({
  id: z.string(),
  openedAt: z.string(),
  playerName: z.string(),
  frameTag: z.string(),
  frameName: z.string(),
  next: station.nullable(),
});
export type FittingRow = z.output<typeof fittingRow>;
