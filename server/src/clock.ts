import type { RequestHandler, Response } from 'express';

/** The time now, as ISO text; tests give their own. */
export type Clock = () => string;
export const systemClock: Clock = () => new Date().toISOString();

const DAY_S = 86_400;
/** What waited longer than this was not done when a device says that it was. */
const LONGEST_WAIT_S = 30 * DAY_S;
/** Notes when a request came: how long ago a device says that something was done counts from then, however long other work holds the answer up. */
export const notingArrival =
  (now: Clock): RequestHandler =>
  (_request, response, next) => {
    (response.locals as { arrivedAt?: string }).arrivedAt = now();
    next();
  };
export const arrivalOf = (response: Response): string | undefined =>
  (response.locals as { arrivedAt?: string }).arrivedAt;

/** When something was done. @param arrived when it was told @param ago how many seconds ago, as a device says that could send it only now; it counts as done now where that cannot be */
export function doneAt(arrived: string, ago: string | undefined): string {
  const seconds = Number(ago ?? 0);
  const canBe = seconds > 0 && seconds <= LONGEST_WAIT_S;
  return canBe ? new Date(Date.parse(arrived) - seconds * 1000).toISOString() : arrived;
}
