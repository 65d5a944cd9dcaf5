import {
  SPECS,
  specName,
  zoneAlong,
  type Frame,
  type Judgement,
  type SpecKey,
  type ZoneName,
  capital,
} from '@kevro/core';
import { limitSentence } from './errors';

/** How much a judgement matters: it cannot be, something is off, or good to know. */
export type Weight = 'wrong' | 'warn' | 'note';

const weightOf = ({ kind }: Judgement): Weight => {
  if (kind === 'impossible-swing') return 'wrong';
  return kind === 'same-as-last' || kind === 'moved-since' ? 'note' : 'warn';
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
/** How numbers and days are said: the page says them as the fitter thinks, in the units and the days of the shop. */
export interface Saying {
  /** A value of a spec with its unit. */
  value: (key: SpecKey, value: number) => string;
  /** An amount of a spec with its unit: a tolerance, a difference. */
  amount: (key: SpecKey, amount: number) => string;
  /** A length with its unit. */
  length: (cm: number) => string;
  day: (iso: string) => string;
}

const POINTS_TO: ReadonlySet<Judgement['kind']> = new Set([
  'customised-before',
  'wrong-label',
  'not-the-paint',
]);
type Outside = Extract<Judgement, { kind: 'outside-tolerance' }>;
const side = ({ spec, by }: Outside, say: Saying): string =>
  `${specName(spec)} ${say.amount(spec, Math.abs(by))} ${SPECS[spec].sides[by > 0 ? 0 : 1]}`;
const outside = (judgement: Outside, say: Saying): string =>
  `${side(judgement, say)}${judgement.spec === 'balanceCm' ? ' of' : ''} what the maker states`;

/** A judgement in a fitter's words. */
function judgementSentence(judgement: Judgement, frame: Frame, say: Saying): string {
  const near = (xCm: number): string => `${NEAR[zoneAlong(frame, xCm)]} (${say.length(xCm)})`;
  const { day } = say;
  switch (judgement.kind) {
    case 'outside-tolerance':
      return `${capital(outside(judgement, say))} (maker’s ${say.value(judgement.spec, judgement.nominal)} ±${say.amount(judgement.spec, judgement.tolerance)}).`;
    case 'customised-before':
      return `Customised before? It looks like ${say.amount('massG', judgement.massG)} ${near(judgement.xCm)}.`;
    case 'wrong-label':
      return 'A wrong label? Look at the number printed on this very frame.';
    case 'not-the-paint':
      return 'Not the model that the paint says, or weight was moved: the weight fits and the rest does not.';
    case 'over-rule-limit':
      return limitSentence(judgement.limit, say.length);
    case 'impossible-swing':
      return `This ${SPECS.swingWeight.name} cannot go with this weight and balance: it must be more than ${say.value('swingWeight', judgement.least)}. Check all three.`;
    case 'unusual-swing':
      return `The mass is spread ${judgement.ratio > 1 ? 'much wider' : 'much closer'} about the balance point than in usual frames (${judgement.ratio.toFixed(2)} times). Read the ${SPECS.swingWeight.name} again.`;
    case 'unusual-twist':
      return `A ${SPECS.twistWeight.name} ${judgement.ratio.toFixed(2)} times that of usual frames. Read it again.`;
    case 'added-since':
    case 'taken-off-since': {
      const { kind, massG, xCm, since } = judgement;
      const put = kind === 'added-since' ? 'more' : 'less';
      const where = xCm === undefined ? '' : ` ${near(xCm)}`;
      const question = kind === 'added-since' ? 'What was put on since?' : 'What was taken off since?';
      return `${say.amount('massG', massG)} ${put}${where} than on ${day(since)}, strung and gripped the same. ${question}`;
    }
    case 'moved-since': {
      const names = judgement.specs.map((key) => specName(key));
      const last = names.pop() ?? '';
      const list = names.length > 0 ? `${names.join(', ')} and ${last}` : last;
      return `As heavy as on ${day(judgement.since)}, but ${list} changed. Was something moved?`;
    }
    case 'same-as-last':
      return `The same as on ${day(judgement.since)}, within the readings.`;
  }
}

export interface JudgementLine {
  weight: Weight;
  text: string;
}

const WEIGHTS: readonly Weight[] = ['wrong', 'warn', 'note'];

/**
 * Judgements as few lines, the gravest first: what lies outside the maker's tolerance stands in one, and what that points to in the next.
 * @example judgementLines(judge(shape, now, { nominal }), frame, say)[0].text // 'Weight 13.5 g over, balance 1.10 cm toward the tip: outside what the maker states …'
 */
export function judgementLines(judgements: readonly Judgement[], frame: Frame, say: Saying): JudgementLine[] {
  const beyond = judgements.filter((j): j is Outside => j.kind === 'outside-tolerance');
  const pointed = judgements.filter((j) => POINTS_TO.has(j.kind));
  const rest = judgements.filter((j) => j.kind !== 'outside-tolerance' && !POINTS_TO.has(j.kind));
  const lines: JudgementLine[] = rest.map((j) => ({
    weight: weightOf(j),
    text: judgementSentence(j, frame, say),
  }));
  const [only, ...others] = beyond;
  if (only && others.length === 0) lines.push({ weight: 'warn', text: judgementSentence(only, frame, say) });
  else if (only) {
    lines.push({
      weight: 'warn',
      text: `${capital(beyond.map((j) => side(j, say)).join(', '))}: outside the maker’s tolerance as it is strung and gripped.`,
    });
  }
  const guesses = pointed.map((j) => judgementSentence(j, frame, say));
  if (guesses.length > 0) lines.push({ weight: 'warn', text: guesses.join(' ') });
  return lines.toSorted((a, b) => WEIGHTS.indexOf(a.weight) - WEIGHTS.indexOf(b.weight));
}
