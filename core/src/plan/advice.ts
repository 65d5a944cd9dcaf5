import type { Frame } from '../frame';
import { SPEC_KEYS, type SpecKey } from '../spec';
import type { Dress } from '../sport';
import { chanceToPass, chanceWithEnough } from './chance';
import type { Change } from './change';
import { WANTED_CHANCE, type ToCheck } from './enough';
import { errorSources, specErrors } from './errors';
import { everySpec, withTaken, type Readings } from './instruments';

/** What would raise the chance to pass, from what to what. */
export type Advice = { from: number; to: number } & (
  | { does: 'read-check'; specs: { spec: SpecKey; times: number }[] }
  | { does: 'read-start'; specs: { spec: SpecKey; times: number }[] }
  | { does: 'weigh' }
);

/** What a bench scale leaves uncertain of a piece, g (from memory). */
const SCALE_G = 0.05;
/** Less than this is not worth a hand's turn. */
const WORTH = 0.02;

/** Specs that are read more often than that. */
const moreThan = (less: Readings, more: Readings, when: 'start' | 'check') =>
  SPEC_KEYS.flatMap((spec) =>
    more[spec][when] > less[spec][when] ? [{ spec, times: more[spec][when] }] : [],
  );

/**
 * What a fitter can do so that a build passes more often, by the same errors as its chance: read the check so often as is enough, read the start again, weigh each piece.
 * @param change what is built, on a frame in this dress
 * @returns only what is worth it, the check first
 * @example adviceFor(frame, dress, change, check)[0] // { does: 'read-check', specs: [{ spec: 'twistWeight', times: 2 }], from: 0.74, to: 0.93 }
 */
export function adviceFor(
  frame: Frame,
  dress: Dress,
  change: Change,
  check: ToCheck,
  wanted = WANTED_CHANCE,
): Advice[] {
  const once = withTaken(check.instruments, everySpec(1));
  const { chance: now, readings: enough } = chanceWithEnough(check, wanted);
  const from = chanceToPass(check, once).chance;
  const found: Advice[] = [{ does: 'read-check', specs: moreThan(once, enough, 'check'), from, to: now }];
  if (check.instruments.taken) {
    const instruments = { ...check.instruments, taken: undefined };
    const { chance: to, readings } = chanceWithEnough({ ...check, instruments }, wanted);
    found.push({ does: 'read-start', specs: moreThan(enough, readings, 'start'), from: now, to });
  }
  const weighed = specErrors(check.after, errorSources(frame, dress, change, { weighedG: SCALE_G }));
  found.push({ does: 'weigh', from: now, to: chanceToPass({ ...check, build: weighed }, enough).chance });
  return found.filter((one) => one.to - one.from > WORTH && (one.does === 'weigh' || one.specs.length > 0));
}
