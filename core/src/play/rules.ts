import { HALF_THE_WAY } from '../aim';
import { Fault } from '../fault';

import type { ZoneName } from '../sport';
import { isOnlyLittle, isSore, isTired, isTwisting } from './felt';
import type { Ground } from './ground';
import { stringsFirst } from './strings-first';
import {
  programmeTraits,
  type Played,
  type Programme,
  type Proposal,
  type StepReason,
  type ZoneChange,
} from './programme';

/** What trimming takes off everywhere. */
const TRIM_SHARE = 0.3;
export const sum = (changes: readonly ZoneChange[], zone: ZoneName): number =>
  changes.reduce((all, one) => all + (one.zone === zone ? one.massG : 0), 0);
export const undone = (change: readonly ZoneChange[]): ZoneChange[] =>
  change.map(({ zone, massG }) => ({ zone, massG: -massG }));
export const isChange = ({ change, strings }: Pick<Played, 'change' | 'strings'>): boolean =>
  strings !== undefined || change.some(({ massG }) => massG !== 0);

type Rule = (ground: Ground) => Omit<Proposal, 'specs'>;

const DONE: Omit<Proposal, 'specs' | 'reason'> = { state: 'done', change: [] };
export const zonesOf = (changes: readonly ZoneChange[]): ZoneName[] => [
  ...new Set(changes.map(({ zone }) => zone)),
];
/** The same share off everything that lies on. */
export const evenlyOff = ({ on, steps }: Pick<Ground, 'on' | 'steps'>): ZoneChange[] =>
  zonesOf(on).flatMap((zone): ZoneChange[] => {
    const there = sum(on, zone);
    return there > steps.tipG / 8 ? [{ zone, massG: -TRIM_SHARE * there }] : [];
  });
/** Grams in whole quarters of the least step. */
const inQuarters = (massG: number, { tipG }: Ground['steps']): number =>
  Math.round(massG / (tipG / 4)) * (tipG / 4);

/**
 * The change taken back, where that loads nothing, in grams or in swing weight; else only what of it comes off: what was lightened, or moved toward the hand, is not
 * made heavier for somebody who is tired.
 */
const takenBack = (one: Pick<Played, 'change'>, { loads }: Pick<Ground, 'loads'>): ZoneChange[] => {
  const back = undone(one.change);
  return loads(back) ? back.filter(({ massG }) => massG < 0) : back;
};

/**
 * How well a ceiling is known, in steps: twice that holds in 90 to 98 of 100 searches of simulated players whose answers are noisy by a third to 0.8 of a step (tests).
 */
const CEILING_SHARE = 0.55;
/** The last step back, with the ceiling that it leaves. */
const oneBack = (ground: Ground): Omit<Proposal, 'specs'> => {
  const { history, specsWith } = ground;
  const change = takenBack(history.findLast(isChange) ?? { change: [] }, ground);
  if (change.length === 0) return { ...DONE, reason: 'tired-as-found' };
  const [now, back] = [specsWith([]).swingWeight, specsWith(change).swingWeight];
  return {
    state: 'done',
    change,
    reason: 'tired',
    ceiling: { swingWeight: back, uncertainty: CEILING_SHARE * Math.abs(now - back) },
  };
};

/** How many of the last sessions in a row were neither tired nor sore since the last change. */
function goodInARow({ history }: Ground): number {
  let good = 0;
  for (const one of history.toReversed()) {
    if (!one.session || isTired(one.session) || isSore(one.session)) break;
    good++;
    if (isChange(one)) break;
  }
  return good;
}

/** How many of the last sessions since the last change were tired ones in a row, and how many there were at all. */
function sinceChange({ history }: Ground): { tired: number; sessions: number } {
  const since = history.slice(history.findLastIndex(isChange) + 1);
  const sessions = since.flatMap(({ session }) => session ?? []);
  const lastGood = sessions.findLastIndex((session) => !isTired(session));
  return { tired: sessions.length - 1 - lastGood, sessions: sessions.length };
}
/** So many tired sessions in a row with the same weight, or so many in which it did not go on, are an answer. */
const STAYS_TIRED = 3;
const NO_NEARER = 8;

