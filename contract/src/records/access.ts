import { z } from 'zod';
import { PASSPHRASE_LEAST, ROLES } from '../limits';

/** How a device stands toward the shop. */
export const access = z.strictObject({
  bench: z.boolean().describe('it is the machine that Kevro runs on'),
  signedIn: z.boolean().describe('it may come in'),
  role: z.enum(ROLES).nullable().describe('what it may do; null while it may not come in'),
  who: z.string().describe('the name by which somebody signed in; empty for a device without one'),
  named: z.boolean().describe('people of the shop sign in by names'),
  passphraseSet: z.boolean(),
  several: z.boolean().describe('several shops are served here: who signs in says which'),
  shop: z
    .string()
    .describe('which of them this browser asks for; empty where there is but one, or none was said'),
  alwaysOpen: z
    .boolean()
    .describe('other devices are listened for by the way Kevro was started; told to the bench machine only'),
  addresses: z
    .array(z.string())
    .describe('where other devices find the shop; told to the bench machine only'),
});
export type Access = z.output<typeof access>;
export const letOthersIn = z.strictObject({ letIn: z.boolean() });

const passphrase = z.string().min(PASSPHRASE_LEAST).max(200);
export const newPassphrase = z.strictObject({ passphrase });
export const ownPassphrase = z.strictObject({ before: z.string().max(200), passphrase });

const staffName = z.string().trim().min(1).max(60);
/** Somebody of the shop who signs in by name. */
export const staffMember = z.strictObject({
  id: z.string(),
  name: staffName,
  role: z.enum(ROLES),
  left: z.boolean().describe('may not come in any more; the change log keeps the name'),
});
export type StaffMember = z.output<typeof staffMember>;
export const newStaff = z.strictObject({ name: staffName, role: z.enum(ROLES), passphrase });
export const changedStaff = staffMember.omit({ id: true });

/** By one's own name and passphrase, by the shop's passphrase, or by a code that was shown on the bench machine. */
export const signIn = z.strictObject({
  person: z.string().trim().max(60).optional().describe('the name of somebody of the shop'),
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
