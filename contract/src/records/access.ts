import { z } from 'zod';
import { PASSPHRASE_LEAST } from '../limits';

/** How a device stands toward the shop. */
export const access = z.strictObject({
  bench: z.boolean().describe('it is the machine that Kevro runs on'),
  signedIn: z.boolean().describe('it may come in'),
  passphraseSet: z.boolean(),
  alwaysOpen: z
    .boolean()
    .describe('other devices are listened for by the way Kevro was started; told to the bench machine only'),
  addresses: z
    .array(z.string())
    .describe('where other devices find the shop; told to the bench machine only'),
});
export type Access = z.output<typeof access>;
export const letOthersIn = z.strictObject({ letIn: z.boolean() });

export const newPassphrase = z.strictObject({ passphrase: z.string().min(PASSPHRASE_LEAST).max(200) });
/** By the passphrase, or by a code that was shown on the bench machine. */
export const signIn = z.strictObject({
  passphrase: z.string().max(200).optional(),
  code: z.string().trim().max(20).optional(),
  name: z.string().trim().max(60).default('').describe('what the device is called'),
});
export const pairing = z.strictObject({
  code: z.string().describe('works once'),
  until: z.string(),
  address: z.string().describe('the address with the code, for a camera'),
  picture: z.string().describe('that address as a QR code, SVG'),
});
export const devices = z.array(
  z.strictObject({ name: z.string(), signedInAt: z.string(), until: z.string() }),
);
