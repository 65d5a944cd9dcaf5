import { z } from 'zod';
import { frameShape } from '../shapes';

const text = (most: number) => z.string().trim().max(most);

export const newFrame = z.strictObject({
  tag: text(40).min(1),
  maker: text(80).min(1),
  model: text(80).min(1),
  ownerId: z.string().nullable().default(null).describe('the player it belongs to; null is shop stock'),
  shape: frameShape,
  pattern: text(20).default(''),
  gripSize: text(20).default(''),
  note: text(500).default(''),
});
export const frame = newFrame.extend({ id: z.string() });
export type NewFrame = z.input<typeof newFrame>;
export type FrameRecord = z.output<typeof frame>;
