import { z } from 'zod';
import { school, spot } from '../shapes';
import { closeFitting, newAim } from './fitting';
import { newFrame, newStringing, nominal } from './frame';
import { newInstrument, rodReads } from './instrument';
import { newMeasurement } from './measurement';
import { part } from './part';
import { newPlayer } from './player';
import { newSetup } from './setup';
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
export const shopFile = z.strictObject({
  kevro: z.literal('shop/3'),
  shop: shop.partial({ timeZone: true, backupsKept: true, signedInHours: true }),
  players: z.array(newPlayer.extend({ id, archived: z.boolean().default(false) })),
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
  setups: z.array(newSetup.extend({ id })),
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
    }),
  ),
});
export type ShopFile = z.output<typeof shopFile>;
