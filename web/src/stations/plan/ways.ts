import { computed, onBeforeUnmount, watch, type Ref } from 'vue';
import {
  lightenEvenly,
  removalOffers,
  swapOffers,
  swapsTo,
  type Offer,
  type Part,
  type Plan,
  type PlanRequest,
} from '@kevro/core';
import { useKept } from '../../ui/kept';
import { same } from '../../ui/same';
import { useFitting } from '../../stores/fitting';
import { useShop } from '../../stores/shop';
import type { useHistory } from './history';
import { NO_LIMITS, capsOf, type Limits } from './limits';
import { usePlans } from './plans';
import type { useShopParts } from './shop-parts';
import type { Standing } from './standing';

/** Choices that may be judged for each way: a fitter waits for seven, so that each has a part of the time that a single plan may take. */
const SCREEN_WORK = 300_000;
/** What lightening evenly takes off, and the finest that is cut, g. */
const LIGHTER = 0.1;
const FINEST_G = 0.1;

/**
 * The ways to the aim of the open fitting: asked for whenever aim, parts, caps or what may be changed are others; the best is laid out until the fitter picks or
 * changes something.
 * @param selected the chosen piece, forgotten when another way is laid out
 */
export function useWays(
  history: ReturnType<typeof useHistory<Standing>>,
  { parts }: Pick<ReturnType<typeof useShopParts>, 'parts'>,
  selected: Ref<string | undefined>,
  startedEmpty: boolean,
) {
  const fitting = useFitting();
  const shop = useShop();
  const asking = usePlans();
  const finishing = usePlans();
  onBeforeUnmount(() => {
    asking.stop();
    finishing.stop();
  });
  const { plans } = asking;
  const standing = history.now;

  /** Whether grips may be changed and what is on the frame may come off: asked of the fitter, since it changes the feel. */
  const mayChange = useKept('kevro-plan-may-change', { grips: false, onIt: false });
  const onIt = computed(() => fitting.record?.weights ?? []);
  const offers = computed<Offer[]>(() => {
    const { frame, dress } = fitting;
    if (!frame || !dress) return [];
    return [
      ...(mayChange.value.grips ? swapOffers(frame, dress) : []),
      ...(mayChange.value.onIt ? removalOffers(frame, onIt.value, parts.value) : []),
    ];
  });
  /** What a fitter said of how much goes where, kept for the sport on this device. */
  const allLimits = useKept<Partial<Record<string, Limits>>>('kevro-plan-limits', {});
  const sport = computed(() => fitting.record?.shape.sport ?? '');
  const limits = computed<Limits>({
    get: () => allLimits.value[sport.value] ?? NO_LIMITS,
    set: (now) => {
      allLimits.value = { ...allLimits.value, [sport.value]: now };
    },
  });

  /** What every plan of this frame is asked with. */
  function request(): PlanRequest | undefined {
    const { record, before, frame, dress, instruments, aim } = fitting;
    if (!record || !before || !frame || !aim || parts.value.length === 0) return undefined;
    const caps = capsOf(frame.sport, limits.value);
    return {
      shape: record.shape,
      specs: before,
      target: aim.target,
      parts: parts.value,
      offers: offers.value,
      dress: dress ?? {},
      swaps: aim.finish && dress ? swapsTo(dress, aim.finish) : [],
      work: SCREEN_WORK,
      leastG: shop.sportOf(frame.sport.sport).smallestPieceG,
      ...(caps ? { caps } : {}),
      wanted: shop.wanted,
      // The check is read with what the start was read with.
      ...(instruments ? { instruments } : {}),
    };
  }

  /** Whether the best plan is taken as soon as it is known. */
  let takeBest = startedEmpty;
  const sameParts = (a: readonly Part[], b: readonly Part[]): boolean =>
    a.map(({ id }) => id).join() === b.map(({ id }) => id).join();
  watch(
    [parts, offers, limits, () => fitting.aim?.id, () => fitting.measurement?.id],
    ([laidIn, offered, limited], [laidInBefore, offeredBefore, limitedBefore]) => {
      const asked = request();
      if (!asked) return;
      // What stands was laid out in other parts, or under other caps: the best plan now takes its place, and undo brings it back.
      const otherParts = laidInBefore && laidInBefore.length > 0 && !sameParts(laidIn, laidInBefore);
      const otherOffers = offeredBefore && offered.length !== offeredBefore.length;
      const otherLimits = limitedBefore && !same(limited, limitedBefore);
      if (otherParts || otherOffers || otherLimits) takeBest = true;
      asking.make(asked);
    },
    { immediate: true },
  );

  /** Whether anything stands yet: the first plan is where undo ends. */
  const stands = computed(() => standing.value.school !== undefined || standing.value.byHand);
  function lay({ school, placements, swaps, removals }: Plan): void {
    const next = { school, byHand: false, placements, swaps, removals, parts: parts.value };
    if (same(next, standing.value)) return;
    selected.value = undefined;
    if (stands.value) history.change(next);
    else history.restart(next);
  }
  watch(plans, ([best]) => {
    if (best && takeBest) lay(best);
  });
  watch(standing, ({ byHand, school }) => {
    const [best] = plans.value;
    if (byHand) takeBest = false;
    // Afresh where no plan is stored: from the best one.
    else if (!school && best) lay(best);
  });
  function pick(plan: Plan): void {
    takeBest = false;
    lay(plan);
  }
  /** Something that was laid out before: an earlier plan, a variant. */
  function layAgain(next: Omit<Standing, 'byHand'>): void {
    takeBest = false;
    selected.value = undefined;
    const { school, placements, swaps, removals, parts: made } = next;
    history.change({ school, byHand: true, placements, swaps, removals, parts: made });
  }

  /** Finishes from here: what lies there stays, the rest is worked out around it. */
  function finish(): void {
    const asked = request();
    const { placements, parts: made } = standing.value;
    if (!asked || placements.length === 0) return;
    const more = made.filter(({ id }) => !parts.value.some((part) => part.id === id));
    finishing.make({
      ...asked,
      parts: [...parts.value, ...more],
      offers: [],
      schools: ['free'],
      locked: placements,
    });
  }
  watch(finishing.plans, ([best]) => {
    if (!best) return;
    takeBest = false;
    const { parts: made, swaps, removals } = standing.value;
    const all = [...made, ...parts.value.filter(({ id }) => !made.some((part) => part.id === id))];
    history.change({
      school: 'free',
      byHand: true,
      placements: best.placements,
      swaps,
      removals,
      parts: all,
    });
  });

  /** Takes the same share off everything that was laid, so that the feel stays. */
  function lighten(): void {
    takeBest = false;
    const placements = lightenEvenly(standing.value.placements, LIGHTER, FINEST_G);
    history.change({ ...standing.value, byHand: true, placements });
  }

  return { asking, finishing, plans, mayChange, onIt, limits, stands, pick, layAgain, finish, lighten };
}