/** A heavier step once enough sessions in a row were good; back where the last one was too much. */
const carefully =
  (sessions: number, share: number, when: StepReason): Rule =>
  (ground) => {
    const { felt, last, steps, loads } = ground;
    const since = sinceChange(ground);
    if (isTired(felt)) {
      if (isChange(last) && loads(last.change)) {
        const change = takenBack(last, ground);
        if (change.length > 0) return { state: 'go-on', change, reason: 'tired' };
      }
      return since.tired >= STAYS_TIRED || since.sessions >= NO_NEARER
        ? { state: 'done', change: ground.lighter(), reason: 'stays-tired' }
        : { state: 'go-on', change: [], reason: 'not-yet' };
    }
    if (goodInARow(ground) < sessions) {
      return since.sessions >= NO_NEARER
        ? { ...DONE, reason: 'stays-tired' }
        : { state: 'go-on', change: [], reason: 'not-yet' };
    }
    const massG = share * sizeOfStep(ground) * steps.tipG;
    const change: ZoneChange[] = [
      { zone: 'tip', massG },
      { zone: 'handle', massG },
    ];
    return { state: 'go-on', change, reason: when };
  };

/** Zones of the hand, and those of the head from the tip down: where weight comes off first. */
const IN_HAND: readonly ZoneName[] = ['handle', 'butt', 'handleTop'];
const ON_HEAD: readonly ZoneName[] = [
  'tip',
  'slotTip',
  'shoulders',
  'sides',
  'slotSides',
  'lowerHoop',
  'slotHeart',
  'throat',
];

/** So much off the head that the swing weight falls by this, as far as the zone next to the tip has it; undefined where nothing lies there. */
function offHead(
  on: readonly ZoneChange[],
  swingWeight: number,
  specsWith: Ground['specsWith'],
): ZoneChange | undefined {
  const zone = ON_HEAD.find((one) => sum(on, one) > 0.05);
  if (!zone) return undefined;
  const there = sum(on, zone);
  const perGram = specsWith([]).swingWeight - specsWith([{ zone, massG: -there }]).swingWeight;
  return { zone, massG: -Math.min(there, (swingWeight * there) / perGram) };
}

/** A first step is never less than this share of the usual one, nor more than this many times it. */
const FIRST = { least: 0.5, most: 2 };
/**
 * How large a step at the tip is, in usual ones: the first goes half of the way to where players alike were happiest, within bounds; all others are usual ones.
 */
function sizeOfStep({ history, happiest, specsWith, steps }: Ground): number {
  if (!happiest || history.some(isChange)) return 1;
  const now = specsWith([]).swingWeight;
  const usual = specsWith([{ zone: 'tip', massG: steps.tipG }]).swingWeight - now;
  const half = (HALF_THE_WAY * ((happiest.from + happiest.to) / 2 - now)) / usual;
  return Math.min(FIRST.most, Math.max(FIRST.least, inQuarters(half * steps.tipG, steps) / steps.tipG));
}

