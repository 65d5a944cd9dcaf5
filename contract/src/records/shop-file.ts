import { z } from 'zod';
import { school } from '../shapes';
import { newAim } from './fitting';
import { newFrame } from './frame';
import { newMeasurement } from './measurement';
import { newPart } from './part';
import { newPlayer } from './player';
import { newSetup } from './setup';
import { shop } from './shop';

const id = z.string().min(1).max(80);
const when = z.iso.datetime();

/** A whole shop in one open file: what the demo ships, and what a shop can be moved with. */
export const shopFile = z.strictObject({
  kevro: z.literal('shop/1'),
  shop,
  players: z.array(newPlayer.extend({ id })),
  frames: z.array(
    newFrame.extend({
      id,
      measurements: z.array(newMeasurement.omit({ key: true }).extend({ takenAt: when })),
    }),
  ),
  setups: z.array(newSetup.extend({ id })),
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
