import { z } from 'zod';
import {
  NEXT_BECAUSE,
  LAPSES,
  BOTHERS,
  CAUTIONS,
  CLOSINGS,
  MARKS,
  PROGRAMMES,
  STRING_DUE,
  ROUND_REASONS,
  STATIONS,
  STATION_STATES,
  STEP_KINDS,
} from '@kevro/core';
import {
  aimTarget,
  date,
  dress,
  guideName,
  noted,
  readings,
  school,
  sport,
  specKey,
  specUncertainty,
  specs,
} from '../shapes';
import { frame, stringBed } from './frame';
import { measurement } from './measurement';
import { part } from './part';
import { onFrame, placedPart, removal, swap } from './placement';
import { player } from './player';
import { programmeView } from './play';
import { key, text, yes } from './text';

export const station = z.enum(STATIONS);
export const stationState = z.enum(STATION_STATES);
const by = text(80).default('').describe('who did it');

export const newFitting = z.strictObject({
  playerId: z.string(),
  frameIds: z.array(z.string()).min(1).max(6).describe('one frame, or the two to six of a set'),
  evenIfOpen: z.boolean().default(false).describe('also where the pair has an open fitting already'),
});
/** Another player, or other frames: a frame with work in this fitting stays. */
export const editFitting = newFitting.omit({ evenIfOpen: true });
export const closeFitting = z.strictObject({ how: z.enum(CLOSINGS), note: text(500).default('') });

export const reopenFitting = z.strictObject({
  newRound: z
    .boolean()
    .default(false)
    .describe('whether each frame begins a new round; else it goes on where it was'),
});

export const partIds = z.array(z.string().max(80)).max(100);

/** What can stand beside a frame as a setup does. */
const besideMeasured = z.strictObject({ kind: z.literal('measured'), measurementId: z.string().max(80) });
const besideOther = [
  z.strictObject({ kind: z.literal('guide'), guide: guideName }),
  z.strictObject({ kind: z.literal('shape'), shape: z.string().max(40).describe('a class of shapes') }),
] as const;
export const besideKey = z.discriminatedUnion('kind', [besideMeasured, ...besideOther]);
export type BesideKey = z.output<typeof besideKey>;

export const newRound = z.strictObject({
  frameId: z.string(),
  why: z.enum(ROUND_REASONS),
  note: text(500).default(''),
});
export const roundStart = z.strictObject({ roundId: z.string(), measurementId: z.string() });

/** Ways to an aim. */
export const AIM_WAYS = [
  'copy',
  'part-way',
  'frame',
  'guide',
  'complaints',
  'by-hand',
  'programme',
  'back',
] as const;

export const newAim = z.strictObject({
  roundId: z.string(),
  way: z.enum(AIM_WAYS),
  setupId: z.string().nullable().default(null),
  source: z
    .strictObject({
      frameId: z.string().max(80).optional(),
      guide: guideName.optional(),
      bothers: z.array(z.enum(BOTHERS)).max(BOTHERS.length).optional(),
      share: z.number().min(0).max(1).optional().describe('how far of the way'),
    })
    .default({})
    .describe('what it was taken from, where that is no setup'),
  note: text(500).default('').describe('why'),
  target: aimTarget.describe('read with on the frame what it is finished with'),
  finish: dress.nullable().default(null).describe('what is on it when it is done; null: as it is now'),
  guards: z
    .array(z.strictObject({ code: z.string().max(40), note: text(500) }))
    .max(20)
    .default([])
    .describe('guards that were overridden, each with why'),
  by,
});
/** An aim as it is sent. */
export const sentAim = newAim.extend({
  after: z
    .string()
    .nullable()
    .optional()
    .describe('the aim that the page showed: one that was set meanwhile is not replaced unseen'),
});
export const aim = newAim.extend({ id: z.string(), createdAt: z.string() });
export type AimRecord = z.output<typeof aim>;

/** What is put on, changed and taken off. */
const change = {
  placements: z.array(placedPart).max(40),
  swaps: z.array(swap).max(6).default([]),
  removals: z.array(removal).max(40).default([]),
};

export const newPlan = z.strictObject({
  roundId: z.string(),
  startId: z
    .string()
    .describe('the measurement it starts from: the round’s start, or a check that it corrects'),
  aimId: z.string(),
  trims: z
    .string()
    .nullable()
    .default(null)
    .describe('the plan whose build it corrects; its start is then a check of that'),
  school,
  /** Whether the fitter moved or changed a weight after the solver. */
  byHand: z.boolean().default(false),
  ...change,
});

/** A step as it was planned when the plan was chosen. */
export const plannedStep = z.strictObject({
  key: z.string(),
  kind: z.enum(STEP_KINDS),
  placementIds: z.array(z.string()),
  cautions: z.array(z.enum(CAUTIONS)),
  waitMinutes: z.number().optional(),
});
export const plan = newPlan.extend({
  id: z.string(),
  createdAt: z.string(),
  parts: z.array(part).describe('the parts as they were when the plan was chosen'),
  steps: z.array(plannedStep),
  specs: specs.extend({ axisCm: z.number() }),
  uncertainty: specUncertainty.describe('standard uncertainties'),
  chance: z
    .number()
    .nullable()
    .describe('that the check passes with these readings; null where it was not worked out'),
  truly: z
    .number()
    .nullable()
    .describe('that the true values are in tolerance; null where it was not worked out'),
  readings: readings.nullable().describe('how often to read each spec; null in plans from before'),
  withinTolerance: z.boolean(),
});
export type PlanRecord = z.output<typeof plan>;

