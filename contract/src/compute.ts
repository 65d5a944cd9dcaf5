import { z } from 'zod';
import {
  CAME_FROM,
  PROPOSAL_STATES,
  ERROR_KINDS,
  GUARDS,
  PADDLE_SHAPES,
  DAYS,
  PROGRAMMES,
  SHAPE_FIRSTS,
  SPEC_KEYS,
  STEP_REASONS,
  STRENGTHS,
} from '@kevro/core';
import {
  addition,
  aimTarget,
  dress,
  guideName,
  sessionNoted,
  frameShape,
  knownSpecs,
  plannedSpecs,
  instrumentUncertainty,
  placement,
  readings,
  school,
  specKey,
  specUncertainty,
  specs,
  sport,
  standardUncertainty,
  zoneName,
  axisSpecs,
  zoneChanges,
} from './shapes';
import { stringStep, stringingJob } from './records/placement';

export const MOST_SETUPS = 100_000;
const MOST_ADDITIONS = 500;
const MOST_FRAMES = 6;

const someSpecs = knownSpecs.extend({ axisCm: specs.shape.axisCm });
const setups = z
  .array(z.strictObject({ id: z.string().max(200), specs: someSpecs }))
  .max(MOST_SETUPS)
  .describe('specs that are not known are left out');
const impossible = z
  .string()
  .optional()
  .describe('why a setup cannot be; it fails no other, and has no distance');
const placements = z.array(placement).max(MOST_ADDITIONS);
const quantumG = z
  .number()
  .min(0.05)
  .max(50)
  .optional()
  .describe('step of a placement’s whole mass (both sides together), g; 0.5 if left out');
/** What a start was and a check is measured with. */
const measuredWith = {
  start: instrumentUncertainty
    .optional()
    .describe(
      'standard uncertainties of one reading that the start was measured with; those of the check if left out',
    ),
  uncertainty: instrumentUncertainty
    .optional()
    .describe(
      'standard uncertainties of one reading that the check is measured with; the sport’s typical instruments in their usual parts if left out',
    ),
  sameInstruments: z
    .boolean()
    .optional()
    .describe(
      'start and check have the same instruments and calibrations: what they share cancels then, but for drift; true if left out',
    ),
};
const wantedChance = z
  .number()
  .min(0.5)
  .max(0.99)
  .optional()
  .describe('how often the check is to pass; 0.9 if left out');
const truly = z.number().min(0).max(1).describe('probability that the true values are in tolerance');
const chance = z.number().min(0).max(1).describe('probability that a check passes');

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
  quantumG,
  caps: z.partialRecord(zoneName, z.number().min(0).max(200)).optional(),
  margin: z
    .boolean()
    .optional()
    .describe(
      'plan inside the tolerances less the errors of build and readings (at least half of them stays), where that can be; true if left out',
    ),
  locked: placements.optional().describe('stay as they are, and belong to the plan'),
  ...measuredWith,
  wanted: wantedChance,
});
export const planAnswer = z.strictObject({
  plans: z.array(
    z.strictObject({
      school,
      placements: z.array(placement),
      specs: axisSpecs,
      deviation: plannedSpecs,
      withinTolerance: z.boolean(),
      places: z.int(),
      addedG: z.number(),
      chance: chance.describe('probability that the check passes with these readings'),
      truly,
      readings,
      guarded: z.boolean().describe('it keeps the tolerances less the errors of build and readings'),
      proven: z.boolean().describe('nothing better exists'),
      bound: z
        .number()
        .optional()
        .describe('where it is not proven: the least that any plan could lie outside, in tolerances'),
    }),
  ),
});

export const chanceBody = z.strictObject({
  shape: frameShape,
  specs: specs.describe('before the placements'),
  ...measuredWith,
  start: instrumentUncertainty
    .optional()
    .describe('what the start was measured with; a spec that is left out is exact'),
  drift: plannedSpecs
    .optional()
    .describe('standard uncertainty of how far the instruments drift from start to check; none if left out'),
  readings: z.partialRecord(specKey, readings.shape.massG).optional().describe('one of each if left out'),
  placements,
  target: aimTarget,
  densityShare: z
    .number()
    .min(0)
    .max(1)
    .optional()
    .describe('standard uncertainty of what is sold by length, as a share of its mass; 0.04 if left out'),
  placingCm: z
    .number()
    .min(0)
    .max(10)
    .optional()
    .describe('standard uncertainty of where a piece ends up along its line, cm; 0.4 if left out'),
});
export const chanceAnswer = z.strictObject({
  chance,
  truly,
  spread: specUncertainty.describe('standard uncertainties of what a check finds'),
  contributions: z
    .array(z.strictObject({ what: z.enum(ERROR_KINDS), share: z.number() }))
    .describe('shares of the variance of the spec that fails most often, adding to 1'),
});

