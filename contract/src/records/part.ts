import { z } from 'zod';

export const tape = z.strictObject({
  name: z.string().min(1).max(80),
  material: z.enum(['lead', 'tungsten']),
  widthMm: z.number().positive(),
  gPerCm: z.number().positive(),
  stepCm: z.number().positive(),
});
export const filling = z.strictObject({
  name: z.string().min(1).max(80),
  material: z.enum(['putty', 'silicone']),
  dabG: z.number().positive(),
  gPerCm: z.number().positive(),
});
export const materials = z.strictObject({ tape, filling });

export const newPart = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('tape'), data: tape }),
  z.strictObject({ kind: z.literal('filling'), data: filling }),
]);
export type NewPart = z.output<typeof newPart>;
export const parts = z.strictObject({
  tapes: z.array(tape.extend({ id: z.string() })),
  fillings: z.array(filling.extend({ id: z.string() })),
});
export type Parts = z.output<typeof parts>;
