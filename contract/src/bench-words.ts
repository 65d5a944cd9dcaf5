import type { StepKind, ZoneName } from '@kevro/core';

/** Words of the bench that both the page and what is printed say. */

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

export const STEP_TITLES: Record<StepKind, string> = {
  'weigh-before': 'Weigh the frame as it stands',
  'strip-handle': 'Take the grip off the handle',
  'take-off': 'Take off what goes',
  cut: 'Cut the pieces',
  trial: 'Try it: tape every piece to the outside',
  'measure-trial': 'Measure the trial',
  'fix-head': 'Fix to the head',
  seal: 'Seal the lead with a clear coat',
  'set-in': 'Set in',
  'fill-handle': 'Fill the handle',
  'wrap-handle': 'Wind around the handle',
  swap: 'Change the grips',
  regrip: 'Put the grip back on',
  restring: 'Put new strings in',
  'final-check': 'Weigh, balance and swing it once more',
};
