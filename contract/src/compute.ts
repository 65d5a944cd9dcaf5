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
  sport,
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

export const pendulumBody = z.strictObject({
  massG: z.number(),
  balanceCm: z.number().max(100),
  pivotCm: z.number().min(0).max(100),
  swings: z.number(),
  seconds: z.number().max(100_000),
  amplitudeDeg: z.number().optional(),
  axisCm: z.number().min(0).max(30).optional().describe('10.16 (tennis, badminton) if left out'),
  uncertainty: z
    .strictObject({
      massG: z.number().min(0).optional(),
      balanceCm: z.number().min(0).optional(),
      pivotCm: z.number().min(0).optional(),
      seconds: z.number().min(0).optional(),
    })
    .optional()
    .describe('standard uncertainties; typical ones if left out'),
});
export const pendulumAnswer = z.strictObject({
  swingWeight: z.number(),
  recoilWeight: z.number(),
  uncertainty: z.number(),
});

const readings = z.array(z.number().min(0).max(10_000)).max(1000);
export const twistBody = z.strictObject({
  faceOn: readings,
  edgeOn: readings,
  readingUncertainty: z.number().min(0).max(1000).optional(),
});
export const twistAnswer = z.strictObject({ twistWeight: z.number(), uncertainty: z.number() });

export const reachBody = z.strictObject({ shape: frameShape, specs, setups });
export const reachAnswer = z.strictObject({
  reach: z.array(
    z.strictObject({ id: z.string(), reachable: z.boolean(), addedG: z.number(), distanceSteps: z.number() }),
  ),
});

export const parseSpecsBody = z.strictObject({ text: z.string().max(2000), sport: sport.optional() });
export const parseSpecsAnswer = z.strictObject({
  specs: knownSpecs.extend({ axisCm: z.number().optional() }),
  dress,
  shape: z.strictObject({
    sport,
    lengthCm: z.number().optional(),
    headAreaCm2: z.number().optional(),
    pattern: z.string().optional(),
    shape: z.string().optional(),
  }),
  leftover: z.string(),
});