export const readingsBody = z.strictObject({
  shape: frameShape,
  specs: specs.describe('before the placements'),
  placements: placements
    .optional()
    .describe('left out, a build that comes out as aimed, without errors of its own'),
  target: aimTarget,
  ...measuredWith,
  wanted: wantedChance,
});
export const readingsAnswer = z.strictObject({
  readings,
  chance: chance.describe('with these readings'),
  reached: z.boolean().describe('whether it passes as often as wanted'),
  judgeable: plannedSpecs.describe(
    'the least tolerance of each spec that five readings at start and check can judge',
  ),
});

export const trimBody = z.strictObject({
  shape: frameShape,
  specs: specs.describe('as checked'),
  placements: placements.describe('as built'),
  target: aimTarget,
  quantumG,
});
export const trimAnswer = z.strictObject({
  trims: z.array(
    z.strictObject({
      changes: z.array(
        z.strictObject({
          index: z.int().nullable().describe('the placement that is changed; null: a new one'),
          zone: zoneName,
          massG: z.number().describe('more or, negative, less; 0 where a piece is only moved'),
          xCm: z.number(),
          yCm: z.number(),
        }),
      ),
      specs: axisSpecs,
      withinTolerance: z.boolean(),
      chance,
      readings,
      touches: z.int(),
    }),
  ),
});

export const lightenBody = z.strictObject({ placements, share: z.number(), quantumG });
export const lightenAnswer = z.strictObject({ placements: z.array(placement) });

export const commonAimBody = z.strictObject({
  frames: z.array(z.strictObject({ id: z.string().max(200), shape: frameShape, specs })).max(MOST_FRAMES),
  keys: z
    .array(specKey)
    .max(SPEC_KEYS.length)
    .optional()
    .describe('specs that are to be common; all if left out'),
});
export const commonAimAnswer = z.strictObject({
  target: aimTarget,
  frames: z.array(
    z.strictObject({
      id: z.string(),
      addedG: z.number(),
      placements: z.array(placement),
      specs: axisSpecs,
      withinTolerance: z.boolean(),
    }),
  ),
});

export const sensitivityBody = z.strictObject({
  shape: frameShape,
  specs,
  massG: z.number().positive().max(200).optional().describe('1 if left out'),
});
export const sensitivityAnswer = z.strictObject({
  points: z
    .array(
      z.strictObject({
        xCm: z.number(),
        massG: z.number(),
        balanceCm: z.number(),
        swingWeight: z.number(),
        twistWeight: z.number(),
        recoilWeight: z.number(),
      }),
    )
    .describe('changes by so many grams on the long axis or, on the head, by a pair on the hoop'),
});

export const nearestBody = z.strictObject({
  specs,
  setups,
  sport: sport.optional().describe('whose noticeable steps and axis count; tennis if left out'),
});
export const nearestAnswer = z.strictObject({
  nearest: z.array(
    z.strictObject({ id: z.string(), distanceSteps: z.number().optional(), steps: plannedSpecs, impossible }),
  ),
});

export const pendulumBody = z.strictObject({
  massG: z.number(),
  balanceCm: z.number().max(100),
  pivotCm: z.number().min(0).max(100),
  swings: z.number(),
  seconds: z.number().max(100_000),
  amplitudeDeg: z.number().optional().describe('half the whole angle at the start; at most 60'),
  endAmplitudeDeg: z.number().optional().describe('the same at the end; as at the start if left out'),
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
  uncertainty: standardUncertainty,
});

