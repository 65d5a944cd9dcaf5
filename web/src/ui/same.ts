import { dequal } from 'dequal/lite';

/** A copy of plain data as it would be sent: what is undefined is not there, and nothing of the page hangs on it. */
export const plainly = <T>(of: T): T => JSON.parse(JSON.stringify(of)) as T;
/** Whether two things that are plain data hold the same, in whatever order their keys are. */
export const same = (a: unknown, b: unknown): boolean => dequal(plainly(a ?? null), plainly(b ?? null));
