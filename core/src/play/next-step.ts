import { Fault } from '../fault';
import type { FrameShape } from '../frame';
import { predict, type AxisSpecs, type Specs } from '../mass';
import { sportData, type ZoneName } from '../sport';
import { isOnlyLittle, isSore, isTired, isTwisting, type Day, type Felt } from './felt';

/** Programmes: one change at a time, a session after each. */
export const PROGRAMMES = [
  'find-ceiling',
  'settle-face',
  'quiet-handle',
  'trim-evenly',
  'climb',
  'after-sore-arm',
  'half-way',
  'hot-cold',
] as const;
export type Programme = (typeof PROGRAMMES)[number];

/** Weight put on a zone, both its sides together; less than zero is taken off. */
export interface ZoneChange {
  zone: ZoneName;
  massG: number;
}
/** One change, and how it played; without a session it was not played yet. */
export interface Played {
  change: readonly ZoneChange[];
  session?: Felt | undefined;
}

export interface ProgrammeRequest {
  programme: Programme;
  shape: FrameShape;
  /** The frame before the first change of the programme. */
  specs: Specs;
  /** In the order in which it was played; the first change may be nothing, for the frame as it was. */
  history: readonly Played[];
  /** What lies on the frame already, in the specs: nothing if left out. */
  there?: readonly ZoneChange[] | undefined;
  /** What `half-way` goes half the way toward. */
  towards?: { massG: number; swingWeight: number } | undefined;
  /** What `hot-cold` makes it ready for; a usual day if left out. */
  day?: Day | undefined;
}

/** Why a step is proposed, or why there is none. */
export const STEP_REASONS = [
  'play-first',
  'sore',
  'tired',
  'tired-as-found',
  'once-more',
  'energy-left',
  'twists',
  'steady',
  'back-to-ceiling',
  'not-firm',
  'firm',
  'still-heavy',
  'nothing-left',
  'carried',
  'not-yet',
  'good-again',
  'lighter-first',
  'back-again',
  'half-way-head',
  'half-way-handle',
  'half-way',
  'for-the-day',
  'as-the-day',
  'seven-steps',
] as const;
export type StepReason = (typeof STEP_REASONS)[number];

export interface Proposal {
  /** There is a next step; the programme has found what it looked for; or it was stopped for the player's sake. */
  state: 'go-on' | 'done' | 'stopped';
  /** What to change next; nothing where the same is to be played (once more), or nothing is left to do. */
  change: ZoneChange[];
  /** The frame after it. */
  specs: AxisSpecs;
  /** The swing weight that the player carries, with its standard uncertainty: half a step, so that twice that, a whole one, holds in nine of ten noisy searches (tested). */
  ceiling?: { swingWeight: number; uncertainty: number };
  reason: StepReason;
}

/** After so many steps the hand has got used to changes: leave it alone for a while (common practice). */
export const MOST_STEPS = 7;
/** Sessions in a row that must be good before a heavier step. */
const GOOD_BEFORE = { climb: 2, 'after-sore-arm': 3 } as const;
/** What trimming takes off everywhere. */
const TRIM_SHARE = 0.3;
/** A growing player goes half of the way (common practice). */
const HALF = 0.5;

const sum = (changes: readonly ZoneChange[], zone: ZoneName): number =>
  changes.reduce((all, one) => all + (one.zone === zone ? one.massG : 0), 0);
const undone = (change: readonly ZoneChange[]): ZoneChange[] =>
  change.map(({ zone, massG }) => ({ zone, massG: -massG }));
const isChange = ({ change }: Played): boolean => change.some(({ massG }) => massG !== 0);
const addsLoad = ({ change }: Played): boolean => change.reduce((all, { massG }) => all + massG, 0) > 0;

/** What the rules of a programme look at. */
interface Ground {
  history: readonly Played[];
  last: Played;
  felt: Felt;
  /** All that lies on by now, what was there before the programme too. */
  on: readonly ZoneChange[];
  there: readonly ZoneChange[];
  towards: ProgrammeRequest['towards'];
  day: Day;
  steps: { tipG: number; pairG: number; handleG: number };
  specsWith: (more: readonly ZoneChange[]) => AxisSpecs;
  /** Before the first change. */
  start: Specs;
  /** The highest swing weight that was carried without getting tired. */
  carried: number;
}
type Rule = (ground: Ground) => Omit<Proposal, 'specs'>;

const DONE: Omit<Proposal, 'specs' | 'reason'> = { state: 'done', change: [] };
const zonesOf = (changes: readonly ZoneChange[]): ZoneName[] => [...new Set(changes.map(({ zone }) => zone))];
/** The same share off everything that lies on. */
const evenlyOff = ({ on, steps }: Pick<Ground, 'on' | 'steps'>): ZoneChange[] =>
  zonesOf(on).flatMap((zone): ZoneChange[] => {
    const there = sum(on, zone);
    return there > steps.tipG / 8 ? [{ zone, massG: -TRIM_SHARE * there }] : [];
  });