export const RULES: Record<Programme, Rule> = {
  'strings-first': stringsFirst,
  // Weight at the tip until the player is tired, then one step back: that is the ceiling.
  'find-ceiling': (ground) => {
    const { felt, last, steps, history } = ground;
    // Little energy and nothing else may be the day: the same weight is played once more.
    if (isOnlyLittle(felt) && (isChange(last) || history.length === 1))
      return { state: 'go-on', change: [], reason: 'once-more' };
    if (isTired(felt))
      return history.some(isChange)
        ? oneBack(ground)
        : { state: 'done', change: [], reason: 'tired-as-found' };
    const massG = sizeOfStep(ground) * steps.tipG;
    return { state: 'go-on', change: [{ zone: 'tip', massG }], reason: 'energy-left' };
  },
  // From the tip to the sides while it twists; then what that took of the swing weight comes back at the tip.
  'settle-face': (ground) => {
    const { felt, last, on, steps, specsWith, carried } = ground;
    if (isTired(felt))
      return isChange(last)
        ? { state: 'done', change: takenBack(last, ground), reason: 'tired' }
        : { state: 'done', change: [], reason: 'tired-as-found' };
    if (isTwisting(felt)) {
      // What the tip does not have is put on anew: the sides are what it is about.
      const from = Math.min(steps.pairG, Math.max(0, sum(on, 'tip')));
      const change: ZoneChange[] = [
        ...(from > 0 ? [{ zone: 'tip' as const, massG: -from }] : []),
        { zone: 'sides', massG: steps.pairG },
      ];
      return { state: 'go-on', change, reason: 'twists' };
    }
    const now = specsWith([]).swingWeight;
    const oneGram = specsWith([{ zone: 'tip', massG: 1 }]).swingWeight - now;
    const missing = (carried - now) / oneGram;
    if (missing < steps.tipG / 4) return { state: 'done', change: [], reason: 'steady' };
    const massG = inQuarters(missing, steps);
    return { state: 'go-on', change: [{ zone: 'tip', massG }], reason: 'back-to-ceiling' };
  },
  'quiet-handle': (ground) => {
    const { felt, last, steps } = ground;
    if (isTired(felt))
      return isChange(last)
        ? { state: 'done', change: takenBack(last, ground), reason: 'tired' }
        : { ...DONE, reason: 'tired-as-found' };
    if (felt.firmVolleys === 'yes') return { ...DONE, reason: 'firm' };
    return { state: 'go-on', change: [{ zone: 'handle', massG: steps.handleG }], reason: 'not-firm' };
  },
  'trim-evenly': (ground) => {
    if (!isTired(ground.felt)) return { state: 'done', change: [], reason: 'good-again' };
    const change = evenlyOff(ground);
    return change.length > 0
      ? { state: 'go-on', change, reason: 'still-heavy' }
      : { state: 'done', change: [], reason: 'nothing-left' };
  },
  climb: carefully(programmeTraits('climb').sessionsBetween, 1, 'carried'),
  // Lighter first; then in half steps, each after three good sessions, back to what it was.
  'after-sore-arm': (ground) => {
    const { history, on, there, steps } = ground;
    const off = evenlyOff(ground);
    if (!history.some(isChange) && off.length > 0)
      return { state: 'go-on', change: off, reason: 'lighter-first' };
    const step = carefully(programmeTraits('after-sore-arm').sessionsBetween, 0.5, 'good-again')(ground);
    if (step.reason !== 'good-again' || there.length === 0) return step;
    const change = zonesOf(there).flatMap((zone): ZoneChange[] => {
      const missing = sum(there, zone) - sum(on, zone);
      return missing > steps.tipG / 16 ? [{ zone, massG: Math.min(missing, 0.5 * steps.tipG) }] : [];
    });
    return change.length > 0 ? { ...step, change } : { ...DONE, reason: 'back-again' };
  },
  // Half of the way to another frame: the head first for swing weight, then the handle for weight (common practice); look again when the player has grown.
  'half-way': (ground) => {
    const { felt, last, on, steps, specsWith, towards, start } = ground;
    if (isTired(felt))
      return isChange(last)
        ? { state: 'done', change: takenBack(last, ground), reason: 'tired' }
        : { ...DONE, reason: 'tired-as-found' };
    if (!towards) throw new Fault({ code: 'nothing-stated', path: 'towards' });
    const goal = (key: 'massG' | 'swingWeight'): number =>
      start[key] + HALF_THE_WAY * (towards[key] - start[key]);
    const now = specsWith([]);
    const oneGram = specsWith([{ zone: 'tip', massG: 1 }]).swingWeight - now.swingWeight;
    const atTip = inQuarters((goal('swingWeight') - now.swingWeight) / oneGram, steps);
    if (atTip > 0)
      return { state: 'go-on', change: [{ zone: 'tip', massG: atTip }], reason: 'half-way-head' };
    if (atTip < 0) {
      const change = offHead(on, now.swingWeight - goal('swingWeight'), specsWith);
      if (change) return { state: 'go-on', change: [change], reason: 'half-way-head' };
    }
    const inHandle = inQuarters(goal('massG') - now.massG, steps);
    if (inHandle > 0)
      return { state: 'go-on', change: [{ zone: 'handle', massG: inHandle }], reason: 'half-way-handle' };
    if (inHandle < 0) {
      const zone = IN_HAND.find((one) => sum(on, one) > steps.tipG / 4);
      if (zone)
        return {
          state: 'go-on',
          change: [{ zone, massG: Math.max(inHandle, -sum(on, zone)) }],
          reason: 'half-way-handle',
        };
    }
    // A lighter frame than half-way cannot be made of one that has nothing to take off.
    return atTip < 0 || inHandle < 0 ? { ...DONE, reason: 'nothing-left' } : { ...DONE, reason: 'half-way' };
  },
  // Hot and fast: toward the hand, for control. Cold and slow: toward the tip, for power. On a usual day as it was (common practice).
  'hot-cold': ({ history, there, steps, day }) => {
    const moved = history.flatMap(({ change }) => change);
    const from = day === 'hot-fast' ? 'tip' : 'handle';
    const to = day === 'hot-fast' ? 'handle' : 'tip';
    const wanted = new Map<ZoneName, number>(
      day === 'usual'
        ? []
        : [
            [to, steps.tipG],
            [from, -Math.min(steps.tipG, sum(there, from))],
          ],
    );
    const change = (['tip', 'handle'] as const).flatMap((zone): ZoneChange[] => {
      const massG = (wanted.get(zone) ?? 0) - sum(moved, zone);
      // What pieces come to is never the step to the last hundredth.
      return Math.abs(massG) > steps.tipG / 4 ? [{ zone, massG }] : [];
    });
    return change.length > 0
      ? { state: 'go-on', change, reason: 'for-the-day' }
      : { ...DONE, reason: 'as-the-day' };
  },
};
