import type { SportData, ZoneName } from '../sport';
import type { Proposal, ZoneChange } from './programme';
import { sum } from './rules';

/** Less of a step than this share is none. */
const LEAST_PART = 0.25;

/**
 * A step within the room that its zones have: each takes what it still can; what is moved from one to another is moved only as far as the other has room. Where that
 * is hardly anything the programme ends, and says which zones are full.
 * @param on all that lies there already @param caps the most that a zone takes, g; the sport's own if left out
 * @example withinRoom(proposal, [{ zone: 'tip', massG: 5.5 }], tennis).change // 0.5 g onto the tip, which takes 6
 */
export function withinRoom(
  found: Omit<Proposal, 'specs'>,
  on: readonly ZoneChange[],
  { zones }: Pick<SportData, 'zones'>,
  caps: Partial<Record<ZoneName, number>> = {},
): Omit<Proposal, 'specs'> {
  const room = (zone: ZoneName): number => {
    const cap = caps[zone] ?? zones.find(({ name }) => name === zone)?.capG ?? 0;
    return Math.max(0, cap - sum(on, zone));
  };
  const parts = found.change.map(({ zone, massG }) => (massG > 0 ? Math.min(1, room(zone) / massG) : 1));
  const least = Math.min(1, ...parts);
  if (least === 1) return found;
  const moves = found.change.some(({ massG }) => massG < 0);
  const change = found.change.flatMap(({ zone, massG }, i): ZoneChange[] => {
    const part = moves ? least : (parts[i] ?? 1);
    return part < LEAST_PART ? [] : [{ zone, massG: part * massG }];
  });
  if (change.length > 0) return { ...found, change };
  const full = found.change.flatMap(({ zone }, i) => ((parts[i] ?? 1) < LEAST_PART ? [zone] : []));
  return { state: 'done', change: [], reason: 'no-room', full };
}
