import { z } from 'zod';
import { QUANTITIES, STRING_DUE, STRING_KINDS } from '@kevro/core';
import { date, dress, frameShape, ownOutline, plannedSpecs, school, specs, sport } from '../shapes';
import { keptFilm } from './film';
import { measurement } from './measurement';
import { onFrame } from './placement';
import { text, yes } from './text';

/** What the maker states of a model: shared by all frames of the same sport, maker and model. */
export const nominal = z.strictObject({
  specs: plannedSpecs,
  tolerance: plannedSpecs,
  dress: dress.describe('the dress that the statement is for; most makers state frames bare'),
});

export const newFrame = z.strictObject({
  tag: text(40).min(1),
  maker: text(80).min(1),
  model: text(80).min(1),
  paint: text(80).default('').describe('what the paint says, where that is not the model'),
  ownerId: z.string().nullable().default(null).describe('the player it belongs to; null is shop stock'),
  shape: frameShape,
  pattern: text(20).default(''),
  beam: text(30).default('').describe('widths along the beam, mm'),
  stiffness: z.number().min(0).max(120).nullable().default(null).describe('as its maker states it'),
  gripSize: text(20).default(''),
  note: text(500).default(''),
  onIt: dress.default({}).describe('what is on it now'),
  weights: z.array(onFrame).max(40).default([]),
  nominal: nominal
    .nullable()
    .optional()
    .describe('of a frame that is changed null takes the statement away; left out it stays'),
});
export const frame = newFrame.extend({
  id: z.string(),
  archived: z.boolean(),
  nominal: nominal.nullable(),
});

export const stringing = z.strictObject({
  id: z.string(),
  strungOn: date,
  mains: text(80),
  crosses: text(80),
  mainsMm: z.number().min(0.4).max(2).nullable(),
  crossesMm: z.number().min(0.4).max(2).nullable(),
  mainsKg: z.number().min(1).max(50),
  crossesKg: z.number().min(1).max(50),
  unit: z.enum(['lb', 'kg']).describe('how the tension was said; it is stored in kg'),
  preStretchPercent: z.number().min(0).max(30),
  mainsKind: z.enum(STRING_KINDS).nullable(),
  crossesKind: z.enum(STRING_KINDS).nullable(),
  by: text(80).describe('who strung it'),
  hoursPlayed: z
    .number()
    .min(0)
    .max(2000)
    .nullable()
    .describe('as somebody says, where more was played than is noted'),
  readings: z
    .array(
      z.strictObject({
        on: date,
        kg: z.number().min(1).max(50),
        with: text(80).describe('by what tester'),
      }),
    )
    .max(20)
    .describe('tensions that were measured since, the last one last'),
  note: text(200),
  retired: z.boolean().describe('noted by mistake: kept, and not counted'),
});
export const newStringing = stringing.omit({ id: true, retired: true }).extend({
  mains: text(80).min(1),
  crosses: text(80).default('').describe('the mains’ own if left out'),
  mainsMm: stringing.shape.mainsMm.default(null),
  crossesMm: stringing.shape.crossesMm.default(null),
  preStretchPercent: stringing.shape.preStretchPercent.default(0),
  mainsKind: stringing.shape.mainsKind.default(null),
  crossesKind: stringing.shape.crossesKind.default(null),
  by: stringing.shape.by.default(''),
  hoursPlayed: stringing.shape.hoursPlayed.default(null),
  readings: stringing.shape.readings.default([]),
  note: text(200).default(''),
});

/** The strings that are in a frame now: how they were played, and whether they are due for new ones. */
export const stringBed = z.strictObject({
  frameId: z.string(),
  stringing,
  days: z.int().describe('since it was strung'),
  hours: z.number().describe('of play: as noted, or as somebody says where that is more'),
  notedHours: z.number(),
  sessions: z.int().describe('that were noted since'),
  due: z.array(z.enum(STRING_DUE)).describe('why they are due; empty where they are not'),
});
export type StringBed = z.output<typeof stringBed>;

export const frameQuery = z.strictObject({
  search: text(80).optional(),
  tag: text(60).optional().describe('exactly this tag, however it is written'),
  ids: text(8000).optional().describe('these frames only, parted by commas'),
  sport: sport.optional(),
  owner: z.string().max(80).optional().describe('a player’s id, or `stock`'),
  sort: z.enum(['tag', 'model', 'owner', 'measured']).default('tag'),
  archived: yes,
  limit: z.coerce.number().int().min(1).max(500).default(100),
  offset: z.coerce.number().int().min(0).default(0),
});

/** A frame in a list, with its newest numbers. */
export const frameRow = z.strictObject({
  id: z.string(),
  tag: z.string(),
  maker: z.string(),
  model: z.string(),
  paint: z.string(),
  ownerId: z.string().nullable(),
  ownerName: z.string().nullable(),
  shape: frameShape,
  pattern: z.string(),
  gripSize: z.string(),
  note: z.string(),
  archived: z.boolean(),
  newest: z
    .strictObject({
      id: z.string(),
      takenAt: z.string(),
      dress,
      specs: specs.extend({ axisCm: z.number() }),
      estimated: z.array(z.enum(QUANTITIES)),
    })
    .nullable(),
});

/** Everything of one frame: what it is, and what happened to it. */
export const framePage = z.strictObject({
  frame,
  ownerName: z.string().nullable(),
  measurements: z.array(measurement),
  stringings: z.array(stringing),
  bed: stringBed.nullable(),
  films: z.array(keptFilm),
  outlinePicture: z.string().nullable().describe('the photo that its outline was taken from, if it is kept'),
  modelOutline: z
    .strictObject({ tag: z.string(), outline: ownOutline })
    .nullable()
    .describe('of another frame of its model, where this one has none'),
  builds: z.array(
    z.strictObject({
      planId: z.string(),
      fittingId: z.string(),
      round: z.number(),
      playerName: z.string(),
      createdAt: z.string(),
      school,
      byHand: z.boolean(),
      addedG: z.number(),
      stepsDone: z.number(),
    }),
  ),
});

/** A make that the shop has had, as its frames are known: what a new one begins with. */
export const knownModel = z.strictObject({
  sport,
  maker: z.string(),
  model: z.string(),
  shape: frameShape,
  pattern: z.string(),
  beam: z.string(),
  stiffness: z.number().nullable(),
  nominal: nominal.nullable(),
  outline: z
    .strictObject({ tag: z.string(), outline: ownOutline })
    .nullable()
    .describe('of one of them that has its own, from a photo rather than taken over'),
  frames: z.number().describe('how many of it the shop has had'),
});
export const modelQuery = z.strictObject({
  search: text(80).optional().describe('in maker and model'),
  limit: z.coerce.number().int().min(1).max(100).default(20),
  offset: z.coerce.number().int().min(0).default(0),
});
/** An outline that was taken of a frame: from a photo, or from another of its model. */
export const takenOutline = z.strictObject({
  outline: ownOutline,
  lengthCm: frameShape.shape.lengthCm.optional().describe('its length, where that was taken too'),
  pictureId: z.string().nullable().default(null).describe('a photo to be kept with it'),
});
export type TakenOutline = z.output<typeof takenOutline>;
export type OwnOutlineRecord = z.output<typeof ownOutline>;
export type KnownModel = z.output<typeof knownModel>;

export type NewFrame = z.input<typeof newFrame>;
export type FrameRecord = z.output<typeof frame>;
export type FrameRow = z.output<typeof frameRow>;
export type FrameQuery = z.output<typeof frameQuery>;
export type FramePage = z.output<typeof framePage>;
export type Stringing = z.output<typeof stringing>;
