import {
  COATS,
  newStrings,
  patternOf,
  stringLengths,
  windingOf,
  zoneOf,
  type BenchStep,
  type Frame,
  type Placement,
  type Swap,
  type Removal,
} from '@kevro/core';
import { STEP_TITLES, ZONE_NAMES } from '../../words';
import { removalWords, swapWords } from '../../words/plan';
import { stringingWords } from '../../words/strings';

/** What a step acts on: a plan, as far as its words need it. */
interface Doing {
  placements: readonly Placement[];
  swaps: readonly Swap[];
  removals: readonly Removal[];
}

const ONE_PLACE: ReadonlySet<BenchStep['kind']> = new Set([
  'fix-head',
  'set-in',
  'fill-handle',
  'wrap-handle',
]);

/** Whether a step is about one placement, whose pieces stand under it. */
export const isOnePlace = (step: BenchStep): boolean => ONE_PLACE.has(step.kind);

/** The title of a step: «Fix to the head: shoulders». */
export function stepTitle(step: BenchStep, plan: Doing, frame: Frame): string {
  const title = STEP_TITLES[step.kind];
  if (step.kind === 'seal') return `${title}: ${step.key.split(':')[1]} of ${COATS}`;
  if (!isOnePlace(step)) return title;
  const placement = plan.placements.find(({ id }) => id === step.placementIds[0]);
  return placement ? `${title}: ${ZONE_NAMES[zoneOf(frame, placement)].toLowerCase()}` : title;
}

/**
 * What there is to do in a step beside its pieces: what is changed, and what comes off.
 * @param of the frame's string pattern, and in which order the shop strings
 */
export function stepDoing(
  step: BenchStep,
  plan: Doing,
  frame: Frame,
  { pattern, order }: { pattern?: string | undefined; order?: string | undefined } = {},
): string[] {
  if (step.kind === 'swap' || step.kind === 'restring') {
    const on = plan.swaps
      .filter(({ what }) => (what === 'strings') === (step.kind === 'restring'))
      .map((swap) => `Then on it: ${swapWords(swap)}.${windingWords(swap, frame)}`);
    if (step.kind === 'swap') return on;
    const job = newStrings(plan.swaps)?.job;
    return [...on, ...cutWords(frame, pattern), ...stringingWords(job, order)];
  }
  if (step.kind === 'take-off') return plan.removals.map((removal) => `${removalWords(removal, frame)}.`);
  return [];
}

/** How thick a string is taken to be where nobody said, mm: what is cut hardly depends on it. */
const ANY_GAUGE_MM = 1.25;
/** How much string to cut, where the pattern is known: the stringing machine's clamp takes its part too. */
function cutWords(frame: Frame, pattern: string | undefined): string[] {
  const of = patternOf(pattern);
  if (!of) return [];
  const { mainsCm, crossesCm } = stringLengths(frame, { ...of, gaugeMm: ANY_GAUGE_MM });
  const m = (cm: number): string => (cm / 100).toFixed(1);
  return [
    `Mains about ${m(mainsCm)} m, crosses about ${m(crossesCm)} m, knots included. Leave half a metre of each for the machine.`,
  ];
}

/** «An overgrip is about 10 turns from 114 cm, and makes the handle 0.5 sizes thicker.»: nothing where nothing is wound on. A base grip takes the place of one. */
function windingWords(swap: Swap, frame: Frame): string {
  if (swap.what === 'dampener' || swap.what === 'strings' || swap.to === 0 || swap.to === 'none') return '';
  const over = swap.what === 'overgrips';
  const { turns, stripCm, sizes } = windingOf(frame, over ? 'overgrip' : swap.to);
  const wound = `is about ${Math.round(turns)} turns from ${Math.round(stripCm)} cm`;
  return over
    ? ` An overgrip ${wound}, and makes the handle ${sizes.toFixed(1)} sizes thicker.`
    : ` It ${wound}.`;
}