/** A mark on a step. Each is kept; the last one counts. */
export const newMark = z.strictObject({
  planId: z.string(),
  step: z.string().min(1).max(120),
  mark: z.enum(MARKS),
  reason: text(500).default('').describe('why it was skipped or changed'),
  asBuilt: z.array(placedPart).max(40).nullable().default(null).describe('where it differs from the plan'),
  measurementId: z.string().nullable().default(null).describe('the reading that was taken after it'),
  by,
  seen: z
    .enum(MARKS)
    .optional()
    .describe('how the step stood where it was marked: where another mark stands by now, none is stored'),
});
export const stepMark = newMark.omit({ seen: true }).extend({ at: z.string() });
export type StepMark = z.output<typeof stepMark>;

/** What a frame carries: its dress, and the weights on it. */
const carried = z.strictObject({ dress, weights: z.array(onFrame).max(40) });
export type Carried = z.output<typeof carried>;

export const newSignOff = z.strictObject({
  key,
  planId: z.string(),
  measurementId: z.string().describe('the check'),
  by,
  note: text(500).default(''),
});
export const signOff = newSignOff.omit({ key: true }).extend({
  id: z.string(),
  at: z.string(),
  passed: z.boolean(),
  verdict: z
    .array(z.strictObject({ spec: specKey, value: z.number(), inside: z.boolean() }))
    .describe('spec by spec, those that are aimed at'),
  onFrame: carried.nullable().describe('what is on the frame from then on, so that there is a way back'),
});

export const newSession = z.strictObject({
  key,
  roundId: z.string(),
  playedOn: date,
  ...noted,
  note: text(1000).default(''),
  by,
});
export const session = newSession.omit({ key: true }).extend({
  id: z.string(),
  at: z.string(),
  counts: z.boolean(),
  why: z.string().describe('why it does not count'),
});

const nextStep = z.strictObject({
  station,
  because: z.enum(NEXT_BECAUSE),
  step: z.string().optional(),
  until: z.string().optional(),
});

/** The state of a round, worked out from all its records. */
const roundState = z.strictObject({
  stations: z.record(station, stationState),
  blockedBy: z.partialRecord(station, station),
  next: nextStep.nullable(),
  aimId: z.string().nullable(),
  planId: z.string().nullable(),
  lapsed: z.record(z.string(), z.enum(LAPSES)),
  steps: z.record(z.string(), z.strictObject({ mark: z.enum(MARKS), at: z.string() })),
  built: z.boolean(),
});

export const roundView = z.strictObject({
  id: z.string(),
  frameId: z.string(),
  number: z.number(),
  why: z.enum(ROUND_REASONS),
  note: z.string(),
  begunAt: z.string(),
  startId: z.string().nullable(),
  programmeId: z.string().nullable().describe('the programme whose step it is'),
  onFrame: carried.nullable().describe('what was on the frame when it began, so that there is a way back'),
  measurements: z.array(measurement).describe('of this round, and its start, in the order of arrival'),
  aims: z.array(aim),
  plans: z.array(plan),
  marks: z.array(stepMark),
  signOffs: z.array(signOff),
  sessions: z.array(session),
  state: roundState,
});
export type RoundView = z.output<typeof roundView>;

const besideView = z.discriminatedUnion('kind', [
  besideMeasured.extend({
    frame: frame.pick({ id: true, tag: true, maker: true, model: true, shape: true }),
    measurement,
    round: z.number().nullable().describe('the round of this fitting that it was taken in'),
  }),
  ...besideOther,
]);
export type Beside = z.output<typeof besideView>;

export const fittingView = z.strictObject({
  id: z.string(),
  openedAt: z.string(),
  closed: z.strictObject({ at: z.string(), how: z.enum(CLOSINGS), note: z.string() }).nullable(),
  player,
  references: z.array(z.string()).describe('setups set beside the frame'),
  parts: partIds.describe('the parts that its plans may use; empty: nobody said'),
  instruments: z
    .array(z.strictObject({ id: z.string(), retired: z.boolean(), calibrationId: z.string().nullable() }))
    .describe('the shop’s instruments as they are now, with the calibration that counts'),
  beside: z
    .array(besideView)
    .describe('what else stands beside it: measured frames, guides, classes of shapes'),
  frames: z.array(
    z.strictObject({
      frame,
      bed: stringBed.nullable(),
      rounds: z.array(roundView).describe('the first round first'),
      programmes: z.array(programmeView).describe('the first one first; at most one of them is not ended'),
    }),
  ),
});
export type FittingView = z.output<typeof fittingView>;

export const todayQuery = z.strictObject({
  closed: yes,
  search: text(80).optional().describe('a player or a frame'),
  sport: sport.optional(),
  limit: z.coerce.number().int().min(1).max(1000).default(200),
  offset: z.coerce.number().int().min(0).default(0),
});
export const fittingRow = z.strictObject({
  id: z.string(),
  openedAt: z.string(),
  closed: z.strictObject({ at: z.string(), how: z.enum(CLOSINGS) }).nullable(),
  playerName: z.string(),
  frames: z.array(
    z.strictObject({
      id: z.string(),
      tag: z.string(),
      name: z.string(),
      sport,
      round: z.number(),
      programme: z.enum(PROGRAMMES).nullable().describe('the one that goes on, or is paused'),
      next: nextStep.nullable(),
      stringsDue: z.array(z.enum(STRING_DUE)).describe('why its strings are due for new ones'),
    }),
  ),
});
export type FittingRow = z.output<typeof fittingRow>;
export type TodayQuery = z.output<typeof todayQuery>;

/** Which plan, and for what paper. */
export const templateQuery = z.strictObject({
  plan: z.string().max(80),
  paper: z.enum(['a4', 'letter']).default('a4'),
});
