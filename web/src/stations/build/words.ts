import {
  COATS,
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

/** What there is to do in a step beside its pieces: what is changed, and what comes off. */
export function stepDoing(step: BenchStep, plan: Doing, frame: Frame): string[] {
  if (step.kind === 'swap' || step.kind === 'restring')
    return plan.swaps
      .filter(({ what }) => (what === 'strings') === (step.kind === 'restring'))
      .map((swap) => `Then on it: ${swapWords(swap)}.${windingWords(swap, frame)}`);
  if (step.kind === 'take-off') return plan.removals.map((removal) => `${removalWords(removal, frame)}.`);
  return [];
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
