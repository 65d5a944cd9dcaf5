import {
  partWeight,
  type PartUnit,
  SPECS,
  sportData,
  KG_PER_POUND,
  type Programme,
  type Noted,
  type Proposal,
  type Sport,
  type StepReason,
  type StringChange,
  type StringKind,
  type StringStep,
  type ZoneChange,
  capital,
} from '@kevro/core';
import { ZONE_NAMES } from './bench-words';

export const PROGRAMME_NAMES: Record<Programme, string> = {
  'strings-first': 'Strings first',
  'find-ceiling': 'Find the ceiling',
  'settle-face': 'Steady the face',
  'quiet-handle': 'Firm up the handle',
  'trim-evenly': 'Trim evenly',
  climb: 'Climb to a heavier frame',
  'after-sore-arm': 'Come back after a sore arm',
  'half-way': 'Go half-way, while growing',
  'hot-cold': 'Hot and cold days',
};
/** What each does, in a sentence. */
export const PROGRAMME_HINTS: Record<Programme, string> = {
  'strings-first': 'Tension, then the string itself, one change a session; weight stays as it is.',
  'find-ceiling': 'A little more at the tip each session until tired, then one step back.',
  'settle-face': `From the tip to the sides while it twists, then back to the ${SPECS.swingWeight.name} that it had.`,
  'quiet-handle': 'More in the handle until volleys and returns are firm. Leather does the same.',
  'trim-evenly': 'Too heavy: take 30 % off everywhere, keeping the feel.',
  climb: 'A little more everywhere after every two good sessions.',
  'after-sore-arm':
    'Lighter first, then half steps back, each after three good sessions. For when the arm is well again.',
  'half-way': 'Half of the way to another frame: head first, then handle. Look again when grown.',
  'hot-cold': 'Toward the hand on hot and fast days, toward the tip on cold and slow ones.',
};

/** @param unit what the shop says weights of parts in */
export const zoneChangeWords = (change: readonly ZoneChange[], unit: PartUnit = 'g'): string =>
  change
    .map(
      ({ zone, massG }) =>
        `${partWeight(Math.abs(massG), unit, 1, true)} ${massG < 0 ? 'off' : 'onto'} the ${ZONE_NAMES[zone].toLowerCase()}`,
    )
    .join(', ');

/** What a kind of string is called. */
export const STRING_KIND_NAMES: Record<StringKind, string> = {
  polyester: 'polyester',
  nylon: 'nylon',
  gut: 'natural gut',
};
const CHANGED_STRINGS: Record<StringChange, string> = {
  newer: 'new strings, the same again',
  tighter: 'tighter strings',
  looser: 'looser strings',
  softer: 'softer strings',
  thinner: 'a thinner string',
  thicker: 'a thicker string',
  opener: 'a more open pattern',
};
/** A change of strings. @example stringStepWords({ change: 'tighter', byKg: 1 }, 'kg') // 'tighter strings by 1 kg' */
export function stringStepWords({ change, byKg, to }: StringStep, unit: 'kg' | 'lb' = 'kg'): string {
  const by =
    byKg === undefined
      ? ''
      : ` by ${Number((unit === 'lb' ? byKg / KG_PER_POUND : byKg).toFixed(unit === 'lb' ? 0 : 2))} ${unit}`;
  return `${CHANGED_STRINGS[change]}${by}${to ? `: ${STRING_KIND_NAMES[to]}` : ''}`;
}

