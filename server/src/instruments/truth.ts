import {
  AIR_SHARE,
  DEPTH_SHARE,
  estimateSwing,
  estimateTwist,
  redress,
  seededNormals,
  settleFrame,
} from '@kevro/core';
import type { OnStandIn } from '@kevro/contract';
import { ApiProblem } from '../problem';
import type { Queries } from '../db/db';
import { openCapture } from '../records/capture';
import { findFrame } from '../records/frame';
import { lastStanding } from '../records/measurement';
import { seedOf } from './seed';
import type { Truth } from './driver';

/** The usual difference between the sides of a frame, g at the widest part of the head (from memory). */
const LEFT_RIGHT_SPREAD_G = 0.6;

/**
 * What a frame on a stand-in truly is: as last measured, brought to the dress that the capture says is on it; a frame never measured is as the maker states it, or as
 * usual frames are. The left/right difference is the frame's own: always the same.
 */
export async function truthOf(db: Queries, on: OnStandIn): Promise<Truth> {
  if ('rod' in on) return on;
  const frame = await findFrame(db, on.frameId);
  if (!frame) throw new ApiProblem('not-found');
  const settled = settleFrame(frame.shape);
  const { dress } = await openCapture(db, frame, new Date().toISOString());
  const last = await lastStanding(db, frame.id);
  const { usual, axisCm } = settled.sport;
  const { massG, balanceCm, swingWeight } = frame.nominal?.specs ?? {};
  const stated =
    massG && balanceCm
      ? {
          massG,
          balanceCm,
          swingWeight: swingWeight ?? estimateSwing(settled, massG, balanceCm).value,
          axisCm,
        }
      : undefined;
  const start = last?.specs ?? stated ?? { ...usual, axisCm };
  const from = last?.dress ?? (stated ? frame.nominal?.dress : dress) ?? dress;
  const { specs } = redress(frame.shape, start, from, dress);
  const twistWeight = specs.twistWeight ?? estimateTwist(settled, specs.massG).twistWeight;
  const own = seededNormals(seedOf(frame.id));
  return {
    frame: settled,
    specs: { ...specs, twistWeight },
    leftRightG: last?.leftRight?.massG ?? LEFT_RIGHT_SPREAD_G * own(),
    layup: { deeper: DEPTH_SHARE * own(), airier: AIR_SHARE * own() },
  };
}
