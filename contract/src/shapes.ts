import { z } from 'zod';
import {
  type RatingKey,
  RATING_KEYS,
  ALL_SPORTS,
  ALL_ZONES,
  ARM,
  BASE_GRIPS,
  COMPARED,
  DAYS,
  DEPTHS,
  ENERGY,
  GUIDES,
  OFTEN,
  PLAYED,
  PRIORITIES,
  SCHOOLS,
  SPEC_KEYS,
  byAnySpec,
  bySpec,
  MOST_READINGS,
  OUTLINE_POINTS,
} from '@kevro/core';
import { ERROR_CODES } from './errors';
import { STRINGS_MOST_G } from './limits';

/** Shapes that requests and records share. They are strict: unknown keys are bad input. */

const finite = z.number();

export const sport = z.enum(ALL_SPORTS);
export const zoneName = z.enum(ALL_ZONES);
export const specKey = z.enum(SPEC_KEYS);
export const guideName = z.enum(GUIDES);
export const errorCode = z.enum(ERROR_CODES);
/** A day of the calendar, YYYY-MM-DD. */
export const date = z.iso.date();

/** What a player felt in one session, as its fields. */
export const felt = {
  energyLeft: z.enum(ENERGY),
  late: z.enum(OFTEN).optional(),
  twists: z.enum(OFTEN).optional(),
  firmVolleys: z.enum(['yes', 'no']).optional(),
  arm: z.enum(ARM),
  minutes: z.number().positive().max(1000).optional(),
};

const ratingsAs = <S extends z.ZodType>(schema: S): Record<RatingKey, z.ZodOptional<S>> =>
  Object.fromEntries(RATING_KEYS.map((key) => [key, schema.optional()])) as Record<
    RatingKey,
    z.ZodOptional<S>
  >;
export const specs = z.strictObject({
  ...ratingsAs(finite),
  massG: finite,
  balanceCm: finite,
  swingWeight: finite,
  twistWeight: finite.optional(),
  axisCm: finite.min(0).max(30).optional().describe("cm from the butt; the sport's own if left out"),
});

export const axisSpecs = specs.extend({ axisCm: z.number() });

/** All that is noted of a session, as its fields. */
export const noted = {
  ...felt,
  play: z.enum(PLAYED).optional().describe('what was played'),
  day: z.enum(DAYS).optional(),
  energyStart: z.enum(ENERGY).optional(),
  depth: z.enum(DEPTHS).optional().describe('where balls landed'),
  spin: z.enum(COMPARED).optional().describe('beside what is usual'),
  serve: z.enum(COMPARED).optional().describe('beside what is usual'),
};

/** A session as it was noted. */
export const sessionNoted = z.strictObject(noted);

export const zoneChanges = z
  .array(z.strictObject({ zone: zoneName, massG: z.number().min(-100).max(100) }))
  .max(20)
  .describe('weight of a zone, both its sides together; less than zero is taken off');

export const OUTLINE_FROM = ['photo', 'model'] as const;
/** The outline of a frame's own head, one side of it. */
export const ownOutline = z.strictObject({
  points: z
    .array(z.tuple([finite.min(0).max(60), finite.min(0).max(30)]).readonly())
    .min(OUTLINE_POINTS.fewest)
    .max(OUTLINE_POINTS.most)
    .readonly()
    .describe('from the tip to the bottom of the head: cm below the tip, and half the width there'),
  hoopCm: finite.positive().max(5).optional().describe('how wide the hoop is; as is usual if left out'),
  from: z.enum(OUTLINE_FROM).optional().describe('a photo of this frame, or another frame of its model'),
  takenOn: z.iso.date().optional(),
  widthSdCm: finite.min(0).max(10).optional().describe('one standard uncertainty of the head’s width'),
  faceSdCm2: finite.min(0).max(500).optional().describe('one standard uncertainty of the face’s area'),
});

export const frameShape = z.strictObject({
  sport,
  lengthCm: finite.positive().max(100),
  headAreaCm2: finite.positive().max(2000).optional(),
  headLengthCm: finite.positive().max(60).optional(),
  headWidthCm: finite.positive().max(60).optional(),
  handleLengthCm: finite.positive().max(60).optional(),
  shape: z.string().max(40).optional(),
  outline: ownOutline.optional().describe('goes before all that is said of the head'),
});

export const spot = z.union([
  z.strictObject({ clock: finite.min(0).max(12) }),
  z.strictObject({ xCm: finite, yCm: finite.optional() }),
  z.strictObject({ zone: zoneName }),
]);

export const addition = z.strictObject({
  massG: finite,
  at: spot,
  spanCm: finite.positive().max(100).optional(),
  mirrored: z.boolean().optional(),
});

export const dress = z.strictObject({
  strings: z
    .union([z.boolean(), z.strictObject({ massG: finite.positive().max(STRINGS_MOST_G) })])
    .optional(),
  baseGrip: z.enum(BASE_GRIPS).optional(),
  overgrips: z.int().min(0).max(6).optional(),
  dampener: z.boolean().optional(),
});

export const target = z.strictObject({
  value: finite,
  tolerance: finite,
  priority: z.enum(PRIORITIES).optional(),
});

export const aimTarget = z.strictObject(bySpec(() => target.optional()));

export const school = z.enum(SCHOOLS);

export const knownSpecs = z.strictObject(byAnySpec(() => finite.optional()));
/** The same of those that weight changes. */
export const plannedSpecs = z.strictObject(bySpec(() => finite.optional()));

/** Standard uncertainties (one sigma): screens show twice as much. */
export const specUncertainty = z
  .strictObject({ ...bySpec(() => finite.min(0)), ...ratingsAs(finite.min(0)) })
  .describe('standard uncertainties (one sigma); a 95 % interval reaches twice as far to either side');
/** One standard uncertainty. */
export const standardUncertainty = finite
  .min(0)
  .describe('standard uncertainty (one sigma); a 95 % interval reaches twice as far to either side');

/** A standard uncertainty of one reading in its two parts: what repeats lessen, and what readings of one instrument and calibration share. */
export const parted = z.strictObject({ random: finite.min(0), common: finite.min(0) });
export const specParted = z
  .strictObject({
    ...bySpec(() => parted),
    ...ratingsAs(parted),
  })
  .describe('standard uncertainties (one sigma) in their parts: u² = random² + common²');
const numberOrParted = z.union([finite.min(0), parted]);
/** What instruments leave uncertain: a plain number is all of it scatter. */
export const instrumentUncertainty = z
  .strictObject(bySpec(() => numberOrParted))
  .partial()
  .describe('standard uncertainties of one reading; a plain number is all of it random');

const times = z.int().min(1).max(MOST_READINGS);
const readTimes = z.strictObject({ start: times, check: times });
/** How often each spec is read at the start and at the check. */
export const readings = z.strictObject(bySpec(() => readTimes));

/** A placement as the computation says it: a point with its zone. Records keep placements along the frame’s lines. */
export const placement = z.strictObject({
  zone: zoneName,
  massG: finite.positive().max(200),
  xCm: finite,
  yCm: finite,
  mirrored: z.boolean(),
  spanCm: finite.positive().max(100).optional(),
  layers: z.int().min(1).max(50).optional(),
});
