import { z } from 'zod';
import { standardUncertainty } from '../shapes';

/** What checked builds taught of a roll of tape, filling or wrap. */
export const rollLearned = z.strictObject({
  partId: z.string(),
  name: z.string(),
  statedGPerCm: z.number().describe('what it was said to be, before any correction'),
  gPerCm: z.number().describe('what plans count with now'),
  share: z.number().describe('how much heavier than stated, as a share: the posterior mean'),
  uncertainty: standardUncertainty.describe('its standard uncertainty; before any build the roll’s own'),
  builds: z.int(),
  massG: z.number().describe('how much of it was put on in those'),
  begunAt: z.string().nullable().describe('when this roll was begun, where an earlier one was finished'),
  applied: z.strictObject({ share: z.number(), at: z.string(), builds: z.int() }).nullable(),
});
/** A build that was checked, predicted against read. */
export const taughtBuild = z.strictObject({
  planId: z.string(),
  fittingId: z.string(),
  tag: z.string(),
  playerName: z.string(),
  checkedAt: z.string(),
  massG: z.strictObject({ predicted: z.number(), read: z.number() }),
  swingWeight: z.strictObject({ predicted: z.number(), read: z.number() }),
});
export const learning = z.strictObject({
  rolls: z.array(rollLearned),
  habit: z.strictObject({
    alongCm: z.number().describe('how much further along its line a piece ends up than it was measured'),
    uncertainty: standardUncertainty,
    builds: z.int(),
  }),
  builds: z.array(taughtBuild).describe('the evidence, the last checked first'),
});
export const rollAct = z.strictObject({
  act: z
    .enum(['apply', 'undo', 'new-roll'])
    .describe('take the correction, take it back, or begin another roll'),
});
export type Learning = z.output<typeof learning>;
