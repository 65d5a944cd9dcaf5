import { asWritten, classesOver, juniorClass, targetOf, type Aim } from '../aim';
import { dressSums, noticeableStep } from '../compare';
import { brokenLimits, settleFrame, type BrokenLimit, type FrameShape } from '../frame';
import { SPEC_KEYS, requireSpecs, withAxis, type SpecKey, type Specs } from '../mass';
import { closestReach } from '../plan';
import type { KnownSpecs } from '../spec';
import { withOwn, type Dress, type OwnNumbers, type SportData } from '../sport';

export const GUARDS = [
  'over-ceiling',
  'junior-class',
  'sore-arm',
  'large-jump',
  'rule-limit',
  'out-of-reach',
] as const;
export type GuardCode = (typeof GUARDS)[number];
export const STRENGTHS = ['note', 'warning', 'strong'] as const;
export type Strength = (typeof STRENGTHS)[number];

/** Something that speaks against an aim; the fitter may go on. */
export interface Guard {
  code: GuardCode;
  strength: Strength;
  /** The spec that it is about, what the aim asks for, and where the guard stands. */
  spec?: SpecKey;
  value: number;
  limit: number;
  /** How many classes over a junior is, or how many noticeable steps it is over. */
  over?: number;
  rule?: BrokenLimit;
  /** A gentler aim, where one helps. */
  at?: Aim;
}

/** What of a player speaks against an aim. All of it is of the sport of the frame. */
export interface GuardedPlayer {
  age?: number | undefined;
  ceilingSwingWeight?: number | undefined;
  soreArm?: boolean | undefined;
}
export interface Guarded {
  shape: FrameShape;
  /** The frame as it is, in `dress`. */
  specs: Specs;
  dress: Dress;
  target: Aim;
  player: GuardedPlayer;
  /** What the shop works to otherwise than the sport ships. */
  own?: OwnNumbers | undefined;
}

/** More steps of swing weight than this at once are too many to take in (common practice). */
const LARGE_JUMP_STEPS = 2;
const SLACK = 1e-9;

/** An aim with other values, as a fitter writes them; what is not named stays. */
function gentler(aim: Aim, values: KnownSpecs, sport: SportData): Aim {
  const written = asWritten(values, sport);
  return Object.fromEntries(
    SPEC_KEYS.flatMap((key) => {
      const target = aim[key];
      return target ? [[key, { ...target, value: written[key] ?? target.value }]] : [];
    }),
  );
}

/**
 * What speaks against an aim for this frame and player, strongest first: over the player's ceiling; a class too heavy for a junior (one class is a warning, two
 * a strong one); more swing weight on a sore arm; more than two noticeable steps of swing weight at once; a frame over the rules' limits of size; an aim that
 * weight in the zones cannot reach within its tolerances. A spec that is free, or not aimed at, says nothing.
 * @returns guards with a gentler aim where one helps @throws Fault for impossible specs of the frame
 * Source: common practice; steps as the sport has them.
 * @example guardsOf({ shape, specs, dress: {}, target: { swingWeight: { value: 340, tolerance: 1 } }, player: { ceilingSwingWeight: 330 } })[0].code // 'over-ceiling'
 */
export function guardsOf({ shape, specs, dress, target, player, own: shop }: Guarded): Guard[] {
  const { sport: shipped, lengthCm } = settleFrame(shape);
  const sport = withOwn(shipped, shop);
  const own = requireSpecs(withAxis(specs, sport.axisCm), lengthCm);
  const asked = (key: SpecKey): number | undefined => targetOf(target, key)?.value;
  const swing = asked('swingWeight');
  const step = noticeableStep(sport.noticeable, 'swingWeight', own.swingWeight);
  const guards: Guard[] = [];
  const { ceilingSwingWeight: ceiling, age, soreArm } = player;

  if (swing !== undefined && ceiling !== undefined && swing > ceiling + SLACK) {
    guards.push({
      code: 'over-ceiling',
      strength: swing > ceiling + step ? 'strong' : 'warning',
      spec: 'swingWeight',
      value: swing,
      limit: ceiling,
      over: (swing - ceiling) / step,
      at: gentler(target, { swingWeight: ceiling }, sport),
    });
  }
  if (age !== undefined) {
    const onIt = dressSums(shape, dress).massG - dressSums(shape, sport.dress.bare).massG;
    const massG = asked('massG') ?? own.massG;
    const over = classesOver(sport.sport, age, massG - onIt);
    const fits = juniorClass(sport.sport, age);
    if (over > 0 && fits !== undefined) {
      guards.push({
        code: 'junior-class',
        strength: over > 1 ? 'strong' : 'warning',
        spec: 'massG',
        value: massG - onIt,
        limit: fits,
        over,
        ...(target.massG ? { at: gentler(target, { massG: fits + onIt }, sport) } : {}),
      });
    }
  }
  if (soreArm && swing !== undefined && swing > own.swingWeight + SLACK) {
    guards.push({
      code: 'sore-arm',
      strength: swing >= own.swingWeight + step ? 'strong' : 'warning',
      spec: 'swingWeight',
      value: swing,
      limit: own.swingWeight,
      at: gentler(target, { swingWeight: own.swingWeight }, sport),
    });
  }
  if (swing !== undefined) {
    const over = (swing - own.swingWeight) / step;
    if (Math.abs(over) > LARGE_JUMP_STEPS + SLACK) {
      guards.push({
        code: 'large-jump',
        strength: 'warning',
        spec: 'swingWeight',
        value: swing,
        limit: own.swingWeight + Math.sign(over) * LARGE_JUMP_STEPS * step,
        over: Math.abs(over),
        at: gentler(
          target,
          { swingWeight: own.swingWeight + Math.sign(over) * LARGE_JUMP_STEPS * step },
          sport,
        ),
      });
    }
  }
  for (const rule of brokenLimits(shape))
    guards.push({ code: 'rule-limit', strength: 'strong', value: rule.valueCm, limit: rule.mostCm, rule });

  const wanted = Object.fromEntries(
    SPEC_KEYS.flatMap((key) => (asked(key) === undefined ? [] : [[key, asked(key)]])),
  ) as KnownSpecs;
  const near = closestReach(shape, specs, wanted);
  const off = (key: SpecKey): number => {
    const to = near?.specs[key];
    const aim = target[key];
    return to === undefined || !aim || asked(key) === undefined
      ? 0
      : Math.abs(to - aim.value) / aim.tolerance;
  };
  const [worst] = SPEC_KEYS.toSorted((a, b) => off(b) - off(a));
  if (near && worst && off(worst) > 1 + SLACK) {
    guards.push({
      code: 'out-of-reach',
      strength: 'warning',
      spec: worst,
      value: asked(worst) ?? 0,
      limit: near.specs[worst] ?? 0,
      over: near.distanceSteps,
      at: gentler(target, near.specs, sport),
    });
  }
  const rank = ({ strength }: Guard): number => STRENGTHS.indexOf(strength);
  return guards.toSorted((a, b) => rank(b) - rank(a));
}

/** The strong guards that nobody has given a reason against: an aim is set only past none of these. @example unansweredGuards(guards, { 'over-ceiling': 'a trial' }) */
export const unansweredGuards = (
  guards: readonly Guard[],
  notes: Readonly<Partial<Record<string, string>>>,
): Guard[] => guards.filter(({ code, strength }) => strength === 'strong' && !notes[code]?.trim());
