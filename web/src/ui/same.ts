import { dequal } from 'dequal/lite';

/** As it would be sent: what is undefined is not there. */
const plain = (of: unknown): unknown => JSON.parse(JSON.stringify(of ?? null));
/** Whether two things that are plain data hold the same, in whatever order their keys are. */
export const same = (a: unknown, b: unknown): boolean => dequal(plain(a), plain(b));
