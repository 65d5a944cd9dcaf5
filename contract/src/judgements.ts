import { zoneAlong, type Frame, type Judgement, type SpecKey, type ZoneName } from '@kevro/core';
import { limitSentence } from './errors';

/** How much a judgement matters: it cannot be, something is off, or good to know. */
export type Weight = 'wrong' | 'warn' | 'note';

export const weightOf = ({ kind }: Judgement): Weight => {
  if (kind === 'impossible-swing') return 'wrong';
  return kind === 'same-as-last' || kind === 'moved-since' ? 'note' : 'warn';
};

const NAMES: Record<SpecKey, string> = {
  massG: 'weight',
  balanceCm: 'balance',
  swingWeight: 'swing weight',
  twistWeight: 'twist weight',
};
const UNITS: Record<SpecKey, [string, number]> = {
  massG: ['g', 1],
  balanceCm: ['cm', 2],
  swingWeight: ['kg·cm²', 0],
  twistWeight: ['kg·cm²', 1],
};
const NEAR: Record<ZoneName, string> = {
  tip: 'near the tip',
  shoulders: 'near the shoulders',
  sides: 'near the middle of the head',
  lowerHoop: 'near the lower hoop',
  throat: 'near the throat',
  handleTop: 'near the top of the handle',
  handle: 'in the handle',
  butt: 'at the butt',
  slotTip: 'near the tip slot',
  slotSides: 'near the side slots',
  slotHeart: 'near the heart',
};
const shown = (key: SpecKey, value: number): string => `${value.toFixed(UNITS[key][1])} ${UNITS[key][0]}`;
const day = (iso: string): string =>
  new Date(iso).toLocaleDateString([], { day: 'numeric', month: 'short', year: 'numeric' });

const higher: Record<SpecKey, [string, string]> = {
  massG: ['over', 'under'],
  balanceCm: ['toward the tip of', 'toward the butt of'],
  swingWeight: ['over', 'under'],
  twistWeight: ['over', 'under'],
};

/** A judgement in a fitter's words. */
export function judgementSentence(judgement: Judgement, frame: Frame): string {
  const near = (xCm: number): string => `${NEAR[zoneAlong(frame, xCm)]} (${xCm.toFixed(0)} cm)`;
  switch (judgement.kind) {
    case 'outside-tolerance': {
      const { spec, by, nominal, tolerance } = judgement;
      const side = higher[spec][by > 0 ? 0 : 1];
      const name = NAMES[spec].charAt(0).toUpperCase() + NAMES[spec].slice(1);
      return `${name} is ${shown(spec, Math.abs(by))} ${side} the maker’s ${shown(spec, nominal)} ±${tolerance} in this dress.`;
    }
    case 'customised-before':
      return `Customised before? It looks like ${judgement.massG.toFixed(1)} g ${near(judgement.xCm)}.`;
    case 'wrong-label':
      return 'Or a wrong label: look at the number printed on this very frame.';
    case 'not-the-paint':
      return 'Not the model that the paint says, or weight was moved: the weight fits and the rest does not.';
    case 'over-rule-limit':
      return limitSentence(judgement.limit);
    case 'impossible-swing':
      return `This swing weight cannot go with this weight and balance: it must be more than ${judgement.least.toFixed(0)} kg·cm². Check all three.`;
    case 'unusual-swing':
      return `The mass is spread ${judgement.ratio > 1 ? 'much wider' : 'much closer'} about the balance point than in usual frames (${judgement.ratio.toFixed(2)} times). Read the swing weight again.`;
    case 'unusual-twist':
      return `A twist weight ${judgement.ratio.toFixed(2)} times that of usual frames. Read it again.`;
    case 'added-since':
    case 'taken-off-since': {
      const { kind, massG, xCm, since } = judgement;
      const put = kind === 'added-since' ? 'more' : 'less';
      const where = xCm === undefined ? '' : ` ${near(xCm)}`;
      const question = kind === 'added-since' ? 'What was put on since?' : 'What was taken off since?';
      return `${massG.toFixed(1)} g ${put} than on ${day(since)} in the same dress${where}. ${question}`;
    }
    case 'moved-since': {
      const names = judgement.specs.map((key) => NAMES[key]);
      const last = names.pop() ?? '';
      const list = names.length > 0 ? `${names.join(', ')} and ${last}` : last;
      return `As heavy as on ${day(judgement.since)}, but ${list} changed. Was something moved?`;
    }
    case 'same-as-last':
      return `The same as on ${day(judgement.since)}, within the readings.`;
  }
}