const WHY: Record<StepReason, string> = {
  'play-first': 'Play it and record how it felt. One change at a time.',
  sore: 'The arm is sore: the programme ends here. Less load, and rest. If pain persists, see a physician or physiotherapist.',
  tired: 'Tired with the last weight.',
  'tired-as-found':
    'Tired with the frame as it was: it is too heavy already. Trim it evenly, or begin lighter.',
  'once-more': 'Low on energy, nothing else: may be an off day. Play it again.',
  'energy-left': 'Energy left: the ceiling is higher.',
  twists: 'It twists off centre: from the tip to the sides.',
  steady: `No more twisting; ${SPECS.swingWeight.name} unchanged.`,
  'back-to-ceiling': `It twists no more: what the sides cost of the ${SPECS.swingWeight.name} comes back at the tip.`,
  'not-firm':
    'Volleys and returns are not firm yet. Leather in place of a synthetic grip does the same as weight in the handle.',
  firm: 'Volleys and returns are firm.',
  'still-heavy': 'Still too heavy: the same share off everywhere, so that the feel stays.',
  'nothing-left': 'Nothing is left to take off. A lighter frame would help.',
  carried: 'The last sessions went well with this weight.',
  'not-yet': 'Play the same until enough sessions in a row went well.',
  'good-again': 'It goes well.',
  'lighter-first': 'Lighter first: a share off everywhere, until the arm has had three good sessions.',
  'back-again': 'It is as heavy as it was, and the arm is fine. Leave it so.',
  'half-way-head': `Half of the way in ${SPECS.swingWeight.name} first, at the head.`,
  'half-way-handle': 'The head is half-way: now half of the way in weight, in the handle.',
  'half-way': 'It is half-way. Look again when the player has grown.',
  'for-the-day': 'For the day.',
  'as-the-day': 'It is as the day wants it.',
  'seven-steps': 'Seven changes are enough: leave it alone for some weeks, then look again.',
  'stays-tired':
    'Tired again and again with the same weight: this is enough for now. Try again in some weeks; if the arm stays tired, see a physician or physiotherapist.',
  'no-room':
    'There is no room for more there, or no part that goes there. Use the zone beside it, or another frame.',
  'too-tired': 'The last session was a tired one: nothing heavier now. Play it lighter, or rest first.',
  'dead-strings': 'Balls fly long, and the strings are due: new ones first.',
  'flies-long': 'Balls fly long: tighter holds them in.',
  'falls-short': 'Balls fall short: looser gives them length.',
  'too-far': 'That was too far: half of it back.',
  'arm-tires':
    'The arm tires: less shock from the strings. If it stays tired, play less, and see a physician or physiotherapist.',
  'no-bite': 'The ball gets less spin: a thinner string bites more.',
  'strings-suit': 'Balls land where they should. Leave the strings so.',
  'weight-next': 'Strings have done what they can. Weight is next: begin another programme, or aim anew.',
  'depth-not-said':
    'Nobody noted where balls landed, so there is nothing to go by. Begin again when somebody will.',
  'say-depth': 'Note where balls landed: that is what strings answer.',
};
/** Who needs to whip the frame around is slowed by weight at the sides. */
const WHIP = ' Who whips the frame through will feel it slower to turn.';

/** What is to be done where nothing is changed. */
const HEADINGS: Partial<Record<StepReason, string>> = {
  'play-first': 'Play it, and note how it felt',
  'once-more': 'Play it once more',
  'not-yet': 'Play the same again',
  sore: 'Stop: the arm is sore',
  'tired-as-found': 'Too heavy as it is',
  steady: 'The face is settled',
  firm: 'The handle is quiet',
  'nothing-left': 'Nothing is left to take off',
  'good-again': 'Light enough',
  'back-again': 'Back to what it was',
  'half-way': 'It is half-way',
  'as-the-day': 'Ready for the day',
  'seven-steps': 'Leave it alone for a while',
  'stays-tired': 'Enough for now',
  'no-room': 'No room for more',
  'too-tired': 'Nothing heavier now',
  'strings-suit': 'The strings suit',
  'weight-next': 'Strings have done their part',
  'depth-not-said': 'Nothing to go by',
  'say-depth': 'Play it, and note where balls landed',
};
type Said = Omit<Proposal, 'specs'> & {
  felt?: Noted | null | undefined;
  /** In which the tension of the strings is said. */
  tensionUnit?: 'kg' | 'lb' | undefined;
};
function doing({ change, strings, state, tensionUnit }: Said, unit?: PartUnit): string {
  const what = [
    change.length > 0 ? zoneChangeWords(change, unit) : '',
    strings ? stringStepWords(strings, tensionUnit) : '',
  ]
    .filter(Boolean)
    .join(', ');
  return what && (state === 'done' || state === 'stopped') ? `Go back: ${what}` : what;
}