/** Grams in whole quarters of the least step. */
const inQuarters = (massG: number, { tipG }: Ground['steps']): number =>
  Math.round(massG / (tipG / 4)) * (tipG / 4);

/** The last step back, with the ceiling that it leaves: half the step is how well it is known. */
const oneBack = ({ history, specsWith }: Ground): Omit<Proposal, 'specs'> => {
  const change = undone(history.findLast(isChange)?.change ?? []);
  const [now, back] = [specsWith([]).swingWeight, specsWith(change).swingWeight];
  return {
    state: 'done',
    change,
    reason: 'tired',
    ceiling: { swingWeight: back, uncertainty: Math.abs(now - back) / 2 },
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

/** A heavier step once enough sessions in a row were good; back where the last one was too much. */
const carefully =
  (sessions: number, share: number, when: StepReason): Rule =>
  (ground) => {
    const { felt, last, steps } = ground;
    if (isTired(felt)) {
      return isChange(last) && addsLoad(last)
        ? { state: 'go-on', change: undone(last.change), reason: 'tired' }
        : { state: 'go-on', change: [], reason: 'not-yet' };
    }
    if (goodInARow(ground) < sessions) return { state: 'go-on', change: [], reason: 'not-yet' };
    const change: ZoneChange[] = [
      { zone: 'tip', massG: share * steps.tipG },
      { zone: 'handle', massG: share * steps.tipG },
    ];
    return { state: 'go-on', change, reason: when };
  };

const RULES: Record<Programme, Rule> = {
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
    return { state: 'go-on', change: [{ zone: 'tip', massG: steps.tipG }], reason: 'energy-left' };
  },
  // From the tip to the sides while it twists; then what that took of the swing weight comes back at the tip.
  'settle-face': (ground) => {
    const { felt, last, on, steps, specsWith, carried } = ground;
    if (isTired(felt))
      return isChange(last)
        ? { state: 'done', change: undone(last.change), reason: 'tired' }
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
  'quiet-handle': ({ felt, last, steps }) => {
    if (isTired(felt) && isChange(last))
      return { state: 'done', change: undone(last.change), reason: 'tired' };
    if (felt.firmVolleys === 'yes') return { state: 'done', change: [], reason: 'firm' };
    return { state: 'go-on', change: [{ zone: 'handle', massG: steps.handleG }], reason: 'not-firm' };
  },
  'trim-evenly': (ground) => {
    if (!isTired(ground.felt)) return { state: 'done', change: [], reason: 'good-again' };
    const change = evenlyOff(ground);
    return change.length > 0
      ? { state: 'go-on', change, reason: 'still-heavy' }
      : { state: 'done', change: [], reason: 'nothing-left' };
  },
  climb: carefully(GOOD_BEFORE.climb, 1, 'carried'),
  // Lighter first; then in half steps, each after three good sessions, back to what it was.
  'after-sore-arm': (ground) => {
    const { history, on, there, steps } = ground;
    const off = evenlyOff(ground);
    if (!history.some(isChange) && off.length > 0)
      return { state: 'go-on', change: off, reason: 'lighter-first' };
    const step = carefully(GOOD_BEFORE['after-sore-arm'], 0.5, 'good-again')(ground);
    if (step.reason !== 'good-again' || there.length === 0) return step;
    const change = zonesOf(there).flatMap((zone): ZoneChange[] => {
      const missing = sum(there, zone) - sum(on, zone);
      return missing > steps.tipG / 16 ? [{ zone, massG: Math.min(missing, 0.5 * steps.tipG) }] : [];
    });
    return change.length > 0 ? { ...step, change } : { ...DONE, reason: 'back-again' };
  },
  // Half of the way to a heavier frame: the head first for swing weight, then the handle for weight (common practice); look again when the player has grown.
  'half-way': ({ felt, last, steps, specsWith, towards, start }) => {
    if (isTired(felt))
      return isChange(last)
        ? { state: 'done', change: undone(last.change), reason: 'tired' }
        : { ...DONE, reason: 'tired-as-found' };
    if (!towards) throw new Fault({ code: 'nothing-stated', path: 'towards' });
    const goal = (key: 'massG' | 'swingWeight'): number => start[key] + HALF * (towards[key] - start[key]);
    const now = specsWith([]);
    const oneGram = specsWith([{ zone: 'tip', massG: 1 }]).swingWeight - now.swingWeight;
    const atTip = inQuarters((goal('swingWeight') - now.swingWeight) / oneGram, steps);
    if (atTip > 0)
      return { state: 'go-on', change: [{ zone: 'tip', massG: atTip }], reason: 'half-way-head' };
    const inHandle = inQuarters(goal('massG') - now.massG, steps);
    if (inHandle > 0)
      return { state: 'go-on', change: [{ zone: 'handle', massG: inHandle }], reason: 'half-way-handle' };
    return { ...DONE, reason: 'half-way' };
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

/** What lay on in each session that did not tire. */
const carriedWith = (history: readonly Played[]): ZoneChange[][] =>
  history.flatMap(({ session }, i) =>
    session && !isTired(session) ? [history.slice(0, i + 1).flatMap(({ change }) => change)] : [],
  );

/** Less load: the last weight comes off, or all that this programme put on; where it put on nothing, a share of what lies there. */
function lighter(
  put: readonly ZoneChange[],
  last: Played,
  ground: Pick<Ground, 'on' | 'steps'>,
): ZoneChange[] {
  if (isChange(last) && addsLoad(last)) return undone(last.change);
  const own = zonesOf(put).flatMap((zone): ZoneChange[] => {
    const massG = sum(put, zone);
    return massG > 0 ? [{ zone, massG: -massG }] : [];
  });
  return own.length > 0 ? own : evenlyOff(ground);
}

/**
 * The next step of a programme, from all that was changed and felt so far. Its rules, in their order:
 * 1. a sore arm in any session stops the programme, with the last weight taken off again; nothing is ever added after it;
 * 2. what was changed is played before anything else is changed;
 * 3. after seven changes it is left alone; what goes with the day is left out of that, and neither waits to be played;
 * 4. then the programme's own rule: see {@link PROGRAMMES}.
 * Steps are the sport's own (`programmeSteps`).
 * @param request specs in g, cm, kg·cm² as they were before the first change
 * @throws Fault for impossible specs, or where more is taken off than is there
 * @example nextStep({ programme: 'find-ceiling', shape, specs, history: [{ change: [], session: { energyLeft: 'plenty', arm: 'fine' } }] }).change // [{ zone: 'tip', massG: 2 }]
 */
export function nextStep(request: ProgrammeRequest): Proposal {
  const { programme, shape, specs, history, there = [], towards, day = 'usual' } = request;
  const put = history.flatMap(({ change }) => change);
  const on = [...there, ...put];
  const steps = sportData(shape.sport).programmeSteps;
  const specsOn = (laid: readonly ZoneChange[]): AxisSpecs => {
    const additions = laid.map(({ zone, massG }) => ({ massG, at: { zone } }));
    const { massG, balanceCm, swingWeight, twistWeight, axisCm } = predict(shape, specs, additions).specs;
    return { massG, balanceCm, swingWeight, axisCm, ...(twistWeight === undefined ? {} : { twistWeight }) };
  };
  const specsWith = (more: readonly ZoneChange[]): AxisSpecs => specsOn([...put, ...more]);
  const propose = (found: Omit<Proposal, 'specs'>): Proposal => ({
    ...found,
    specs: specsWith(found.change),
  });
  const known = sportData(shape.sport).zones.map(({ name }) => name);
  const strange = put.findIndex(({ zone }) => !known.includes(zone));
  if (strange >= 0) throw new Fault({ code: 'spot-off-frame', path: 'history' });

  const last = history.at(-1);
  const sore = history.findIndex(({ session }) => session && isSore(session));
  if (last && sore >= 0) {
    // Said once: what was taken off since is not taken off again.
    const since = history.slice(sore + 1).flatMap(({ change }) => change);
    const already = since.some(({ massG }) => massG < 0);
    const change = already ? [] : lighter(put, history[sore] ?? last, { on, steps });
    return propose({ state: 'stopped', change, reason: 'sore' });
  }
  // These begin with a change, before anything was played.
  const lightenFirst = programme === 'after-sore-arm' && there.length > 0 && !history.some(isChange);
  const atOnce = programme === 'hot-cold' || lightenFirst;
  if (!last?.session && !atOnce) return propose({ state: 'go-on', change: [], reason: 'play-first' });
  const felt = last?.session ?? { energyLeft: 'enough', arm: 'fine' };
  if (programme !== 'hot-cold' && history.filter(isChange).length >= MOST_STEPS && !isTired(felt))
    return propose({ state: 'done', change: [], reason: 'seven-steps' });
  return propose(
    RULES[programme]({
      history,
      last: last ?? { change: [] },
      felt,
      on,
      there,
      towards,
      day,
      steps,
      specsWith,
      start: specs,
      carried: Math.max(0, ...carriedWith(history).map((laid) => specsOn(laid).swingWeight)),
    }),
  );
}
