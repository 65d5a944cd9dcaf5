import { z } from 'zod';
import {
  addition,
  aimTarget,
  dress,
  frameShape,
  knownSpecs,
  placement,
  school,
  specUncertainty,
  specs,
  zoneName,
} from './shapes';

const MOST_SETUPS = 100_000;
const MOST_ADDITIONS = 500;

const axisSpecs = specs.extend({ axisCm: z.number() });
const setups = z.array(z.strictObject({ id: z.string().max(200), specs })).max(MOST_SETUPS);

/** Bodies and answers of `POST /compute/*`. */
export const predictBody = z.strictObject({
  shape: frameShape,
  specs,
  additions: z.array(addition).max(MOST_ADDITIONS),
});
export const predictAnswer = z.strictObject({
  specs: axisSpecs.extend({
    recoilWeight: z.number(),
    pointsHeadLight: z.number(),
    naturalSwing: z.number(),
    percussionCm: z.number(),
  }),
  delta: z.strictObject({
    massG: z.number(),
    balanceCm: z.number(),
    swingWeight: z.number(),
    twistWeight: z.number(),
    recoilWeight: z.number(),
  }),
});

export const redressBody = z.strictObject({ shape: frameShape, specs, from: dress, to: dress });
export const redressAnswer = z.strictObject({ specs: axisSpecs, uncertainty: specUncertainty });

export const shiftAxisBody = z.strictObject({
  specs: specs.describe('axisCm is 10.16 (tennis, badminton) if left out'),
  toAxisCm: z.number().min(0).max(30),
});
export const shiftAxisAnswer = z.strictObject({ specs: axisSpecs });

export const planBody = z.strictObject({
  shape: frameShape,
  specs,
  target: aimTarget,
  schools: z.array(school).max(20).optional(),
  quantumG: z
    .number()
    .min(0.05)
    .max(50)
    .optional()
    .describe('step of a placement’s whole mass (both sides together), g; 0.5 if left out'),
  caps: z.partialRecord(zoneName, z.number().min(0).max(200)).optional(),
});
export const planAnswer = z.strictObject({
  plans: z.array(
    z.strictObject({
      school,
      placements: z.array(placement),
      specs: axisSpecs,
      deviation: knownSpecs,
      withinTolerance: z.boolean(),
      places: z.int(),
      addedG: z.number(),
    }),
  ),
});

export const nearestBody = z.strictObject({ specs, setups });
export const nearestAnswer = z.strictObject({
  nearest: z.array(z.strictObject({ id: z.string(), distanceSteps: z.number(), steps: knownSpecs })),
});
