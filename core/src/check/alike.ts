import { stepDistance } from '../compare';
import { SPEC_KEYS, type AxisSpecs, type SpecKey } from '../mass';
import { sportData, type Sport } from '../sport';

/** Two frames of a set, and by what a hand tells them apart. */
export interface Apart {
  ids: [string, string];
  distanceSteps: number;
  /** The spec that differs most, in noticeable steps; undefined where both lack all. */
  most: SpecKey | undefined;
  steps: number;
}

/**
 * Frames of a set against one another, the pair that is furthest apart first. Players notice small differences between their frames (common practice), whatever
 * each is to the aim: two at opposite ends of a tolerance are both inside and not alike.
 * @param frames as measured, in one dress and about one axis
 * @example setApart('tennis', [a, b])[0].steps // 0.7
 */
export function setApart(sport: Sport, frames: readonly { id: string; specs: AxisSpecs }[]): Apart[] {
  const data = sportData(sport);
  return frames
    .flatMap((a, i) =>
      frames.slice(i + 1).map((b): Apart => {
        const { steps, distanceSteps } = stepDistance(a.specs, b.specs, data);
        const size = (key: SpecKey): number => Math.abs(steps[key] ?? -1);
        const [most] = SPEC_KEYS.toSorted((x, y) => size(y) - size(x));
        const known = most !== undefined && steps[most] !== undefined;
        return {
          ids: [a.id, b.id],
          distanceSteps,
          most: known ? most : undefined,
          steps: known ? size(most) : 0,
        };
      }),
    )
    .toSorted((a, b) => b.distanceSteps - a.distanceSteps);
}
