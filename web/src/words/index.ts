import {
  type Priority,
  type AnySpecKey,
  SPECS,
  byAnySpec,
  capital,
  specName,
  type BaseGrip,
  type Caution,
  type Closing,
  type Conditions,
  type Confidence,
  type DerivedKey,
  type GuideName,
  type GuideReason,
  type HoopPlace,
  type Lapse,
  type Mark,
  type Measure,
  type NextStep,
  type NumberKey,
  type PartKind,
  type Purpose,
  type RoundReason,
  type School,
  type Sport,
  type Station,
  type StationState,
  type StepKind,
  type StrokeName,
} from '@kevro/core';
import { partUnit } from './part-weight';
import type { AimRecord, SourceKind } from '@kevro/contract';

export { STEP_TITLES, ZONE_NAMES } from '@kevro/contract';

/** The words of the interface, in one place. */
export const STATION_NAMES: Record<Station, string> = {
  measure: 'Measure',
  compare: 'Compare',
  aim: 'Aim',
  plan: 'Plan',
  build: 'Build',
  check: 'Check',
  play: 'Play',
};

export const SPEC_NAMES = byAnySpec((key): string => capital(specName(key)));

/** What brings a spec to its target. @example toTarget('massG', -11.5, '11.5 g') // 'add 11.5 g' */
export const toTarget = (key: AnySpecKey, over: number, amount: string): string => {
  if (key === 'balanceCm') return `${amount} to the ${over < 0 ? 'tip' : 'hand'}`;
  return over < 0 ? `add ${amount}` : `take ${amount} off`;
};

/** A spec with its unit, for the axis of a chart. @example specAxis('massG') // 'weight, g' */
export const specAxis = (key: AnySpecKey): string =>
  [specName(key), SPECS[key].unit].filter(Boolean).join(', ');

export const DERIVED_NAMES: Record<DerivedKey, string> = {
  recoilWeight: 'Recoil weight',
  pointsHeadLight: 'Points head-light',
  naturalSwing: 'Natural swing',
  percussionCm: 'Centre of percussion',
};
export const NUMBER_NAMES: Record<NumberKey, string> = { ...SPEC_NAMES, ...DERIVED_NAMES };
/** What a derived number tells, where there is room to say it. */
export const DERIVED_HINTS: Record<DerivedKey, string> = {
  recoilWeight: 'inertia about the balance point',
  pointsHeadLight: 'balance from the middle of the frame',
  naturalSwing: 'how it swings freely from the butt',
  percussionCm: 'where a hit does not jar the hand',
};

export const SPORT_NAMES: Record<Sport, string> = {
  tennis: 'tennis',
  padel: 'padel',
  pickleball: 'pickleball',
  badminton: 'badminton',
};

export const GUIDE_NAMES: Record<GuideName, string> = {
  'junior-26': 'junior, 26 in',
  'first-full': 'first full-length frame, small adult',
  'average-adult': 'average adult, growing teenager',
  'strong-adult': 'strong adult, tournament junior',
  advanced: 'advanced, college',
  'very-strong': 'very strong, traditional feel',
  light: 'light',
  medium: 'medium',
  heavy: 'heavy',
  '4u': '4U',
  '3u': '3U',
  usual: 'usual weight',
  'strong-arm': 'only for strong arms',
};

/** Why a guide is proposed. */
export const GUIDE_REASON_WORDS: Record<GuideReason, string> = {
  'small-child': 'still small',
  growing: 'still growing',
  small: 'small',
  new: 'new to it',
  social: 'plays socially',
  competes: 'competes',
  strong: 'strong',
  slight: 'slight',
  'wants-weight': 'wants weight behind the ball',
  'wants-quick': 'wants it quick',
  'tender-arm': 'an arm to be spared',
  'nothing-known': 'little is known yet, so from the middle',
};
export const CONDITION_WORDS: Record<Conditions, string> = {
  'hot-fast': 'for hot and fast play',
  'cold-slow': 'for cold and slow play',
};
/** How an aim was come by. */
export const WAY_WORDS: Record<AimRecord['way'], string> = {
  copy: 'copied from a setup',
  'part-way': 'part of the way to a setup',
  frame: 'from another frame',
  guide: 'from a guide',
  complaints: 'from what bothers',
  'by-hand': 'by hand',
  programme: 'a step of a programme',
  back: 'from an earlier build',
};

export const STATION_STATE_WORDS: Record<StationState, string> = {
  done: 'done',
  due: 'due',
  waiting: 'waiting until it has set',
  blocked: 'waiting for an earlier station',
};