const shown = z.array(z.number().min(0).max(10_000)).max(1000);
export const twistBody = z.strictObject({
  faceOn: shown,
  edgeOn: shown,
  readingUncertainty: z.number().min(0).max(1000).optional().describe('standard uncertainty of one reading'),
  frame: z
    .strictObject({ shape: frameShape, massG: z.number().positive().max(2000), axisCm: specs.shape.axisCm })
    .optional()
    .describe(
      'corrects for the depth of the frame and the air that a solid face moves; without it a flat plate in still air',
    ),
});
export const twistAnswer = z.strictObject({ twistWeight: z.number(), uncertainty: standardUncertainty });

export const reachBody = z.strictObject({ shape: frameShape, specs, setups });
export const reachAnswer = z.strictObject({
  reach: z.array(
    z.strictObject({
      id: z.string(),
      reachable: z.boolean().describe('every spec that is known within one noticeable step'),
      addedG: z.number().describe('the least grams for that; where it cannot be, those of the nearest'),
      distanceSteps: z
        .number()
        .optional()
        .describe('the least distance that there can be; left out for a setup that cannot be'),
      unknown: z.array(specKey).describe('specs that do not count, since one side does not know them'),
      impossible,
    }),
  ),
});

export const happiestRange = z.strictObject({
  from: z.number().positive().max(2000),
  to: z.number().positive().max(2000),
});
export const nextStepBody = z.strictObject({
  programme: z.enum(PROGRAMMES),
  sport,
  shape: frameShape,
  specs: specs.describe('before the first change of the programme'),
  history: z
    .array(
      z.strictObject({
        change: zoneChanges,
        strings: stringStep.optional(),
        session: sessionNoted.optional(),
      }),
    )
    .max(100)
    .describe('in the order in which it was played; the first change may be nothing'),
  there: zoneChanges.optional().describe('what lies on the frame already, in the specs'),
  towards: z
    .strictObject({ massG: z.number().positive().max(1000), swingWeight: z.number().positive().max(1000) })
    .optional()
    .describe('what `half-way` goes half the way toward'),
  happiest: happiestRange.optional().describe('where players alike were happiest: how large a first step is'),
  bed: stringingJob
    .omit({ step: true })
    .extend({ isDue: z.boolean().optional() })
    .optional()
    .describe('the strings that are in now, which `strings-first` changes'),
  day: z.enum(DAYS).optional().describe('what `hot-cold` makes it ready for'),
  caps: z
    .partialRecord(zoneName, z.number().min(0).max(200))
    .optional()
    .describe('the most that a zone takes, g; the sport’s own if left out'),
});
export const stepReason = z.enum(STEP_REASONS);
export const nextStepAnswer = z.strictObject({
  state: z.enum(PROPOSAL_STATES),
  change: zoneChanges,
  strings: stringStep.optional().describe('what to do with the strings, of a programme that changes them'),
  specs: axisSpecs.describe('after the change'),
  ceiling: z
    .strictObject({
      swingWeight: z.number(),
      uncertainty: standardUncertainty,
    })
    .optional()
    .describe('what the player carries'),
  reason: stepReason,
  full: z.array(zoneName).optional().describe('zones that take no more'),
  sentence: z.string(),
});

export const guardsBody = z.strictObject({
  sport,
  shape: frameShape,
  specs,
  dress,
  target: aimTarget,
  player: z
    .strictObject({
      age: z.number().min(0).max(120).optional(),
      heightCm: z.number().min(80).max(240).optional(),
      level: z.number().min(1).max(7).optional(),
      ceilingSwingWeight: z.number().positive().max(1000).optional(),
      soreArm: z.boolean().optional(),
      guide: guideName.optional(),
    })
    .prefault({}),
});
export const guardsAnswer = z.strictObject({
  guards: z
    .array(
      z.strictObject({
        code: z.enum(GUARDS),
        strength: z.enum(STRENGTHS),
        sentence: z.string(),
        at: aimTarget.optional().describe('a gentler target, where one helps'),
      }),
    )
    .describe('strongest first'),
});

export const shapeAdviceBody = z.strictObject({
  first: z.enum(SHAPE_FIRSTS),
  misHits: z.enum(['tip', 'sides']).optional(),
  from: z.enum(CAME_FROM).optional(),
});
export const shapeAdviceAnswer = z.strictObject({
  shapes: z.array(z.strictObject({ shape: z.enum(PADDLE_SHAPES), reasons: z.array(z.string()) })),
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
