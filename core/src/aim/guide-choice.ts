import { dataOf, sportData, type AnySport, type GuideChoice, type GuideName, type Sport } from '../sport';
import type { Bands } from './guides';
import type { Bother } from './complaints';
import { GROWN } from './juniors';

/** What of a player decides on a guide; what is not known decides nothing. */
export interface GuidedPlayer {
  age?: number | undefined;
  heightCm?: number | undefined;
  build?: 'slight' | 'medium' | 'strong' | undefined;
  /** 1 (new to it) to 7 (national and above). */
  level?: number | undefined;
  putsFirst?: 'control' | 'power' | 'comfort' | 'stability' | 'hand-speed' | 'reach' | undefined;
  bothers?: readonly Bother[] | undefined;
}
export const GUIDE_REASONS = [
  'small-child',
  'growing',
  'small',
  'new',
  'social',
  'competes',
  'strong',
  'slight',
  'wants-weight',
  'wants-quick',
  'tender-arm',
  'nothing-known',
] as const;
export type GuideReason = (typeof GUIDE_REASONS)[number];

/**
 * The guide that suits a player best, with the reasons, from age, size, level, strength, what comes first and what bothers (common practice): levels set the
 * class, build and wishes move it by one, a sore or tired arm takes one off. Nothing is proposed by what is not known.
 * @example proposeGuide('tennis', { age: 11 }).guide // 'junior-26'
 */
export function proposeGuide(
  sport: Sport,
  player: GuidedPlayer,
): { guide: GuideName; reasons: GuideReason[] } | undefined {
  const guides = Object.keys(sportData(sport).guides) as GuideName[];
  if (guides.length === 0) return undefined;
  const { age, heightCm, build, level, putsFirst, bothers = [] } = player;
  const reasons: GuideReason[] = [];
  const because = (reason: GuideReason): number => {
    reasons.push(reason);
    return 0;
  };
  const tender = bothers.includes('sore-arm') || bothers.includes('tired');
  const heavier = putsFirst === 'power' || putsFirst === 'stability' || bothers.includes('pushed-around');
  const quicker = putsFirst === 'hand-speed' || putsFirst === 'comfort' || bothers.includes('late');
  const small = heightCm !== undefined && heightCm < 160;

  // Where guides are classes of weight, lightest first.
  const { order, start, child, heaviestForAll, raisedFrom }: GuideChoice = sportData(sport).guideChoice ?? {
    order: guides,
  };
  if (
    child &&
    ((age !== undefined && age < child.belowAge) || (heightCm !== undefined && heightCm < child.belowCm))
  ) {
    because('small-child');
    return { guide: child.guide, reasons };
  }
  const last = order.length - 1;
  let at = start ?? Math.floor(last / 2);
  if (level !== undefined) {
    if (level <= 2) at += because('new');
    else if (level <= 4) at += because('social');
    else at += because('competes') + 1;
    if (raisedFrom !== undefined && level >= raisedFrom) at += 1;
  }
  if (age !== undefined && age < GROWN) {
    because('growing');
    at = Math.min(at, age < 14 ? 0 : level !== undefined && level >= 5 ? 2 : 1);
  }
  if (small || build === 'slight') at += because(small ? 'small' : 'slight') - 1;
  else if (build === 'strong') at += because('strong') + 1;
  if (tender) at += because('tender-arm') - 1;
  else if (heavier && !quicker) at += because('wants-weight') + (age !== undefined && age < GROWN ? 0 : 1);
  else if (quicker && !heavier) at += because('wants-quick') - 1;
  if (reasons.length === 0) because('nothing-known');
  // Without a sign of strength the heaviest class is proposed to nobody.
  const most = build === 'strong' || heaviestForAll ? last : Math.max(0, last - 1);
  const guide = order[Math.max(0, Math.min(most, at))];
  return guide && { guide, reasons };
}

/** What both schools of swing weight would aim at, kg·cm²; undefined where nothing is known to aim from. */
export interface SwingSchools {
  /** All you can carry: one noticeable step under the ceiling, or the upper end of the guide where none was found yet. */
  carry?: number;
  /** Never late: the lower end of the guide, the lightest that is still stable. */
  late?: number;
}
/**
 * The two schools of swing weight side by side (common practice).
 * @param bands of the player's guide, in the dress of the frame @param ceiling what the player is known to carry
 * @example swingSchools('tennis', { swingWeight: [308, 330] }, 332) // { carry: 323.7, late: 308 }
 */
export function swingSchools(sport: AnySport, bands: Bands, ceiling?: number): SwingSchools {
  const [from, to] = bands.swingWeight ?? [];
  const { swingWeightShare } = dataOf(sport).noticeable;
  const carry =
    ceiling !== undefined ? ceiling * (1 - swingWeightShare) : Number.isFinite(to) ? to : undefined;
  return {
    ...(carry === undefined ? {} : { carry }),
    ...(from !== undefined && Number.isFinite(from) ? { late: from } : {}),
  };
}

/** The middle of each band of a guide, or its closed end: what an aim from it begins with. */
export const guideMiddle = (bands: Bands): Partial<Record<keyof Bands, number>> =>
  Object.fromEntries(
    Object.entries(bands).flatMap(([key, [from, to]]) => {
      const ends = [from, to].filter(Number.isFinite);
      return ends.length === 0 ? [] : [[key, ends.reduce((sum, end) => sum + end, 0) / ends.length]];
    }),
  );