/** What is to do next, and why. */
export const NEXT_WORDS: Record<NextStep['because'], string> = {
  'nothing-measured': 'not measured yet',
  'nothing-beside': 'nothing is set beside it',
  'no-aim': 'no aim is set',
  'no-plan': 'no plan is chosen',
  'plan-lapsed': 'its plan no longer fits',
  'steps-left': 'work is left at the bench',
  setting: 'something sets',
  built: 'built, to be checked',
  'not-played': 'not played yet',
  'step-due': 'the next step is proposed',
};

export const LAPSE_WORDS: Record<Lapse, string> = {
  'another-plan': 'another plan was chosen',
  'another-aim': 'the aim was replaced',
  'another-start': 'the round starts from another measurement',
};

export const MARK_WORDS: Record<Mark, string> = { done: 'done', skipped: 'skipped', open: 'reopened' };

export const PURPOSE_NAMES: Record<Purpose, string> = {
  found: 'as found',
  trial: 'trial',
  step: 'during the build',
  check: 'check',
  later: 'later',
};
export const PURPOSE_HINTS: Record<Purpose, string> = {
  found: 'New starting point. Existing plans will need redoing.',
  trial: 'pieces are taped on',
  step: 'in the middle of the build',
  check: 'the build is finished',
  later: 'after play',
};

export const ROUND_WORDS: Record<RoundReason, string> = {
  first: 'first round',
  programme: 'a step',
  complaint: 'a complaint',
  repair: 'a repair',
  back: 'back to an earlier build',
  reopened: 'opened again',
};
export const CLOSING_NAMES: Record<Closing, string> = {
  'handed-over': 'handed over',
  'given-up': 'given up',
  moved: 'moved to another frame',
};

export const BASE_GRIP_NAMES: Record<BaseGrip, string> = {
  none: 'no base grip',
  synthetic: 'synthetic',
  leather: 'leather',
};

/** How a kind of part is called, what it is for, and what each of its numbers is, with its unit. */
export interface PartWords {
  name: string;
  many: string;
  hint: string;
  fields: Partial<Record<string, FieldWords>>;
}
/** A field of a part: a word to choose, or a number of a measure in a unit. Weights are said as the shop says those of parts, whatever a frame is said in. */
export interface FieldWords {
  label: string;
  measure?: Measure;
  unit?: string;
  optional?: true;
}
/** The unit that a field is shown in: weights of parts in the shop's. */
export const fieldUnit = ({ measure, unit }: FieldWords): string | undefined =>
  measure === 'mass' ? partUnit() : unit;
const MATERIAL: FieldWords = { label: 'Material' };
const WEIGHT: FieldWords = { label: 'Weight', measure: 'mass', unit: 'g' };
const PER_CM = { measure: 'massPerCm', unit: 'g/cm' } as const;
const STEP: FieldWords = { label: 'Cut length step', measure: 'length', unit: 'cm' };
const GIVE_OR_TAKE: FieldWords = {
  label: 'Tolerance',
  measure: 'mass',
  unit: 'g',
  optional: true,
};
const THICKNESS: FieldWords = { label: 'Thickness', measure: 'thickness', unit: 'mm', optional: true };
const SHARE: FieldWords = { label: 'Tolerance of its weight', measure: 'share', unit: '%', optional: true };
const SIZES: FieldWords = { label: 'Adds handle sizes', optional: true };
const grip = { massG: WEIGHT, massUncertaintyG: GIVE_OR_TAKE, thicknessMm: THICKNESS, sizes: SIZES };
const piece = { massG: WEIGHT, massUncertaintyG: GIVE_OR_TAKE };
export const PART_WORDS: Record<PartKind, PartWords> = {
  tape: {
    name: 'tape',
    many: 'Tapes',
    hint: 'Weigh a metre of tape and divide by 100: better than the label.',
    fields: {
      material: MATERIAL,
      widthMm: { label: 'Width', measure: 'thickness', unit: 'mm' },
      thicknessMm: THICKNESS,
      gPerCm: { label: 'Weight per cm', ...PER_CM },
      stepCm: STEP,
      massShare: SHARE,
    },
  },
  filling: {
    name: 'filling for the handle',
    many: 'Fillings',
    hint: 'How much of it fills one cm of the handle depends on the handle: weigh once.',
    fields: {
      material: MATERIAL,
      gPerCm: { label: 'Weight in the handle', ...PER_CM },
      dabG: { label: 'Dab size', measure: 'mass', unit: 'g' },
      setMinutes: { label: 'Curing time', measure: 'minutes', unit: 'min', optional: true },
      massShare: SHARE,
    },
  },
  wrap: {
    name: 'strip around the handle',
    many: 'Strips around the handle',
    hint: 'Weight on one cm of the handle’s length, wound as you wind it.',
    fields: {
      material: MATERIAL,
      gPerCm: { label: 'Weight on the handle', ...PER_CM },
      stepCm: STEP,
      thicknessMm: THICKNESS,
      massShare: SHARE,
    },
  },
  baseGrip: {
    name: 'base grip',
    many: 'Base grips',
    hint: 'Weigh one of the box.',
    fields: { material: MATERIAL, ...grip },
  },
  overgrip: {
    name: 'overgrip',
    many: 'Overgrips',
    hint: 'Weigh one as it goes on, without its film.',
    fields: grip,
  },
  sleeve: { name: 'sleeve', many: 'Sleeves', hint: 'Weigh it before it is shrunk on.', fields: grip },
  dampener: { name: 'dampener', many: 'Dampeners', hint: 'Weigh it.', fields: piece },
  string: {
    name: 'string',
    many: 'Strings',
    hint: 'The gauge as measured, not as printed, where you can.',
    fields: { material: MATERIAL, gaugeMm: { label: 'Gauge', measure: 'thickness', unit: 'mm' } },
  },
  insert: {
    name: 'screw or insert',
    many: 'Screws and inserts',
    hint: 'For frames with weight slots.',
    fields: piece,
  },
  dab: { name: 'dab', many: 'Dabs', hint: 'A weighed dab for trials, or to stay.', fields: piece },
};

