import { SPORTS, nearestSetups, reach, requireSpecs, withAxis } from '@kevro/core';
import { compute, sentence, type AnswerOf } from '@kevro/contract';
import { ApiProblem, badInput } from '../problem';
import { readAs } from '../routes/route';
import { unreadableIn } from '../safety/readable-text';

/** Where no frame is named, a balance may lie anywhere a frame of any sport reaches. */
const LONGEST_CM = 100;

/** What a body of bytes holds. Long lists are read here, in a thread, so that nobody else waits for it. */
function bodyIn(bytes: Uint8Array): unknown {
  let body: unknown;
  try {
    body = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes));
  } catch {
    throw new ApiProblem('not-json');
  }
  const { setups } = (body ?? {}) as { setups?: unknown };
  // Said before each of them is looked at.
  if (Array.isArray(setups) && setups.length > compute.MOST_SETUPS) {
    const message = sentence('too-long', { most: compute.MOST_SETUPS });
    throw badInput([{ path: 'setups', code: 'too-long', message }]);
  }
  const found = unreadableIn(body);
  if (found.length > 0) throw badInput(found);
  return body;
}

/** The call `nearest` of a body as it came in. */
export function nearestOf(bytes: Uint8Array): AnswerOf<'nearest'> {
  const body = readAs(compute.nearestBody, bodyIn(bytes));
  const sport = SPORTS[body.sport ?? 'tennis'];
  const own = requireSpecs(withAxis(body.specs, sport.axisCm), LONGEST_CM);
  return { nearest: nearestSetups(own, body.setups, sport, LONGEST_CM) };
}

/** The call `reach` of a body as it came in. */
export function reachOf(bytes: Uint8Array): AnswerOf<'reach'> {
  const body = readAs(compute.reachBody, bodyIn(bytes));
  return { reach: reach(body.shape, body.specs, body.setups) };
}
