import type { Frame } from '../frame';
import { zoneOf, type Part, type Placement, type StringStep } from '../part';
import { aroundMiddle, nearestPiece, type Removal } from '../plan';
import type { ZoneName } from '../sport';
import type { Played, ZoneChange } from './programme';
import type { Noted } from './felt';

/** What a fitter lays on and takes off for a step. */
export interface ReadyPlan {
  placements: Placement[];
  removals: Removal[];
  /** Grams of the step that it cannot do, zone by zone: no part of the shop goes there, or less lies there than is to come off. */
  short: ZoneChange[];
}

/** Less than this of a step is nothing to cut, g. */
const NOTHING_G = 0.05;

/** What of a zone's pieces comes off: the last laid first, each whole or shortened around its middle. */
function takenOff(frame: Frame, there: readonly Placement[], zone: ZoneName, grams: number) {
  const removals: Removal[] = [];
  let left = grams;
  for (const of of there.toReversed()) {
    if (left < NOTHING_G || zoneOf(frame, of) !== zone) continue;
    const off = Math.min(left, of.massG);
    const stays = of.massG - off;
    removals.push(stays < NOTHING_G ? { of } : { of, left: aroundMiddle(of, stays / of.massG) });
    left -= off;
  }
  return { removals, left };
}

/**
 * A step of a programme as pieces: what goes on in the shop's own parts, to the nearest piece, and what comes off of what lies there.
 * @param there what is on the frame @param parts what may be used, the preferred first
 * @example readyPlan(frame, [], [{ zone: 'tip', massG: 2 }], [tape]).placements[0]?.massG // 1.99 of a tape of 0.265 g/cm that is cut in halves of a cm
 */
export function readyPlan(
  frame: Frame,
  there: readonly Placement[],
  change: readonly ZoneChange[],
  parts: readonly Part[],
): ReadyPlan {
  const plan: ReadyPlan = { placements: [], removals: [], short: [] };
  for (const { zone, massG } of change) {
    if (massG < 0) {
      const { removals, left } = takenOff(frame, there, zone, -massG);
      plan.removals.push(...removals);
      if (left >= NOTHING_G) plan.short.push({ zone, massG: -left });
    } else if (massG > 0) {
      const piece = nearestPiece(frame, zone, massG, parts, `s${plan.placements.length + 1}`);
      if (piece) plan.placements.push(piece);
      else plan.short.push({ zone, massG });
    }
  }
  return plan;
}

/** What pieces and removals come to, zone by zone. @example zoneChanges(frame, { placements, removals: [] }) // [{ zone: 'tip', massG: 2.12 }] */
export function zoneChanges(
  frame: Frame,
  { placements, removals }: { placements: readonly Placement[]; removals: readonly Removal[] },
): ZoneChange[] {
  const sums = new Map<ZoneName, number>();
  const add = (placement: Placement, sign: 1 | -1): void => {
    const zone = zoneOf(frame, placement);
    sums.set(zone, (sums.get(zone) ?? 0) + sign * placement.massG);
  };
  for (const placement of placements) add(placement, 1);
  for (const { of, left } of removals) {
    add(of, -1);
    if (left) add(left, 1);
  }
  return [...sums].flatMap(([zone, massG]) => (Math.abs(massG) < 1e-9 ? [] : [{ zone, massG }]));
}

/** A round of a programme: what it changed, and how it played. */
export interface PlayedRound {
  change: readonly ZoneChange[];
  strings?: StringStep | undefined;
  sessions: readonly Noted[];
}

/**
 * Rounds as the history of a programme: the first session of each stands with its change, the others with none.
 * @param onceMore the last is to be played once more before anything else is changed
 * @example playedOf([{ change: [], sessions: [a, b] }]) // [{ change: [], session: a }, { change: [], session: b }]
 */
export const playedOf = (rounds: readonly PlayedRound[], onceMore = false): Played[] => [
  ...rounds.flatMap(({ change, strings, sessions }): Played[] => {
    const changed = { change, ...(strings ? { strings } : {}) };
    return sessions.length === 0
      ? [changed]
      : sessions.map((session, i) => (i === 0 ? { ...changed, session } : { change: [], session }));
  }),
  ...(onceMore ? [{ change: [] }] : []),
];