/** How much it matters that a spec comes out as aimed at. */
export const PRIORITY_WORDS: Record<Priority, string> = { must: 'must', want: 'preferred', free: 'any' };

export const SCHOOL_NAMES: Record<School, string> = {
  free: 'Best overall',
  'handle-first': 'Handle first',
  sides: 'Sides',
  shoulders: 'Shoulders',
  tip: 'Tip',
  ends: 'Ends',
  'balance-keeping': 'Same balance',
};

export const SOURCE_NAMES: Record<SourceKind, string> = {
  measured: 'measured by us',
  published: 'published',
  maker: 'maker’s statement',
  hearsay: 'hearsay',
};

export const CONFIDENCE_NAMES: Record<Confidence, string> = {
  high: 'high: seen or measured by somebody known',
  medium: 'medium',
  low: 'low: second hand',
};

export const STEP_HINTS: Record<StepKind, string> = {
  'weigh-before': 'More than 0.5 g off? Measure again before cutting.',
  'strip-handle': 'Keep the grip: it goes back on. Note where it started.',
  'take-off': 'Weigh what you remove.',
  cut: 'Round the corners so that they do not lift.',
  trial:
    'Same places, held with paper tape; handle weight on the outside of the grip. Or weighed dabs of putty, moved until it reads right: then their places are the new plan.',
  'measure-trial': `Balance and ${SPECS.swingWeight.name} in tolerance? Then commit. Hold back a few grams for the last trim.`,
  'fix-head': 'Wipe the place dry and clean first. Press from the middle outward.',
  seal: 'Thin, over the tape and a little beyond, each coat dry before the next, as the label says. They weigh next to nothing; tungsten needs none.',
  'fill-handle':
    'Push a stop in first, in both chambers where there are two, so that nothing wanders toward the head. Cover the silicone with film before the cap. Hang overnight.',
  'set-in': 'Weigh each piece before it goes in.',
  'wrap-handle': 'Start at the butt, edges side by side, and keep it smooth.',
  swap: 'Weigh what comes off and what goes on.',
  regrip: 'Same overlap as before, or the weight changes.',
  restring:
    'Weigh the new strings, less the offcuts. Record them with their tension: it goes into the frame’s log.',
  'final-check': 'Write it down: it is what the next visit starts from.',
};

/** Where on the hoop a piece lies. */
export const HOOP_NAMES: Record<HoopPlace, string> = {
  inside: 'inside it, toward the middle',
  beside: 'on its flat, beside the strings',
  bumper: 'under the bumper',
  edge: 'on the outer edge',
};

export const STROKE_NAMES: Record<StrokeName, string> = {
  groundstroke: 'groundstroke',
  volley: 'volley',
  serve: 'serve',
  drive: 'drive',
  smash: 'smash',
  dink: 'dink',
  clear: 'clear',
};

export const CAUTIONS: Record<Caution, string> = {
  lead: 'Lead: wear gloves, wash your hands after, cover the tape so that nobody touches it. On a child’s frame seal it with a coat, or take tungsten. Offcuts go where local rules say.',
  blade: 'Blade: cut away from your hand, on a mat. Staples and tacks in a butt spring out: wear glasses.',
  solvent: 'Solvents and curing silicone: open a window, keep flames away, follow the label.',
};