/** What is to be done next, in a few words. @example stepHeading(proposal) // '2 g onto the tip' */
export function stepHeading(proposal: Said, unit?: PartUnit): string {
  const { reason, full = [] } = proposal;
  const where = full.length > 0 ? `: ${full.map((zone) => ZONE_NAMES[zone].toLowerCase()).join(', ')}` : '';
  return capital(doing(proposal, unit) || `${HEADINGS[reason] ?? 'Leave it so'}${where}`);
}

/** What a reason tells of the session itself: it is not said twice. */
const TELLS: Partial<Record<StepReason, keyof Noted>> = {
  sore: 'arm',
  'arm-tires': 'arm',
  tired: 'energyLeft',
  'tired-as-found': 'energyLeft',
  'too-tired': 'energyLeft',
  'stays-tired': 'energyLeft',
  'once-more': 'energyLeft',
  'energy-left': 'energyLeft',
  twists: 'twists',
  'not-firm': 'firmVolleys',
  'dead-strings': 'depth',
  'flies-long': 'depth',
  'falls-short': 'depth',
  'no-bite': 'spin',
};

const NOTHING_AMISS: Noted = { energyLeft: 'enough', arm: 'fine' };
/** What was amiss in a session, worst first. */
function amiss({ energyLeft, arm, late, twists, firmVolleys, depth, spin }: Noted): string {
  return [
    { fine: '', tired: 'the arm tired', sore: 'the arm sore' }[arm],
    { plenty: '', enough: '', little: 'tired', none: 'very tired' }[energyLeft],
    { no: '', sometimes: 'late now and then', often: 'often late' }[late ?? 'no'],
    { no: '', sometimes: 'twists now and then', often: 'often twists' }[twists ?? 'no'],
    firmVolleys === 'no' ? 'volleys unstable' : '',
    depth === 'long' || depth === 'short' ? `balls ${depth}` : '',
    spin === 'less' ? 'less spin' : '',
  ]
    .filter(Boolean)
    .join(', ');
}
/** What was felt in a session, worst first. @example feltWords({ energyLeft: 'little', late: 'often', arm: 'fine' }) // 'tired, often late' */
export const feltWords = (noted: Noted): string =>
  amiss(noted) || (noted.energyLeft === 'plenty' ? 'energy left, nothing amiss' : 'nothing amiss');

/** What was felt besides what the reason tells, as a sentence; empty where that is all. */
function feltBeside(reason: StepReason, noted: Noted): string {
  const told = TELLS[reason];
  const said = told ? amiss({ ...noted, [told]: NOTHING_AMISS[told] }) : feltWords(noted);
  return said && `${capital(said)}. `;
}

/** Why, with what was felt, without what is to be done. */
export function stepWhy(sport: Sport, { reason, ceiling, felt }: Said): string {
  const { decimals } = sportData(sport);
  const digits = decimals.swingWeight;
  const found = ceiling
    ? ` The last weight that was carried is this player’s ceiling: ${ceiling.swingWeight.toFixed(digits)} ±${(2 * ceiling.uncertainty).toFixed(digits === 0 ? 0 : 1)} kg·cm².`
    : '';
  const after = felt ? feltBeside(reason, felt) : '';
  return `${after}${WHY[reason]}${found}${reason === 'twists' ? WHIP : ''}`;
}

/** What a proposal says to the player and the fitter. @example stepSentence('tennis', proposal) // 'Energy left: the ceiling is higher. 2 g onto the tip.' */
export function stepSentence(sport: Sport, proposal: Said): string {
  const what = doing(proposal);
  return `${stepWhy(sport, proposal)}${what ? ` ${capital(what)}.` : ''}`;
}
