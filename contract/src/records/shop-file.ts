import { z } from 'zod';
import { noted, school, spot } from '../shapes';
import { closeFitting, newAim } from './fitting';
import { newFrame, newStringing, nominal } from './frame';
import { newInstrument, rodReads } from './instrument';
import { newMeasurement } from './measurement';
import { part } from './part';
import { newLookAgain, newProgramme } from './play';
import { newPlayer } from './player';
import { seasonDate } from './season';
import { newSetup, withRatings } from './setup';
import { shop } from './shop';

const id = z.string().min(1).max(80);
const when = z.iso.datetime();

/** A weight that is on a frame, said by its place. */
const weightAt = z.strictObject({
  what: z.string().trim().max(60).default(''),
  massG: z.number().positive().max(100),
  at: spot,
  spanCm: z.number().positive().max(60).optional(),
  mirrored: z.boolean().optional(),
});

/** A whole shop in one open file: what the demo ships, and what a shop can be moved with. */
/** What happened at Play, one thing after the other, each at its time: it is done over again when the file is read, as at the bench. */
const happened = z.discriminatedUnion('do', [
  newProgramme
    .pick({ name: true, towards: true, note: true })
    .extend({ do: z.literal('programme'), at: when, frame: z.int().min(0).max(5).default(0) }),
  z.strictObject({
    do: z.literal('session'),
    at: when,
    frame: z.int().min(0).max(5).default(0),
    ...noted,
    note: z.string().max(1000).default(''),
    by: z.string().max(80).default(''),
  }),
  z.strictObject({
    do: z.literal('step'),
    at: when,
    frame: z.int().min(0).max(5).default(0),
    built: z.boolean().default(true).describe('built, checked as planned and signed off'),
  }),
  z.strictObject({ do: z.literal('end'), at: when, frame: z.int().min(0).max(5).default(0) }),
  newLookAgain.pick({ dueOn: true, why: true, note: true }).extend({ do: z.literal('look-again'), at: when }),
]);
export type Happened = z.output<typeof happened>;

export const shopFile = z.strictObject({
  kevro: z.literal('shop/3'),
  shop: shop.omit({ begun: true }).partial({
    fits: true,
    measuresWith: true,
    timeZone: true,
    backupsKept: true,
    signedInHours: true,
    wantedChance: true,
    partUnit: true,
    learnsFromAll: true,
    sports: true,
  }),
  players: z.array(
    newPlayer.extend({
      id,
      archived: z.boolean().default(false),
      season: z
        .array(
          seasonDate
            .omit({ id: true, fromDay: true, toDay: true })
            .extend({ inDays: z.int().min(-60).max(300), days: z.int().min(1).max(60).default(1) }),
        )
        .default([])
        .describe('matches and rests, as days from the one on which the file is read'),
    }),
  ),
  frames: z.array(
    newFrame.extend({
      id,
      archived: z.boolean().default(false),
      /** Weights are said by their place, as a fitter would: `{ "zone": "handle" }`. */
      weights: z.array(weightAt).max(40).default([]),
      nominal: nominal.nullable().default(null),
      measurements: z.array(newMeasurement.omit({ key: true, roundId: true }).extend({ takenAt: when })),
      stringings: z.array(newStringing).default([]),
    }),
  ),
  setups: z.array(z.preprocess(withRatings, newSetup.extend({ id }))),
  instruments: z
    .array(
      newInstrument.extend({
        id,
        /** Each taken so many hours before the file is read: a calibration of a made-up machine is as old as its file says. */
        calibrations: z
          .array(z.strictObject({ hoursBefore: z.number().min(0), rods: z.array(rodReads) }))
          .default([]),
      }),
    )
    .default([]),
  parts: z.array(part),
  fittings: z.array(
    z.strictObject({
      id,
      playerId: id,
      frameIds: z.array(id).min(1).max(6),
      openedAt: when,
      closed: closeFitting.extend({ at: when }).optional(),
      references: z.array(id).default([]),
      /** The aim of the first frame’s round. */
      aim: newAim.omit({ roundId: true }).extend({ createdAt: when }).optional(),
      /** A school whose plan is computed and chosen when the file is read. */
      plan: z
        .strictObject({ school, parts: z.array(id).min(1), createdAt: when, stepsDone: z.int().min(0) })
        .optional(),
      happened: z.array(happened).default([]),
    }),
  ),
});
export type ShopFile = z.output<typeof shopFile>;
