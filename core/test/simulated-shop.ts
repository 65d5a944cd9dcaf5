import { seededNormals, type Noted, type OfPlayer, type SessionPlayed } from '../src';

/** A shop whose players play several frames, and answer as they feel, within what such answers allow. */
export interface SimulatedShop {
  players: number;
  frames: number;
  sessions: number;
  /** How far above the middle of their frames players of a kind are happiest, in steps of swing weight. */
  off: (kind: number) => number;
  /** How much that differs between players of a kind. */
  apart?: number;
  kinds?: number;
  /** How much frames feel better or worse whatever they measure, and how sessions differ. */
  feel?: number;
  day?: number;
  /** How much the note falls at one step from the happiest. */
  fall?: number;
}

/** 2.5 % of 320 kg·cm², 3 g, 0.3 cm: what a hand notices in tennis. */
const STEPS = { swingWeight: 8, massG: 3, balanceCm: 0.3 };

/** An answer as a feeling leads to it, with a will of its own. */
function answered(feels: number, normal: () => number): Noted {
  const graded = <T>(bad: T, middle: T, good: T): T => {
    const felt = feels + 0.35 * normal();
    return felt > 0.33 ? good : felt < -0.33 ? bad : middle;
  };
  return {
    energyLeft: graded('none', 'enough', 'plenty'),
    late: graded('often', 'sometimes', 'no'),
    twists: graded('often', 'sometimes', 'no'),
    arm: graded('tired', 'tired', 'fine'),
    spin: graded('less', 'same', 'more'),
    serve: graded('less', 'same', 'more'),
  };
}

/** @example simulatedShop(1, { players: 40, frames: 4, sessions: 3, off: () => 0.5 }) */
export function simulatedShop(
  seed: number,
  shop: SimulatedShop,
): { players: OfPlayer[]; happiest: number[] } {
  const normal = seededNormals(seed);
  const { kinds = 1, feel = 0.2, day = 0.25, fall = 0.15, apart = 0.3 } = shop;
  const happiest: number[] = [];
  const players = Array.from({ length: shop.players }, (_, i): OfPlayer => {
    const kind = i % kinds;
    const own = {
      massG: 320 + 8 * normal(),
      balanceCm: 32.5 + 0.5 * normal(),
      swingWeight: 318 + 8 * normal(),
    };
    const best = shop.off(kind) + apart * normal();
    const level = 0.3 + 0.2 * normal();
    const played: SessionPlayed[] = [];
    const offs: number[] = [];
    for (let frame = 0; frame < shop.frames; frame++) {
      const off = normal();
      offs.push(off);
      const specs = {
        swingWeight: own.swingWeight + STEPS.swingWeight * off,
        // What swings heavier usually weighs more.
        massG: own.massG + STEPS.massG * (0.6 * off + 0.8 * normal()),
        balanceCm: own.balanceCm + STEPS.balanceCm * normal(),
      };
      const feels = level - fall * ((off - best) ** 2 - best ** 2) + feel * normal();
      for (let n = 0; n < shop.sessions; n++)
        played.push({ session: answered(feels + day * normal(), normal), specs });
    }
    happiest.push(own.swingWeight + STEPS.swingWeight * best);
    return { kind: `kind ${kind}`, played };
  });
  return { players, happiest };
}
