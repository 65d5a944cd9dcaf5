import { z } from 'zod';
import { school } from '../shapes';
import { newAim } from './fitting';
import { newFrame, newStringing } from './frame';
import { newInstrument, rodReads } from './instrument';
import { newMeasurement } from './measurement';
import { newPart } from './part';
import { newPlayer } from './player';
import { newSetup } from './setup';
import { shop } from './shop';

const id = z.string().min(1).max(80);
const when = z.iso.datetime();

/** A whole shop in one open file: what the demo ships, and what a shop can be moved with. */
export const shopFile = z.strictObject({
  kevro: z.literal('shop/2'),
  shop,
  players: z.array(newPlayer.extend({ id, archived: z.boolean().default(false) })),
  frames: z.array(
    newFrame.extend({
      id,
      archived: z.boolean().default(false),
      measurements: z.array(newMeasurement.omit({ key: true }).extend({ takenAt: when })),
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
  parts: z.array(z.strictObject({ id, part: newPart })),
  fittings: z.array(
    z.strictObject({
      id,
      playerId: id,
      frameId: id,
      openedAt: when,
      references: z.array(id).default([]),
      aim: newAim.extend({ createdAt: when }).optional(),
      /** A school whose plan is computed and chosen when the file is read. */
      plan: z
        .strictObject({ school, tape: id, filling: id, createdAt: when, stepsDone: z.int().min(0) })
        .optional(),
    }),
  ),
});
export type ShopFile = z.output<typeof shopFile>;
