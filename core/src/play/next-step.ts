import { Fault } from '../fault';
import { predict, type AxisSpecs } from '../mass';
import { sportData } from '../sport';
import { isSore, isTired, type Noted } from './felt';
import {
  programmeTraits,
  type Played,
  type ProgrammeRequest,
  type Proposal,
  type ZoneChange,
} from './programme';
import { withinRoom } from './room';
import { lastStrings, loosened } from './strings-first';
import { RULES, evenlyOff, isChange, sum, undone, zonesOf } from './rules';
import type { Ground } from './ground';

/** Specs that differ by rounding are the same. */
const SAME = 1e-9;

/** What lay on in each session that did not tire. */
const carriedWith = (history: readonly Played[]): ZoneChange[][] =>
  history.flatMap(({ session }, i) =>
    session && !isTired(session) ? [history.slice(0, i + 1).flatMap(({ change }) => change)] : [],
  );

/**
 * Less load: the last change taken back where that loads nothing, or all that this programme put on; where it put on nothing, a share of what lies there.
 * @param loads whether a change makes the frame heavier or harder to swing
 */
function lighter(
  put: readonly ZoneChange[],
  last: Played,
  ground: Pick<Ground, 'on' | 'steps'>,
  loads: (change: readonly ZoneChange[]) => boolean,
): ZoneChange[] {
  const back = undone(last.change);
  if (isChange(last) && loads(last.change) && !loads(back)) return back;
  const own = zonesOf(put).flatMap((zone): ZoneChange[] => {
    const massG = sum(put, zone);
    return massG > 0 ? [{ zone, massG: -massG }] : [];
  });
  return own.length > 0 ? own : evenlyOff(ground);
}

/**
 * The next step of a programme, from all that was changed and felt so far. Its rules, in their order:
 * 1. a sore arm in any session stops the programme, with the last weight taken off again; nothing is ever added after it;
 * 2. while the last session was a tired one, nothing that loads more is proposed, in grams, in swing weight or in tension: not as a way back either;
 * 3. what was changed is played before anything else is changed;
 * 4. after seven changes it is left alone; what goes with the day is left out of that, and neither waits to be played;
 * 5. then the programme's own rule, see {@link PROGRAMMES}, within the room that the zones have.
 * Steps are the sport's own (`programmeSteps`).
 * @param request specs in g, cm, kg·cm² as they were before the first change
 * @throws Fault for impossible specs, or where more is taken off than is there
 * @example nextStep({ programme: 'find-ceiling', shape, specs, history: [{ change: [], session: { energyLeft: 'plenty', arm: 'fine' } }] }).change // [{ zone: 'tip', massG: 2 }]
 */
export function nextStep(request: ProgrammeRequest): Proposal {
  const { programme, shape, specs, history, there = [], towards, day = 'usual', caps } = request;
  const put = history.flatMap(({ change }) => change);
  const on = [...there, ...put];
  const steps = sportData(shape.sport).programmeSteps;
  const specsOn = (laid: readonly ZoneChange[]): AxisSpecs => {
    const additions = laid.map(({ zone, massG }) => ({ massG, at: { zone } }));
    const { massG, balanceCm, swingWeight, twistWeight, axisCm } = predict(shape, specs, additions).specs;
    return { massG, balanceCm, swingWeight, axisCm, ...(twistWeight === undefined ? {} : { twistWeight }) };
  };
  const specsWith = (more: readonly ZoneChange[]): AxisSpecs => specsOn([...put, ...more]);
  const now = specsWith([]);
  const loads = (change: readonly ZoneChange[]): boolean => {
    const after = specsWith(change);
    return after.massG > now.massG + SAME || after.swingWeight > now.swingWeight + SAME;
  };
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
    if (programmeTraits(programme).changesStrings) {
      const isLoosened = history.slice(sore + 1).some(({ strings }) => strings);
      const strings = isLoosened ? undefined : loosened(lastStrings(history.slice(0, sore + 1)));
      return propose({ state: 'stopped', change: [], ...(strings ? { strings } : {}), reason: 'sore' });
    }
    const change = already ? [] : lighter(put, history[sore] ?? last, { on, steps }, loads);
    return propose({ state: 'stopped', change, reason: 'sore' });
  }
  // These begin with a change, before anything was played.
  const { asksForDay, changesStrings, mostSteps } = programmeTraits(programme);
  const lightenFirst = programme === 'after-sore-arm' && there.length > 0 && !history.some(isChange);
  const atOnce = asksForDay || lightenFirst;
  if (!last?.session && !atOnce) return propose({ state: 'go-on', change: [], reason: 'play-first' });
  const felt: Noted = last?.session ?? { energyLeft: 'enough', arm: 'fine' };
  if (!asksForDay && !changesStrings && history.filter(isChange).length >= mostSteps && !isTired(felt))
    return propose({ state: 'done', change: [], reason: 'seven-steps' });
  const found = RULES[programme]({
    history,
    last: last ?? { change: [] },
    felt,
    on,
    there,
    towards,
    day,
    sport: shape.sport,
    bed: request.bed,
    happiest: programmeTraits(programme).goesByHappiest && request.happiest,
    steps,
    specsWith,
    start: specs,
    carried: Math.max(0, ...carriedWith(history).map((laid) => specsOn(laid).swingWeight)),
    loads,
    lighter: () => lighter(put, last ?? { change: [] }, { on, steps }, loads),
  });
  const lastFelt = history.findLast(({ session }) => session)?.session;
  // Whatever the rule says: who was tired is given nothing more, not on a hot or cold day either.
  if (lastFelt && isTired(lastFelt) && (loads(found.change) || found.strings?.change === 'tighter'))
    return propose({ state: 'done', change: [], reason: 'too-tired' });
  return propose(withinRoom(found, on, sportData(shape.sport), caps));
}
