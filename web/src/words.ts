import type { Caution, School, SpecKey, Station, StepKind, ZoneName } from '@kevro/core';
import type { SourceKind } from '@kevro/contract';

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

export const SPEC_NAMES: Record<SpecKey, string> = {
  massG: 'Weight',
  balanceCm: 'Balance',
  swingWeight: 'Swing weight',
  twistWeight: 'Twist weight',
};

export const ZONE_NAMES: Record<ZoneName, string> = {
  tip: 'Tip',
  shoulders: 'Shoulders',
  sides: 'Sides',
  lowerHoop: 'Lower hoop',
  throat: 'Throat',
  handleTop: 'Top of handle',
  handle: 'Handle',
  butt: 'Butt',
  slotTip: 'Tip slot',
  slotSides: 'Side slots',
  slotHeart: 'Heart slot',
};

export const SCHOOL_NAMES: Record<School, string> = {
  free: 'Free optimum',
  'handle-first': 'Handle first',
  sides: 'Sides',
  shoulders: 'Shoulders',
  tip: 'Tip',
  ends: 'Ends',
  'balance-keeping': 'Balance kept',
};

export const SOURCE_NAMES: Record<SourceKind, string> = {
  measured: 'measured by us',
  published: 'published',
  maker: 'maker’s statement',
  hearsay: 'hearsay',
};

export const STEP_TITLES: Record<StepKind, string> = {
  'weigh-before': 'Weigh the frame as it stands',
  'strip-handle': 'Take the grip off the handle',
  cut: 'Cut the pieces',
  trial: 'Try it: tape every piece to the outside',
  'measure-trial': 'Measure the trial',
  'fix-head': 'Fix to the head',
  'fill-handle': 'Fill the handle',
  regrip: 'Put the grip back on',
  'final-check': 'Weigh, balance and swing it once more',
};

export const STEP_HINTS: Record<StepKind, string> = {
  'weigh-before': 'Within 0.5 g of the measurement? If not, measure again before anything is cut.',
  'strip-handle': 'Keep the grip: it goes back on. Note where it started.',
  cut: 'Round the corners so that they do not lift.',
  trial: 'Same places, held with paper tape. Handle weight goes on the outside of the grip.',
  'measure-trial':
    'Balance and swing weight inside the aim? Then commit. Hold back a few grams for the last correction.',
  'fix-head': 'Wipe the inside of the hoop dry and clean first. Press from the middle outward.',
  'fill-handle': 'Push a stop in first, so that nothing wanders toward the head.',
  regrip: 'Same overlap as before, or the weight changes.',
  'final-check': 'Write it down: it is what the next visit starts from.',
};

export const CAUTIONS: Record<Caution, string> = {
  lead: 'Lead: wear gloves, wash your hands after, cover the tape so that nobody touches it, keep it off children’s frames. Offcuts go where local rules say.',
  blade: 'Blade: cut away from your hand, on a mat.',
  solvent: 'Solvents and curing silicone: open a window, keep flames away, follow the label.',
};
