import { computed, onBeforeUnmount, ref, shallowRef, watch, type Ref } from 'vue';
import {
  commonDress,
  matchable,
  partRule,
  settleFrame,
  targetOf,
  type FrameToMatch,
  type MatchRequest,
  type Matched,
  type Part,
  type SpecKey,
} from '@kevro/core';
import { fieldError } from '@kevro/contract';
import { useCatalogue } from '../stores/catalogue';
import { useShop } from '../stores/shop';
import { plainly } from '../ui/same';
import type { PlanWorker } from '../workers/plan.worker';
import PlanWorkerFile from '../workers/plan.worker?worker';
import { useWorker } from '../workers/use-worker';

/** A frame of a match, with the name that it goes by. */
export interface Named extends FrameToMatch {
  tag: string;
}
export type To = 'least' | 'own' | { frameId: string };

/** What must match of frames unless somebody says otherwise: what a hand feels first (common practice). */
const USUAL: readonly SpecKey[] = ['massG', 'balanceCm', 'swingWeight'];

/**
 * Works out a match beside the page: whenever the frames, the target or what must match are others.
 * @param partIds the parts that may be used; those of the shop's tapes and fillings where nobody said
 */
export function useMatching(
  frames: Ref<readonly Named[]>,
  own: Ref<Partial<Record<SpecKey, number>> | undefined>,
  partIds: () => readonly string[],
) {
  const shop = useShop();
  const catalogue = useCatalogue();
  const { failure, working, ask, stop } = useWorker<PlanWorker>(() => new PlanWorkerFile());
  onBeforeUnmount(stop);
  const to = ref<To>('least');
  const keys = ref<SpecKey[]>([...USUAL]);
  const found = shallowRef<Matched>();
  const able = computed(() => matchable(frames.value));
  const dress = computed(() => commonDress(frames.value));
  const sport = computed(() => {
    const [first] = frames.value;
    return first && shop.sportOf(settleFrame(first.shape).sport.sport);
  });
  /** One for the hoop and one for the handle, unless the fitting says which. */
  const parts = computed<Part[]>(() => {
    const said = catalogue.inUse.filter(({ id }) => partIds().includes(id));
    if (said.length > 0) return said;
    const hoop = catalogue.layable(['rim']);
    const handle = catalogue.layable(['handle']).filter((part) => !partRule(part).onHandle);
    return [...hoop.slice(0, 1), ...handle.slice(0, 1)];
  });
  const goal = computed((): MatchRequest['to'] | undefined => {
    if (to.value !== 'own') return to.value;
    return own.value && { specs: own.value };
  });
  watch(
    [frames, goal, keys, parts],
    () => {
      stop();
      found.value = undefined;
      failure.value = '';
      if (frames.value.length < 2 || !goal.value || !sport.value || parts.value.length === 0) return;
      const request: MatchRequest = {
        frames: frames.value,
        dress: dress.value,
        keys: keys.value,
        tolerance: sport.value.tolerance,
        to: goal.value,
        parts: parts.value,
        leastG: sport.value.smallestPieceG,
        wanted: shop.wanted,
      };
      void ask(
        (worker) => worker.match(plainly(request)),
        (answer) => {
          found.value = answer.found;
          failure.value = answer.problems.map((p) => fieldError(p).message).join(' ');
        },
      );
    },
    { immediate: true, deep: true },
  );
  return { to, keys, able, dress, sport, parts, found, working, failure };
}

/** The values of a target that are aimed at. */
export const aimedAt = (target: Parameters<typeof targetOf>[0]): Partial<Record<SpecKey, number>> =>
  Object.fromEntries(
    (Object.keys(target) as SpecKey[]).flatMap((key) => {
      const one = targetOf(target, key);
      return one ? [[key, one.value]] : [];
    }),
  );
