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
  'weigh-before': 'Weigh the frame',
  'strip-handle': 'Take the grip off the handle',
  'take-off': 'Remove old weight',
  cut: 'Cut the pieces',
  trial: 'Trial: tape everything on the outside',
  'measure-trial': 'Measure the trial',
  'fix-head': 'Stick on',
  seal: 'Seal the lead with a clear coat',
  'set-in': 'Insert',
  'fill-handle': 'Fill the handle',
  'wrap-handle': 'Wrap the handle',
  swap: 'Change the grips',
  regrip: 'Put the grip back on',
  restring: 'Put new strings in',
  'final-check': 'Final measurement',
};
